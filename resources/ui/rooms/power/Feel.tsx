import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { compute } from '../../api/calc';
import { answer, api, fieldProblem, problemOf, type Problem, type Schemas } from '../../api/client';
import { Choice, Field, HeadRow, Mark, Panel, ProblemNote, Select } from '../../kit/basics';
import { typedNumber, type Train } from './trains';

const FIRMER =
    'shorter stroke or stiffer spring: firmer and quicker; ' + 'a blocked piston must still sit below the gasket face';

type Json = Record<string, unknown>;
type Feels = Schemas['Family']['shiftFeels'];
type Window = {
    start_kpa: number;
    end_kpa: number;
    volume_ml: number;
    fills: boolean;
    fill_s?: number;
    curve: { volume_ml: number; pressure_kpa: number }[];
};
type Shift = {
    completes: boolean;
    endsInStroke?: boolean;
    takeOver_s?: number;
    duration_s?: number;
    overlap_s?: number;
    flare_rpm?: number;
    bump?: number;
    energy_j?: number;
    outputTorque_nm?: { before: number; lowest: number; peak: number; after: number };
    curve: { t: number; pressure_kpa: number; output_nm: number }[];
};
type Drive = { torque: string; speed: string; inertia: string; mass: string; axle: string; radius: string };

/** Where each field stands in an accumulator as the calculators read it. */
const FIELDS = [
    ['pistonDiameter_mm', 'Piston (mm)'],
    ['springs/0/wire_mm', 'Wire (mm)'],
    ['springs/0/meanDiameter_mm', 'Coil, mean (mm)'],
    ['springs/0/activeCoils', 'Active coils'],
    ['springs/0/freeLength_mm', 'Free length (mm)'],
    ['installedLength_mm', 'Installed (mm)'],
    ['stroke_mm', 'Stroke (mm)'],
    ['feed/diameter_mm', 'Feed orifice (mm)'],
    ['line_kpa', 'Line pressure (kPa)'],
] as const;

/** When the off-going element lets go; left empty it does so just in time. */
const LETS_GO = 'letsGo_s';

const at = (node: unknown, path: string): unknown =>
    path.split('/').reduce<unknown>((n, key) => (n as Json | undefined)?.[key], node);

function edited(build: Json, edits: Record<string, string>): Json {
    const out = structuredClone(build);
    Object.entries(edits).forEach(([path, value]) => {
        const keys = path.split('/');
        const last = keys.at(-1) ?? path;
        const holder = at(out, keys.slice(0, -1).join('/')) as Json | undefined;
        if (path === LETS_GO && value.trim() === '') delete out[path];
        else (keys.length === 1 ? out : (holder ?? out))[last] = typedNumber(value);
    });
    return out;
}

const fromTo = (shift: Feels[number] | undefined) => (shift ? `${shift.from} to ${shift.to}` : '');

/** What a spring, a stroke, an orifice or a pressure does to the feel of a shift: its accumulator before and after. */
export function Feel({ train, feels, drive }: { train: Train; feels: Feels; drive: Drive }) {
    const example = useQuery({
        queryKey: ['calc', 'accumulator.window'],
        queryFn: () => answer(api.GET('/calc/{name}', { params: { path: { name: 'accumulator.window' } } })),
        staleTime: Infinity,
        enabled: feels.length === 0,
    });
    const [at, setAt] = useState(0);
    const shift = feels[at];
    const builds = (shift?.builds ??
        (example.data as { example: { input: { builds: Json[] } } } | undefined)?.example.input.builds) as
        Build[] | undefined;
    if (!builds) return null;
    return (
        <Panel
            title={
                shift ? `Feel: ${shift.name}, ${shift.from} to ${shift.to}` : 'Feel: an accumulator before and after'
            }
            aside={FIRMER}
        >
            {feels.length > 1 && (
                <Choice
                    small
                    label="Shift"
                    value={String(at)}
                    values={feels.map((_, i) => String(i))}
                    text={(i) => fromTo(feels[Number(i)])}
                    onChange={(i) => setAt(Number(i))}
                />
            )}
            <Compared key={at} train={train} shift={shift} builds={builds} drive={drive} />
        </Panel>
    );
}

type Got = { windows: Window[]; shifts: Shift[] | null };

/** The pressure windows of the builds and, where the shift is known, how each one feels. */
async function feelOf(train: Train, shift: Feels[number] | undefined, drive: Drive, asked: Json[]): Promise<Got> {
    const window = await compute<{ builds: Window[] }>('accumulator.window', {
        builds: asked.map((b) =>
            Object.fromEntries(Object.entries(b).filter(([k]) => k !== 'capacity' && k !== LETS_GO)),
        ),
    });
    if (!shift) return { windows: window.builds, shifts: null };
    const feel = await compute<{ builds: Shift[] }>('shift.feel', {
        ...train,
        from: shift.from,
        to: shift.to,
        element: shift.element,
        capacity: shift.capacity,
        inputTorque_nm: typedNumber(drive.torque),
        inputSpeed_rpm: typedNumber(drive.speed),
        inputInertia_kgm2: typedNumber(drive.inertia),
        vehicle: {
            mass_kg: typedNumber(drive.mass),
            axleRatio: typedNumber(drive.axle),
            tyreRadius_mm: typedNumber(drive.radius),
        },
        builds: asked,
    });
    return { windows: window.builds, shifts: feel.builds };
}

type Side = 'before' | 'after';
type Build = Json & { name: string };

/** The feel of both builds, asked a moment after the last key; an answer that comes late is dropped. */
function useFeel(train: Train, shift: Feels[number] | undefined, drive: Drive, asked: Json[]) {
    const [got, setGot] = useState<Got | null>(null);
    const [problem, setProblem] = useState<Problem | null>(null);
    const key = JSON.stringify([asked, drive]);
    useEffect(() => {
        let stale = false;
        const timer = setTimeout(async () => {
            try {
                const answered = await feelOf(train, shift, drive, asked);
                if (stale) return;
                setProblem(null);
                setGot(answered);
            } catch (error) {
                if (!stale) setProblem(problemOf(error));
            }
        }, 150);
        return () => {
            stale = true;
            clearTimeout(timer);
        };
        // eslint-disable-next-line react-hooks/exhaustive-deps -- `key` stands for all that is asked
    }, [key]);
    return { got, problem };
}

const SIDES: readonly Side[] = ['before', 'after'];
const NO_EDITS: Record<Side, Record<string, string>> = { before: {}, after: {} };

type ComparedProps = { train: Train; shift?: Feels[number]; builds: Build[]; drive: Drive };

function Compared({ train, shift, builds, drive }: ComparedProps) {
    const [chosen, choose] = useState({ before: 0, after: Math.min(1, builds.length - 1) });
    const [edits, edit] = useState(NO_EDITS);
    const asked = SIDES.map((side) => ({ ...edited(builds[chosen[side]] ?? {}, edits[side]), name: side }));
    const { got, problem } = useFeel(train, shift, drive, asked);
    return (
        <>
            <div className="mt-2 grid gap-4 lg:grid-cols-2">
                {SIDES.map((side, i) => (
                    <BuildSide
                        key={side}
                        title={side === 'before' ? 'Before' : 'After'}
                        builds={builds}
                        chosen={chosen[side]}
                        edits={edits[side]}
                        timed={shift?.timed ?? false}
                        wrong={(path) => fieldProblem(problem, `/builds/${i}/${path}`)}
                        onChoose={(at) => {
                            choose({ ...chosen, [side]: at });
                            edit({ ...edits, [side]: {} });
                        }}
                        onEdit={(path, value) => edit({ ...edits, [side]: { ...edits[side], [path]: value } })}
                    />
                ))}
            </div>
            <ProblemNote
                problem={problem}
                except={SIDES.flatMap((_, i) =>
                    [...FIELDS.map(([path]) => path), LETS_GO].map((path) => `/builds/${i}/${path}`),
                )}
            />
            {got && <Results windows={got.windows} shifts={got.shifts} timed={shift?.timed ?? false} />}
        </>
    );
}

type BuildSideProps = {
    title: string;
    builds: Build[];
    chosen: number;
    edits: Record<string, string>;
    /** Whether the shift has an element that lets go at a time of its own. */
    timed: boolean;
    wrong: (path: string) => string | undefined;
    onChoose: (at: number) => void;
    onEdit: (path: string, value: string) => void;
};

function BuildSide({ title, builds, chosen, edits, timed, wrong, onChoose, onEdit }: BuildSideProps) {
    const build = builds[chosen];
    const springs = build?.springs;
    return (
        <fieldset>
            <legend className="font-semibold">{title}</legend>
            <Select
                label="Build"
                value={String(chosen)}
                options={builds.map((b, i) => ({ value: String(i), text: b.name }))}
                onChange={(v) => onChoose(Number(v))}
            />
            <div className="mt-2 grid grid-cols-2 gap-2 sm:grid-cols-3">
                {FIELDS.filter(([path]) => at(build, path) !== undefined).map(([path, label]) => (
                    <Field
                        key={path}
                        label={label}
                        inputMode="decimal"
                        value={edits[path] ?? String(at(build, path))}
                        problem={wrong(path)}
                        onChange={(v) => onEdit(path, v)}
                    />
                ))}
                {timed && (
                    <Field
                        label="Old gear lets go at (s)"
                        inputMode="decimal"
                        value={edits[LETS_GO] ?? ''}
                        hint="empty: just in time"
                        problem={wrong(LETS_GO)}
                        onChange={(v) => onEdit(LETS_GO, v)}
                    />
                )}
            </div>
            {Array.isArray(springs) && springs.length === 0 && (
                <p className="mt-1 text-sm">No spring: the piston is blocked.</p>
            )}
        </fieldset>
    );
}

const seconds = (s: number | undefined) => (s === undefined ? '–' : `${s.toFixed(2)} s`);

function Row({ label, cells }: { label: string; cells: React.ReactNode[] }) {
    return (
        <tr>
            <th scope="row" className="td text-left font-normal">
                {label}
            </th>
            {cells.map((c, i) => (
                <td key={i} className="td num font-semibold">
                    {c}
                </td>
            ))}
        </tr>
    );
}

const LETS_GO_ROW = 'Old gear lets go';

const FELT: [string, (s: Shift) => React.ReactNode][] = [
    [
        'Takes over after',
        (s) => (s.completes ? seconds(s.takeOver_s) : <Mark kind="bad">does not hold this torque</Mark>),
    ],
    [LETS_GO_ROW, (s) => <LetsGo shift={s} />],
    ['Then pulls the input down in', (s) => seconds(s.duration_s)],
    ['Ends', (s) => (s.completes ? (s.endsInStroke ? GIVES_WAY : AT_ITS_END) : '–')],
    [
        'Output torque: before, highest, after',
        ({ outputTorque_nm: t }) =>
            t ? `${t.before.toFixed(0)}, ${t.peak.toFixed(0)}, ${t.after.toFixed(0)} N.m` : '–',
    ],
    ['Jolt', (s) => (s.bump === undefined ? '–' : `×${s.bump.toFixed(2)}`)],
    ['Heat in the element', (s) => (s.energy_j === undefined ? '–' : `${(s.energy_j / 1000).toFixed(1)} kJ`)],
];
const GIVES_WAY = 'while the piston still gives way';
const AT_ITS_END = 'at line pressure, the piston at its end';

function Results({ windows, shifts, timed }: { windows: Window[]; shifts: Shift[] | null; timed: boolean }) {
    const rows: [string, (w: Window) => React.ReactNode][] = [
        ['Starts to move at', (w) => `${w.start_kpa.toFixed(0)} kPa`],
        ['End of the stroke at', (w) => `${w.end_kpa.toFixed(0)} kPa`],
        ['Takes up', (w) => `${w.volume_ml.toFixed(1)} mL`],
        ['Full after', (w) => (w.fills ? seconds(w.fill_s) : 'never: line pressure is lower')],
    ];
    const felt: [string, (s: Shift) => React.ReactNode][] = shifts
        ? FELT.filter(([name]) => timed || name !== LETS_GO_ROW)
        : [];
    return (
        <div className="mt-3 grid items-start gap-4 lg:grid-cols-2">
            <table className="w-full">
                <HeadRow of={['', 'Before', 'After']} />
                <tbody>
                    {rows.map(([label, cell]) => (
                        <Row key={label} label={label} cells={windows.map(cell)} />
                    ))}
                    {felt.map(([label, cell]) => (
                        <Row key={label} label={label} cells={(shifts ?? []).map(cell)} />
                    ))}
                </tbody>
            </table>
            {shifts ? (
                <ShiftCharts shifts={shifts} />
            ) : (
                <Chart
                    title="Pressure over oil taken up"
                    y="kPa"
                    x="mL"
                    lines={windows.map((w) => w.curve.map((p) => [p.volume_ml, p.pressure_kpa]))}
                />
            )}
        </div>
    );
}

function ShiftCharts({ shifts }: { shifts: Shift[] }) {
    return (
        <div className="flex flex-col gap-2">
            <Chart
                title="Pressure behind the element"
                y="kPa"
                x="s"
                lines={shifts.map((s) => s.curve.map((p) => [p.t, p.pressure_kpa]))}
            />
            <Chart
                title="Torque at the output"
                y="N.m"
                x="s"
                lines={shifts.map((s) => [...s.curve.map((p): Point => [p.t, p.output_nm]), ...afterwards(s)])}
            />
        </div>
    );
}

type Point = [number, number];

/** A tenth of a second of the new gear behind the end of the shift. */
function afterwards({ curve, outputTorque_nm: torque }: Shift): Point[] {
    const end = curve.at(-1)?.t;
    if (!torque || end === undefined) return [];
    return [
        [end, torque.after],
        [end + 0.1, torque.after],
    ];
}

/** A gap flares, an overlap ties up. */
function LetsGo({ shift: s }: { shift: Shift }) {
    if (s.overlap_s === undefined) return '–';
    if (s.overlap_s < -0.0005)
        return (
            <>
                <Mark kind="bad">flare</Mark> {seconds(-s.overlap_s)} too early, the input runs up{' '}
                {s.flare_rpm?.toFixed(0)} rev/min
            </>
        );
    if (s.overlap_s > 0.0005)
        return (
            <>
                <Mark kind="bad">tie-up</Mark> {seconds(s.overlap_s)} too late, the output falls to{' '}
                {s.outputTorque_nm?.lowest.toFixed(0)} N.m
            </>
        );
    return 'just in time';
}

const LINES = [
    { stroke: 'var(--edge)', strokeWidth: 3 },
    { stroke: 'var(--hand)', strokeWidth: 3, strokeDasharray: '8 4' },
] as const;

/** Before and after as two lines over one scale from nothing. */
function Chart({ title, x, y, lines }: { title: string; x: string; y: string; lines: Point[][] }) {
    const [w, h, l, b, t] = [460, 170, 48, 24, 30];
    const all = lines.flat();
    const [mx, my] = [Math.max(1e-9, ...all.map((p) => p[0])), Math.max(1e-9, ...all.map((p) => p[1]))];
    const [px, py] = [(v: number) => l + (v / mx) * (w - l - 12), (v: number) => h - b - (v / my) * (h - b - t)];
    return (
        <svg viewBox={`0 0 ${w} ${h}`} role="img" aria-label={`${title}, before and after`} className="w-full">
            <text x={l} y={14} fontSize={13} fontWeight={600} fill="currentColor">
                {title}
            </text>
            {SIDES.map((name, i) => (
                <g key={name}>
                    <line x1={w - 150 + i * 80} x2={w - 126 + i * 80} y1={10} y2={10} {...LINES[i]} />
                    <text x={w - 122 + i * 80} y={14} fontSize={12} fill="currentColor">
                        {name}
                    </text>
                </g>
            ))}
            <path d={`M${l} ${t - 8}V${h - b}H${w - 8}`} fill="none" stroke="var(--frame)" />
            <text x={l - 6} y={t + 4} fontSize={12} textAnchor="end" fill="var(--faint)">
                {my.toFixed(0)}
            </text>
            <text x={l - 6} y={h - b} fontSize={12} textAnchor="end" fill="var(--faint)">
                0 {y}
            </text>
            <text x={w - 10} y={h - 8} fontSize={12} textAnchor="end" fill="var(--faint)">
                {mx < 10 ? mx.toFixed(2) : mx.toFixed(0)} {x}
            </text>
            {lines.map((line, i) => (
                <polyline
                    key={i}
                    fill="none"
                    {...LINES[i]}
                    points={line.map((p) => `${px(p[0])},${py(p[1])}`).join(' ')}
                />
            ))}
        </svg>
    );
}
