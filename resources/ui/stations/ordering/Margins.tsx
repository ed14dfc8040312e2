import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { percent } from '../../kit/format';
import { Choice, Mark, Panel } from '../../kit/basics';
import { More } from '../../kit/More';

type M = Schemas['Margins'];

type MarginsProps = {
    margins: M;
    elements: Record<string, string>;
    torque: number;
    sensitivity?: NonNullable<Schemas['Spec']['sensitivity']>;
};

/** Capacity over demand, gear by gear and element by element; the bar ends at twice the limit. */
export function Margins({ margins, elements, torque, sensitivity = [] }: MarginsProps) {
    const ids = [...new Set(margins.gears.flatMap((g) => g.elements.map((e) => e.element)))];
    const w = margins.weakest;
    const [under, setUnder] = useState<Under>('torque');
    return (
        <Panel
            title="What it can hold"
            aside={`full throttle; limit ${margins.limit.toFixed(2)}, bars end at ${(2 * margins.limit).toFixed(1)}`}
        >
            {w && <Weakest margins={margins} elements={elements} torque={torque} w={w} />}
            <div className="mt-2">
                <Choice
                    small
                    label="Under each bar"
                    value={under}
                    values={Object.keys(UNDER)}
                    text={(u) => UNDER[u as Under].text}
                    onChange={(u) => setUnder(u as Under)}
                />
            </div>
            <MarginTable margins={margins} elements={elements} ids={ids} under={under} />
            <ByThrottle by={margins.byThrottle ?? []} />
            <OverPressure gears={margins.overPressure ?? []} />
            {sensitivity.length > 0 && <WouldRaise sensitivity={sensitivity} />}
            <OverPressed margins={margins} elements={elements} />
            <SelfApplying margins={margins} elements={elements} />
            <Unknown margins={margins} />
        </Panel>
    );
}

type Names = Record<string, string>;
type WeakestProps = { margins: M; elements: Names; torque: number; w: NonNullable<M['weakest']> };

function Weakest({ margins, elements, torque, w }: WeakestProps) {
    return (
        <p className="flex flex-wrap items-baseline gap-x-4">
            <span>
                <strong className="num">{w.margin.toFixed(2)}</strong>{' '}
                <Mark kind={margins.holds ? 'good' : 'bad'}>{margins.holds ? 'holds' : 'does not hold'}</Mark> weakest:{' '}
                <strong>{elements[w.element] ?? w.element}</strong> in gear {w.gear}
                {w.opening !== undefined && ` at ${percent(w.opening)} throttle`}, {w.capacity_nm.toFixed(0)} of{' '}
                {w.demand_nm.toFixed(0)} N.m
            </span>
            {margins.largestInputTorque_nm !== undefined && (
                <span>
                    good for <strong className="num">{margins.largestInputTorque_nm.toFixed(0)} N.m</strong> of engine
                    torque; this order has {torque.toFixed(0)}
                </span>
            )}
        </p>
    );
}

type MarginTableProps = { margins: M; elements: Names; ids: string[]; under: Under };

function MarginTable({ margins, elements, ids, under }: MarginTableProps) {
    return (
        <div className="overflow-x-auto">
            <table className="mt-2 w-full text-sm">
                <thead>
                    <tr>
                        <th scope="col" className="th">
                            Gear
                        </th>
                        {ids.map((id) => (
                            <th key={id} scope="col" className="th" title={elements[id]}>
                                {id}
                                <span className="block font-normal">{elements[id]}</span>
                            </th>
                        ))}
                    </tr>
                </thead>
                <tbody>
                    {margins.gears.map((g) => (
                        <GearRow key={g.name} {...{ g, ids, margins, under }} />
                    ))}
                </tbody>
            </table>
        </div>
    );
}

type GearRowProps = Omit<MarginTableProps, 'elements'> & { g: M['gears'][number] };

function GearRow({ g, ids, margins, under }: GearRowProps) {
    return (
        <tr>
            <th scope="row" className="td text-left font-head text-2xl">
                {g.name}
                <span className="block text-sm font-normal whitespace-nowrap text-faint num">
                    {g.pressure_kpa.toFixed(0)} kPa
                    {g.converterRatio !== 1 && `, ×${g.converterRatio.toFixed(2)}`}
                </span>
            </th>
            {ids.map((id) => (
                <td key={id} className="td">
                    <Cell
                        element={g.elements.find((e) => e.element === id)}
                        limit={margins.limit}
                        unknown={margins.unknown.some((u) => u.gear === g.name && u.element === id)}
                        under={under}
                    />
                </td>
            ))}
        </tr>
    );
}

function ByThrottle({ by }: { by: NonNullable<M['byThrottle']> }) {
    if (by.length === 0) return null;
    return (
        <p className="mt-2 text-sm">
            By throttle:{' '}
            {[...by]
                .sort((a, b) => (b.opening ?? 1) - (a.opening ?? 1))
                .map(
                    (b) =>
                        `${b.opening === undefined ? 'full' : percent(b.opening)} ${b.margin.toFixed(2)} (${b.element} in ${b.gear})`,
                )
                .join('; ')}
            .
        </p>
    );
}

function OverPressure({ gears }: { gears: NonNullable<M['overPressure']> }) {
    if (gears.length === 0) return null;
    return (
        <p className="mt-2">
            <Mark kind="bad">Line pressure above the house limit</Mark> in{' '}
            {gears.map((g) => `${g.gear}: ${g.pressure_kpa.toFixed(0)} kPa`).join(', ')}. Such pressure splits drums and
            breaks case lugs.
        </p>
    );
}

function WouldRaise({
    sensitivity,
}: {
    sensitivity: { name: string; option: string; largestInputTorque_nm: number; gain_nm: number }[];
}) {
    return (
        <p className="mt-2 text-sm">
            What would raise it most:{' '}
            {sensitivity
                .filter((x) => x.gain_nm > 0.5)
                .slice(0, 3)
                .map((x) => `${x.name}, to ${x.largestInputTorque_nm.toFixed(0)} N.m`)
                .join('; ') || 'no single option; two weak links stand close together'}
            .
        </p>
    );
}

function Unknown({ margins }: { margins: M }) {
    if (margins.unknown.length === 0) return null;
    return (
        <p className="mt-1 text-sm text-faint">
            Not determined by statics or not described:{' '}
            {margins.unknown.map((u) => `${u.element} in ${u.gear}`).join(', ')}.
        </p>
    );
}

type Under = 'torque' | 'lining';

type Belonging = { margins: M; elements: Names };

function OverPressed({ margins, elements }: Belonging) {
    if (margins.overPressed.length === 0) return null;
    return (
        <More className="mt-2" title={<Mark kind="bad">A lining is pressed harder than it stands</Mark>}>
            <ul>
                {margins.overPressed.map((o) => (
                    <li key={o.gear + o.element}>
                        {elements[o.element] ?? o.element} in gear {o.gear}: {megapascal(o.liningPressure_kpa)} MPa,
                        good for {megapascal(o.liningLimit_kpa)}
                    </li>
                ))}
            </ul>
        </More>
    );
}

function SelfApplying({ margins, elements }: Belonging) {
    if (margins.selfApplying.length === 0) return null;
    return (
        <More className="mt-2" title={<Mark kind="warn">Oil in a released drum beats its return springs</Mark>}>
            <ul>
                {margins.selfApplying.map((r) => (
                    <li key={r.gear + r.element}>
                        {elements[r.element] ?? r.element} in gear {r.gear}: {r.force_n.toFixed(0)} N against{' '}
                        {r.returnForce_n.toFixed(0)} N at {r.drumSpeed_rpm.toFixed(0)} rev/min
                        {r.selfApplyInputSpeed_rpm !== undefined &&
                            `; from ${r.selfApplyInputSpeed_rpm.toFixed(0)} rev/min of the input on`}
                    </li>
                ))}
            </ul>
        </More>
    );
}

const megapascal = (kpa: number) => (kpa / 1000).toFixed(1);

const UNDER: Record<Under, { text: string; value: (e: Loaded) => string }> = {
    torque: { text: 'torque, N.m', value: (e) => `${e.capacity_nm.toFixed(0)} / ${e.demand_nm.toFixed(0)}` },
    lining: {
        text: 'lining pressure, MPa',
        value: ({ liningPressure_kpa: p, liningLimit_kpa: limit }) =>
            p === undefined ? '–' : [p, limit].flatMap((v) => (v ? megapascal(v) : [])).join(' / '),
    },
};

type Loaded = M['gears'][number]['elements'][number];
type CellProps = { element: Loaded | undefined; limit: number; unknown: boolean; under: Under };

function Cell({ element: e, limit, unknown, under }: CellProps) {
    if (unknown) return <span title="not determined">?</span>;
    if (!e)
        return (
            <span aria-label="released" className="text-faint">
                ·
            </span>
        );
    if (e.margin === undefined) return <span className="text-faint">carries nothing</span>;
    const low = e.margin < limit;
    return (
        <span className="block min-w-16" title={e.rotation && `band ${e.rotation} the drum`}>
            <strong className={`num text-base ${low ? 'text-bad' : ''}`}>
                {low && <span aria-hidden="true">▲ </span>}
                {e.margin.toFixed(2)}
            </strong>
            {low && <span className="sr-only"> below the limit</span>}
            <Bar part={Math.min(1, e.margin / limit / 2)} low={low} />
            <span className="block whitespace-nowrap num">{UNDER[under].value(e)}</span>
        </span>
    );
}

/** The limit is the mark in the middle. */
function Bar({ part, low }: { part: number; low: boolean }) {
    return (
        <span aria-hidden="true" className="relative block h-2 border border-rule bg-sheet">
            <span className={`block h-full ${low ? 'bg-bad' : 'bg-enamel'}`} style={{ width: `${100 * part}%` }} />
            <span className="absolute inset-y-0 left-1/2 w-px bg-ink" />
        </span>
    );
}
