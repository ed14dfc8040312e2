import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { percent } from '../../kit/format';
import { Choice, Mark, Panel } from '../../kit/basics';
import { More } from '../../kit/More';

type M = Schemas['Margins'];

/** Capacity over demand, gear by gear and element by element; the bar ends at twice the limit. */
export function Margins({
    margins,
    elements,
    torque,
    sensitivity = [],
}: {
    margins: M;
    elements: Record<string, string>;
    torque: number;
    sensitivity?: NonNullable<Schemas['Spec']['sensitivity']>;
}) {
    const ids = [...new Set(margins.gears.flatMap((g) => g.elements.map((e) => e.element)))];
    const w = margins.weakest;
    const [under, setUnder] = useState<Under>('torque');
    return (
        <Panel
            title="What it can hold"
            aside={`full throttle; limit ${margins.limit.toFixed(2)}, bars end at ${(2 * margins.limit).toFixed(1)}`}
        >
            {w && (
                <p className="flex flex-wrap items-baseline gap-x-4">
                    <span>
                        <strong className="num">{w.margin.toFixed(2)}</strong>{' '}
                        <Mark kind={margins.holds ? 'good' : 'bad'}>{margins.holds ? 'holds' : 'does not hold'}</Mark>{' '}
                        weakest: <strong>{elements[w.element] ?? w.element}</strong> in gear {w.gear}
                        {w.opening !== undefined && ` at ${percent(w.opening)} throttle`}, {w.capacity_nm.toFixed(0)} of{' '}
                        {w.demand_nm.toFixed(0)} N.m
                    </span>
                    {margins.largestInputTorque_nm !== undefined && (
                        <span>
                            good for <strong className="num">{margins.largestInputTorque_nm.toFixed(0)} N.m</strong> of
                            engine torque; this order has {torque.toFixed(0)}
                        </span>
                    )}
                </p>
            )}
            <div className="mt-2">
                <Choice
                    small
                    label="Under each bar"
                    value={under}
                    values={UNDER}
                    text={(u) => (u === 'torque' ? 'torque, N.m' : 'lining pressure, MPa')}
                    onChange={(u) => setUnder(u as Under)}
                />
            </div>
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
                            <tr key={g.name}>
                                <th scope="row" className="td text-left font-head text-2xl">
                                    {g.name}
                                    <span className="block text-sm font-normal whitespace-nowrap text-faint num">
                                        {g.pressure_kpa.toFixed(0)} kPa
                                        {g.converterRatio !== 1 && `, ×${g.converterRatio.toFixed(2)}`}
                                    </span>
                                </th>
                                {ids.map((id) => (
                                    <td key={id} className="td">
                                        {cell(
                                            g.elements.find((e) => e.element === id),
                                            margins.limit,
                                            margins.unknown.some((u) => u.gear === g.name && u.element === id),
                                            under,
                                        )}
                                    </td>
                                ))}
                            </tr>
                        ))}
                    </tbody>
                </table>
            </div>
            {(margins.byThrottle ?? []).length > 0 && (
                <p className="mt-2 text-sm">
                    By throttle:{' '}
                    {[...margins.byThrottle!]
                        .sort((a, b) => (b.opening ?? 1) - (a.opening ?? 1))
                        .map(
                            (b) =>
                                `${b.opening === undefined ? 'full' : percent(b.opening)} ${b.margin.toFixed(2)} (${b.element} in ${b.gear})`,
                        )
                        .join('; ')}
                    .
                </p>
            )}
            {(margins.overPressure ?? []).length > 0 && (
                <p className="mt-2">
                    <Mark kind="bad">Line pressure above the house limit</Mark> in{' '}
                    {margins.overPressure!.map((g) => `${g.gear}: ${g.pressure_kpa.toFixed(0)} kPa`).join(', ')}. Such
                    pressure splits drums and breaks case lugs.
                </p>
            )}
            {sensitivity.length > 0 && (
                <p className="mt-2 text-sm">
                    What would raise it most:{' '}
                    {sensitivity[0]!.gain_nm > 0.5
                        ? sensitivity
                              .filter((x) => x.gain_nm > 0.5)
                              .slice(0, 3)
                              .map((x) => `${x.name}, to ${x.largestInputTorque_nm.toFixed(0)} N.m`)
                              .join('; ')
                        : 'no single option; two weak links stand close together'}
                    .
                </p>
            )}
            {margins.overPressed.length > 0 && (
                <More
                    className="mt-2"
                    title={
                        <>
                            <Mark kind="bad">A lining is pressed harder than it stands</Mark>
                        </>
                    }
                >
                    <ul>
                        {margins.overPressed.map((o) => (
                            <li key={o.gear + o.element}>
                                {elements[o.element] ?? o.element} in gear {o.gear}:{' '}
                                {(o.liningPressure_kpa / 1000).toFixed(1)} MPa, good for{' '}
                                {(o.liningLimit_kpa / 1000).toFixed(1)}
                            </li>
                        ))}
                    </ul>
                </More>
            )}
            {margins.selfApplying.length > 0 && (
                <More
                    className="mt-2"
                    title={
                        <>
                            <Mark kind="warn">Oil in a released drum beats its return springs</Mark>
                        </>
                    }
                >
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
            )}
            {margins.unknown.length > 0 && (
                <p className="mt-1 text-sm text-faint">
                    Not determined by statics or not described:{' '}
                    {margins.unknown.map((u) => `${u.element} in ${u.gear}`).join(', ')}.
                </p>
            )}
        </Panel>
    );
}

const UNDER = ['torque', 'lining'] as const;
type Under = (typeof UNDER)[number];

function cell(e: M['gears'][number]['elements'][number] | undefined, limit: number, unknown: boolean, under: Under) {
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
            <span aria-hidden="true" className="relative block h-2 border border-rule bg-sheet">
                <span
                    className={`block h-full ${low ? 'bg-bad' : 'bg-enamel'}`}
                    style={{ width: `${Math.min(100, (50 * e.margin) / limit)}%` }}
                />
                <span className="absolute inset-y-0 left-1/2 w-px bg-ink" />
            </span>
            <span className="block whitespace-nowrap num">
                {under === 'torque'
                    ? `${e.capacity_nm.toFixed(0)} / ${e.demand_nm.toFixed(0)}`
                    : e.liningPressure_kpa === undefined
                      ? '–'
                      : `${(e.liningPressure_kpa / 1000).toFixed(1)}${e.liningLimit_kpa ? ` / ${(e.liningLimit_kpa / 1000).toFixed(1)}` : ''}`}
            </span>
        </span>
    );
}
