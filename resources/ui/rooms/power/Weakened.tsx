import { useState } from 'react';
import { fieldProblem, type Problem, type Schemas } from '../../api/client';
import { Choice, Field, HeadRow, Mark, Panel, ProblemNote, Select } from '../../kit/basics';
import { elementName, typedNumber, type Element, type Train } from './trains';
import { useAnswer } from './useAnswer';

type Holds = { holds_nm?: number; element?: string };
type Answer = {
    gears: { name: string; sound: Holds; now: Holds; slips: boolean; sentence: string }[];
    shifts: { from: string; to: string; element: string; now: { pullsDown_s?: number }; sentence: string }[];
    reaches: Record<string, number>;
    lands: Land[];
    overPressed: { gear: string; element: string; liningPressure_kpa: number; liningLimit_kpa: number }[];
};
type Land = { element: string; gear: string; stress_mpa: number; limit_mpa: number; over: boolean };
type Duty = Record<'torque' | 'speed' | 'inertia' | 'time' | 'mass' | 'axle' | 'radius', string>;
type Wrong = { element: string; how: 'worn' | 'leaks'; left: string; hole: string; feed: string };
type Pressure = { how: string; by: string };

const PRESSURES: Record<string, string> = {
    right: 'as it should be',
    low: 'all too low',
    high: 'all too high',
    boost: 'boost valve stuck inward',
};

/** Percent typed as a share; what is no number goes as it is, and the answer says so. */
const share = (s: string, of: (percent: number) => number) => {
    const n = typedNumber(s);
    return typeof n === 'number' ? of(n) : n;
};

function pressed({ how, by }: Pressure) {
    if (how === 'right') return {};
    if (how === 'low') return { pressureFactor: share(by, (p) => 1 - p / 100) };
    const more = share(by, (p) => 1 + p / 100);
    return how === 'high' ? { pressureFactor: more } : { boostFactor: more };
}

function question(train: Train, hardware: object, d: Duty, wrong: Wrong[], pressure: Pressure) {
    const of = (how: Wrong['how']) => wrong.filter((w) => w.how === how);
    return {
        ...hardware,
        ...train,
        inputTorque_nm: typedNumber(d.torque),
        inputSpeed_rpm: typedNumber(d.speed),
        shift: {
            inputInertia_kgm2: typedNumber(d.inertia),
            shiftTime_s: typedNumber(d.time),
            vehicle: {
                mass_kg: typedNumber(d.mass),
                axleRatio: typedNumber(d.axle),
                tyreRadius_mm: typedNumber(d.radius),
            },
        },
        worn: Object.fromEntries(of('worn').map((w) => [w.element, share(w.left, (p) => p / 100)])),
        leaks: Object.fromEntries(
            of('leaks').map((w) => [w.element, { hole_mm: typedNumber(w.hole), feed_mm: typedNumber(w.feed) }]),
        ),
        ...pressed(pressure),
    };
}

type Props = { train: Train; hardware: Schemas['Family']['hardware']; drive: Duty };

/** What wear, a leak or a wrong pressure leaves of each gear and shift. */
export function Weakened({ train, hardware, drive }: Props) {
    const [wrong, setWrong] = useState<Wrong[]>([]);
    const [pressure, setPressure] = useState<Pressure>({ how: 'right', by: '25' });
    const asks = hardware && (wrong.length > 0 || pressure.how !== 'right');
    const { answered, problem } = useAnswer<Answer>(
        'power.weakened',
        asks ? question(train, hardware, drive, wrong, pressure) : null,
    );
    if (!hardware) return null;
    return (
        <Panel
            title="Worn, leaking, wrongly pressed"
            aside={`beside the sound unit, at ${drive.torque} N·m and ${drive.speed} rev/min`}
        >
            <div className="grid items-start gap-3 lg:grid-cols-2">
                <AddWrong
                    open={train.elements.filter((e) => e.id in hardware.capacities)}
                    onAdd={(element, how) =>
                        setWrong([
                            ...wrong.filter((w) => w.element !== element || w.how !== how),
                            { element, how, left: '60', hole: '1.5', feed: '2.0' },
                        ])
                    }
                />
                <LinePressure of={pressure} set={setPressure} problem={problem} />
            </div>
            <WrongRows of={wrong} set={setWrong} problem={problem} />
            {problem && <ProblemNote problem={problem} except={wrong.flatMap(pointers)} />}
            {answered && <Left of={answered} />}
        </Panel>
    );
}

type RowsProps = { of: Wrong[]; set: (to: Wrong[]) => void; problem: Problem | null };

const WrongRows = ({ of, set, problem }: RowsProps) => (
    <ul className="mt-2 flex flex-col gap-2">
        {of.map((w, at) => (
            <WrongRow
                key={w.element + w.how}
                of={w}
                set={(to) => set(of.map((x, n) => (n === at ? { ...x, ...to } : x)))}
                problem={problem}
                onBack={() => set(of.filter((x) => x !== w))}
            />
        ))}
    </ul>
);

const pointers = ({ element, how }: Wrong) =>
    how === 'worn' ? [`/worn/${element}`] : [`/leaks/${element}/hole_mm`, `/leaks/${element}/feed_mm`];

type AddProps = { open: Element[]; onAdd: (element: string, how: Wrong['how']) => void };

function AddWrong({ open, onAdd }: AddProps) {
    const [element, setElement] = useState('');
    const add = (how: Wrong['how']) => {
        onAdd(element, how);
        setElement('');
    };
    return (
        <div className="flex flex-wrap items-end gap-3">
            <div className="w-64">
                <Select
                    label="What is worn or leaks"
                    value={element}
                    onChange={setElement}
                    options={[
                        { value: '', text: 'choose' },
                        ...open.map((e) => ({ value: e.id, text: elementName(e) })),
                    ]}
                />
            </div>
            {element && (
                <>
                    <button type="button" className="btn" onClick={() => add('worn')}>
                        worn
                    </button>
                    {open.find((e) => e.id === element)?.kind !== 'one-way' && (
                        <button type="button" className="btn" onClick={() => add('leaks')}>
                            leaks
                        </button>
                    )}
                </>
            )}
        </div>
    );
}

type LineProps = { of: Pressure; set: (to: Pressure) => void; problem: Problem | null };

function LinePressure({ of, set, problem }: LineProps) {
    return (
        <div className="flex flex-wrap items-end gap-3">
            <Choice
                label="Line pressure"
                value={of.how}
                values={Object.keys(PRESSURES)}
                text={(how) => PRESSURES[how] ?? how}
                onChange={(how) => set({ ...of, how })}
            />
            {of.how !== 'right' && (
                <Field
                    className="w-28"
                    label="By (%)"
                    inputMode="decimal"
                    value={of.by}
                    problem={fieldProblem(problem, '/pressureFactor') ?? fieldProblem(problem, '/boostFactor')}
                    onChange={(by) => set({ ...of, by })}
                />
            )}
        </div>
    );
}

type RowProps = { of: Wrong; set: (to: Partial<Wrong>) => void; problem: Problem | null; onBack: () => void };

function WrongRow({ of, set, problem, onBack }: RowProps) {
    const field = (key: 'left' | 'hole' | 'feed', label: string, at: string) => (
        <Field
            className="w-40"
            label={label}
            inputMode="decimal"
            value={of[key]}
            problem={fieldProblem(problem, at)}
            onChange={(v) => set({ [key]: v })}
        />
    );
    return (
        <li className="flex flex-wrap items-end gap-3">
            <strong className="flex min-h-11 w-28 items-center">
                {of.element} {of.how}
            </strong>
            {of.how === 'worn' ? (
                field('left', 'Holds still (%)', `/worn/${of.element}`)
            ) : (
                <>
                    {field('hole', 'Leak, as one hole (mm)', `/leaks/${of.element}/hole_mm`)}
                    {field('feed', 'Fed through (mm)', `/leaks/${of.element}/feed_mm`)}
                </>
            )}
            <button type="button" className="btn" onClick={onBack}>
                Take back<span className="sr-only">: {of.element}</span>
            </button>
        </li>
    );
}

const holds = ({ holds_nm: nm, element }: Holds) => (nm === undefined ? '–' : `${nm.toFixed(0)} N·m, ${element}`);

function pressedHard(o: Answer['overPressed'][number]): string {
    const [pressed, stands] = [o.liningPressure_kpa.toFixed(0), o.liningLimit_kpa.toFixed(0)];
    return `${o.element} in ${o.gear}: ${pressed} kPa on a lining that stands ${stands}.`;
}

const Left = ({ of }: { of: Answer }) => (
    <div aria-live="polite" className="mt-2 grid items-start gap-4 lg:grid-cols-2">
        <table className="w-full">
            <HeadRow of={['Gear', 'Sound', 'Holds now', '']} />
            <tbody>
                {of.gears.map((g) => (
                    <tr key={g.name}>
                        <th scope="row" className="td text-left font-head text-xl">
                            {g.name}
                        </th>
                        <td className="td num text-faint">{holds(g.sound)}</td>
                        <td className="td num font-semibold">{holds(g.now)}</td>
                        <td className="td">{g.slips ? <Mark kind="bad">slips</Mark> : ''}</td>
                    </tr>
                ))}
            </tbody>
        </table>
        <div>
            <Shifts of={of.shifts} />
            {Object.entries(of.reaches).map(([element, part]) => (
                <p key={element} className="mt-1">
                    {element} gets {(100 * part).toFixed(0)} % of the line pressure.
                </p>
            ))}
            {of.overPressed.map((o) => (
                <p key={o.gear + o.element} className="mt-1">
                    <Mark kind="bad">Pressed too hard</Mark> {pressedHard(o)}
                </p>
            ))}
            <Lands of={of.lands} />
        </div>
    </div>
);

/** What the packs press their snap rings with: those over the limit, and the one nearest to it. */
function Lands({ of }: { of: Land[] }) {
    const byShare = [...of].sort((a, b) => b.stress_mpa / b.limit_mpa - a.stress_mpa / a.limit_mpa);
    const over = byShare.filter((l) => l.over);
    const shown = over.length > 0 ? over : byShare.slice(0, 1);
    return shown.map((l) => (
        <p key={l.element} className="mt-1">
            <Mark kind={l.over ? 'bad' : 'good'}>
                {l.over ? 'Snap-ring land over its limit' : 'Snap-ring lands hold'}
            </Mark>{' '}
            {l.over ? '' : 'nearest: '}
            {l.element} in {l.gear}, {l.stress_mpa.toFixed(0)} of {l.limit_mpa.toFixed(0)} MPa.
        </p>
    ));
}

const Shifts = ({ of }: { of: Answer['shifts'] }) => (
    <table className="w-full">
        <HeadRow of={['Shift', 'What becomes of it']} />
        <tbody>
            {of.map((s) => (
                <tr key={s.from + s.to + s.element}>
                    <th scope="row" className="td text-left whitespace-nowrap">
                        {s.from} to {s.to}
                    </th>
                    <td className="td">
                        {s.now.pullsDown_s === undefined && <Mark kind="bad">does not come</Mark>} {s.sentence}
                    </td>
                </tr>
            ))}
        </tbody>
    </table>
);
