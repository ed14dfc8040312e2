import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState, type ReactNode } from 'react';
import { useNavigate, useParams } from 'react-router';
import { compute } from '../../api/calc';
import { answer, api, problemOf, type Problem, type Schemas } from '../../api/client';
import { useSession } from '../../api/session';
import { useDraft } from '../../kit/useDraft';
import { useWrite } from '../../api/useWrite';
import { Choice, Field, HeadRow, Loading, Mark, Panel, ProblemNote } from '../../kit/basics';
import { Pending } from '../../kit/Fetched';
import { Complaint } from './Complaint';
import { Control } from './Control';
import { FaultTrainer } from './FaultTrainer';
import { Feel } from './Feel';
import { HandOver } from './HandOver';
import { LaunchClock, LiningDesk, ThrustDesk } from './LaunchAndThrust';
import { CoolerDesk, LossesDesk } from './OnTheRoad';
import { PackTrainer } from './PackTrainer';
import { PowerFlow, SpeedDiagram } from './PowerFlow';
import { Strength } from './Strength';
import { TrainEditor } from './TrainEditor';
import { Weakened } from './Weakened';
import { WhatIf } from './WhatIf';
import type { Shift, Solved, SolvedGear, Train } from './trains';
import { More } from '../../kit/More';

const START: Train = {
    input: 'in',
    output: 'out',
    sets: [{ id: 'P1', kind: 'simple', sun: 'sun', ring: 'ring', carrier: 'out', sunTeeth: 30, ringTeeth: 72 }],
    elements: [
        { id: 'C1', kind: 'clutch', a: 'in', b: 'sun' },
        { id: 'C2', kind: 'clutch', a: 'in', b: 'ring' },
        { id: 'B1', kind: 'brake', a: 'ring', b: 'case' },
        { id: 'B2', kind: 'brake', a: 'sun', b: 'case' },
    ],
    gears: [
        { name: '1', applied: ['C1', 'B1'] },
        { name: '2', applied: ['C2', 'B2'] },
        { name: '3', applied: ['C1', 'C2'] },
    ],
};

/** The engineer's desk: a train from teeth and chart, its ratios, power flow, speeds and shifts, solved as you type. */
export function Power() {
    const { family } = useParams();
    const list = useQuery({ queryKey: ['families'], queryFn: () => answer(api.GET('/catalog/families')) });
    const go = useNavigate();
    if (!list.data) return <Pending of={[list]} what="the trains" />;
    const code = family ?? list.data.families[0]?.code ?? 'new';
    return (
        <>
            <h1 className="mb-2 text-3xl">Power flow</h1>
            <Choice
                label="Family"
                value={code}
                values={[...list.data.families.map((f) => f.code), 'new']}
                text={(c) => (c === 'new' ? 'A train of your own' : c)}
                onChange={(c) => void go(`/power/${c}`)}
            />
            {code === 'new' ? <OwnTrain /> : <FamilyTrain key={code} code={code} />}
        </>
    );
}

function FamilyTrain({ code }: { code: string }) {
    const loaded = useQuery({
        queryKey: ['family', code],
        queryFn: () => answer(api.GET('/catalog/families/{code}', { params: { path: { code } } })),
    });
    if (!loaded.data) return <Pending of={[loaded]} what="the train" />;
    return (
        <Desk
            train={loaded.data.train as Train}
            feels={loaded.data.shiftFeels}
            hardware={loaded.data.hardware}
            causes={loaded.data.causes}
        >
            <Control control={loaded.data.control} />
            <Strength code={code} />
            <FaultTrainer code={code} />
            <PackTrainer code={code} />
        </Desk>
    );
}

function OwnTrain() {
    const [train, set, clear] = useDraft('train', START);
    const { can } = useSession();
    return (
        <>
            <Desk train={train} feels={[]} hardware={null} causes={null} onChange={set} />
            {can('catalog.edit') && <KeepAsFamily train={train} clear={clear} />}
        </>
    );
}

function useFamilyWrite(train: Train, name: { code: string; name: string }, done: () => void) {
    const client = useQueryClient();
    const go = useNavigate();
    const { busy, problem, write } = useWrite();
    const save = () =>
        write(
            () =>
                api.POST('/catalog/entry', {
                    body: {
                        kind: 'families',
                        family: null,
                        key: null,
                        seen: null,
                        node: {
                            code: name.code,
                            name: name.name,
                            topology: `${train.sets.length} planetary ${train.sets.length === 1 ? 'set' : 'sets'}`,
                            train,
                            body: { outsideParts: [], hardParts: [], always: [], fluid: 'not set' },
                        },
                    },
                }),
            () => {
                void client.invalidateQueries({ queryKey: ['families'] });
                done();
                void go(`/power/${name.code}`);
            },
        );
    return { busy, problem, save };
}

function KeepAsFamily({ train, clear }: { train: Train; clear: () => void }) {
    const [name, setName] = useState({ code: '', name: '' });
    const { busy, problem, save } = useFamilyWrite(train, name, clear);
    return (
        <Panel title="Keep it as a family" aside="parts, windows and steps are added at the catalog desk">
            <div className="flex flex-wrap items-end gap-3">
                <Field
                    label="Code"
                    value={name.code}
                    onChange={(code) => setName({ ...name, code: code.toUpperCase() })}
                />
                <Field
                    label="Name"
                    value={name.name}
                    onChange={(n) => setName({ ...name, name: n })}
                    className="w-80"
                />
                <button
                    type="button"
                    className="btn btn-main"
                    disabled={busy || !name.code || !name.name}
                    onClick={() => void save()}
                >
                    Write it into the catalog
                </button>
                <button type="button" className="btn" onClick={clear}>
                    Start over
                </button>
            </div>
            <ProblemNote problem={problem} />
        </Panel>
    );
}

type Shifts = { shifts: Shift[]; assumptions: string[] };

/** The duty the shifts are reckoned for, as typed. */
type Duty = Record<'torque' | 'speed' | 'inertia' | 'time' | 'mass' | 'axle' | 'radius', string>;

/** Solves the train and its shifts a moment after the last key; an answer that comes late is dropped. */
function useSolved(train: Train, d: Duty) {
    const [solved, setSolved] = useState<Solved | null>(null);
    const [shifts, setShifts] = useState<Shifts | null>(null);
    const [problem, setProblem] = useState<Problem | null>(null);
    const asked = JSON.stringify([train, d]);
    useEffect(() => {
        let stale = false;
        const fresh =
            <T,>(take: (answer: T) => void) =>
            (answer: T) => {
                if (!stale) take(answer);
            };
        const timer = setTimeout(() => {
            void compute<Solved>('geartrain.solve', train).then(
                fresh((answered) => {
                    setProblem(null);
                    setSolved(answered);
                }),
                fresh((error: unknown) => setProblem(problemOf(error))),
            );
            void compute<Shifts>('shift.energy', shiftsAsked(train, d)).then(
                fresh(setShifts),
                fresh(() => setShifts(null)),
            );
        }, 150);
        return () => {
            stale = true;
            clearTimeout(timer);
        };
        // eslint-disable-next-line react-hooks/exhaustive-deps -- `asked` stands for the train and the duty
    }, [asked]);
    return { solved, shifts, problem };
}

/** What is typed goes as a number; an empty field goes as it is, so that the answer says which one is missing. */
function shiftsAsked(train: Train, d: Duty) {
    const n = (s: string) => (s.trim() === '' ? s : Number(s));
    return {
        ...train,
        inputTorque_nm: n(d.torque),
        inputSpeed_rpm: n(d.speed),
        inputInertia_kgm2: n(d.inertia),
        shiftTime_s: n(d.time),
        vehicle: { mass_kg: n(d.mass), axleRatio: n(d.axle), tyreRadius_mm: n(d.radius) },
    };
}

type DeskProps = {
    train: Train;
    feels: Schemas['Family']['shiftFeels'];
    hardware: Schemas['Family']['hardware'];
    causes: Schemas['Family']['causes'] | null;
    onChange?: (change: Partial<Train>) => void;
    /** What is known of its control. */
    children?: ReactNode;
};

function Desk({ train, feels, hardware, causes, onChange, children }: DeskProps) {
    const [gear, setGear] = useState(train.gears[0]?.name ?? '');
    const [d, setD] = useState<Duty>(() => dutyAtFirst(feels));
    const { solved, shifts, problem } = useSolved(train, d);
    const [picked, pick] = useState<Picked>({ element: '', times: 0 });
    const breakIt = (element: string) => {
        pick({ element, times: picked.times + 1 });
        document.getElementById('failing')?.scrollIntoView();
    };
    return (
        <div className="mt-3 flex flex-col gap-3">
            <OnThisDesk control={children !== undefined} />
            {problem && <ProblemNote problem={problem} />}
            {solved && <GearInHand {...{ train, solved, gear, setGear }} onPick={breakIt} stale={!!problem} />}
            {solved && <Turning train={train} solved={solved} d={d} />}
            {solved && <Faults {...{ train, hardware, causes, picked }} drive={d} />}
            <Place id="solenoids">{children}</Place>
            <Limits train={train} />
            <Place id="shifts">
                {solved && <ShiftByShift d={d} setD={setD} shifts={shifts} />}
                {solved && <HandOver train={train} drive={d} />}
            </Place>
            <Below waits={!solved && !problem}>
                <Place id="feel">
                    <Feel train={train} feels={feels} drive={d} />
                </Place>
                <Place id="train">
                    <TrainEditor train={train} onChange={onChange} problem={problem} />
                </Place>
            </Below>
        </div>
    );
}

/** What a brake held, a bearing pressed, a lining rubbed stand; what is lost, and where that heat goes. */
const Limits = ({ train }: { train: Train }) => (
    <Place id="launch">
        <div className="grid items-start gap-3 lg:grid-cols-2">
            <LaunchClock />
            <div className="flex flex-col gap-3">
                <ThrustDesk />
                <LiningDesk />
            </div>
            <LossesDesk train={train} />
            <CoolerDesk />
        </div>
    </Place>
);

type Picked = { element: string; times: number };

type FaultsProps = {
    train: Train;
    hardware: Schemas['Family']['hardware'];
    causes: DeskProps['causes'];
    picked: Picked;
    drive: Duty;
};

const Faults = (desk: FaultsProps) => (
    <>
        <Place id="failing">
            <WhatIf train={desk.train} picked={desk.picked} />
            <Weakened train={desk.train} hardware={desk.hardware} drive={desk.drive} />
        </Place>
        <Place id="complaint">
            <Complaint train={desk.train} causes={desk.causes} />
        </Place>
    </>
);

const PLACES = {
    failing: 'What if it fails',
    complaint: 'From the complaint',
    solenoids: 'Solenoids, strength, trainer',
    launch: 'Launch, thrust, lining',
    shifts: 'Shift by shift',
    feel: 'How a shift feels',
    train: 'Teeth and chart',
};

/** The desk is long: one tap to each of its parts. */
function OnThisDesk({ control }: { control: boolean }) {
    const go = (id: string) => document.getElementById(id)?.scrollIntoView();
    return (
        <nav aria-label="On this desk" className="flex flex-wrap gap-x-4">
            {Object.entries(PLACES)
                .filter(([id]) => control || id !== 'solenoids')
                .map(([id, text]) => (
                    <button key={id} type="button" className="min-h-11 underline" onClick={() => go(id)}>
                        {text}
                    </button>
                ))}
        </nav>
    );
}

const Place = ({ id, children }: { id: keyof typeof PLACES; children: ReactNode }) =>
    children ? (
        <div id={id} className="flex scroll-mt-14 flex-col gap-3">
            {children}
        </div>
    ) : null;

function dutyAtFirst(feels: Schemas['Family']['shiftFeels']): Duty {
    return {
        torque: '300',
        speed: '5200',
        inertia: String(feels[0]?.inputInertia_kgm2 ?? 0.25),
        time: '0.5',
        mass: '2000',
        axle: '3.5',
        radius: '330',
    };
}

type GearInHandProps = {
    train: Train;
    solved: Solved;
    gear: string;
    setGear: (to: string) => void;
    /** An element tapped on the picture. */
    onPick: (element: string) => void;
    /** Whether a fault was typed since: then the last train that could be solved is shown. */
    stale: boolean;
};

function GearInHand({ gear, ...of }: GearInHandProps) {
    const { solved } = of;
    const shown = solved.gears.find((g) => g.name === gear) ?? solved.gears[0];
    if (!shown) return null;
    return (
        <div className="grid items-start gap-3 lg:grid-cols-[3fr_1fr]">
            <GearPanel {...of} shown={shown} />
            <Ratios solved={solved} shown={shown} />
        </div>
    );
}

function Turning({ train, solved, d }: { train: Train; solved: Solved; d: Duty }) {
    return (
        <div className="grid items-start gap-3 lg:grid-cols-2">
            <Panel title="Speeds of all members" aside="for an input speed of 1">
                <SpeedDiagram train={train} gears={solved.gears} />
            </Panel>
            <Fastest d={d} solved={solved} />
        </div>
    );
}

function ShiftByShift({ d, setD, shifts }: { d: Duty; setD: (to: Duty) => void; shifts: Shifts | null }) {
    return (
        <Panel title="Shift by shift" aside="an overlap ties up, a gap lets the engine run up">
            <DutyFields d={d} setD={setD} />
            {shifts && <ShiftTable shifts={shifts} />}
            <More className="mt-1" title="What is assumed">
                <ul className="list-disc pl-5 text-sm">
                    {shifts?.assumptions.map((a) => (
                        <li key={a}>{a}</li>
                    ))}
                </ul>
            </More>
        </Panel>
    );
}

/** The gear in hand and the way the power takes in it. */
type GearPanelProps = Omit<GearInHandProps, 'gear'> & { shown: SolvedGear };

function GearPanel({ train, setGear, onPick, solved, stale, shown }: GearPanelProps) {
    return (
        <Panel
            title={`Gear ${shown.name}: ${shown.ratio?.toFixed(3) ?? WORDS[shown.state]}`}
            aside={stale ? 'as it was before the fault above' : undefined}
        >
            <Choice small label="Gear" value={shown.name} values={solved.gears.map((g) => g.name)} onChange={setGear} />
            {shown.state === 'locked' && (
                <p className="mt-1">
                    <Mark kind="bad">Tie-up</Mark> these elements put the train in two gears at once; nothing can turn.
                </p>
            )}
            {shown.state === 'neutral' && (
                <p className="mt-1">
                    <Mark kind="warn">The output is free</Mark> one more element must come on.
                </p>
            )}
            <PowerFlow train={train} gear={shown} onPick={onPick} />
        </Panel>
    );
}

function Ratios({ solved, shown }: { solved: Solved; shown: SolvedGear }) {
    return (
        <Panel title="Ratios">
            <table className="w-full">
                <tbody>
                    {solved.gears.map((g, i) => (
                        <tr key={g.name} className={g.name === shown.name ? 'bg-sheet' : ''}>
                            <th scope="row" className="td text-left">
                                {g.name}
                            </th>
                            <td className="td font-head text-xl num text-right">
                                {g.ratio?.toFixed(3) ?? WORDS[g.state]}
                            </td>
                            <td className="td num text-right text-sm text-faint">
                                {step(solved.gears[i - 1]?.ratio, g.ratio)}
                            </td>
                        </tr>
                    ))}
                </tbody>
            </table>
            {solved.spread !== undefined && (
                <p className="mt-1">
                    Spread <strong className="num">{solved.spread.toFixed(2)}</strong>
                </p>
            )}
            {solved.warnings.map((w, i) => (
                <p key={i} className="mt-1 text-sm">
                    <Mark kind="warn">{w.code.replaceAll('-', ' ')}</Mark> {w.message}
                </p>
            ))}
        </Panel>
    );
}

function Fastest({ d, solved }: { d: Duty; solved: Solved }) {
    return (
        <Panel title="How fast each member gets" aside={`at ${d.speed} rev/min of the input`}>
            <table className="w-full">
                <HeadRow of={['Member', 'Fastest', 'In gear', '']} />
                <tbody>
                    {speeds(solved, Number(d.speed)).map((f) => (
                        <tr key={f.node}>
                            <th scope="row" className="td text-left">
                                {f.node}
                            </th>
                            <td className="td font-head text-xl num">{Math.abs(f.rpm).toFixed(0)}</td>
                            <td className="td">{f.gear}</td>
                            <td className="td">
                                {f.rpm < 0 ? (
                                    <Mark kind="warn">backwards</Mark>
                                ) : f.everBack ? (
                                    <Mark kind="idle">backwards in another gear</Mark>
                                ) : (
                                    ''
                                )}
                            </td>
                        </tr>
                    ))}
                </tbody>
            </table>
        </Panel>
    );
}

function DutyFields({ d, setD }: { d: Duty; setD: (to: Duty) => void }) {
    return (
        <div className="mb-2 grid max-w-3xl grid-cols-2 gap-3 sm:grid-cols-4">
            {(
                [
                    ['torque', 'Input torque (N.m)'],
                    ['speed', 'Shift speed (rev/min)'],
                    ['time', 'Shift time (s)'],
                    ['inertia', 'Engine inertia (kg m²)'],
                    ['mass', 'Vehicle mass (kg)'],
                    ['axle', 'Axle ratio'],
                    ['radius', 'Tyre rolls on (mm)'],
                ] as const
            ).map(([k, label]) => (
                <Field
                    key={k}
                    label={label}
                    inputMode="decimal"
                    value={d[k]}
                    onChange={(v) => setD({ ...d, [k]: v })}
                    problem={
                        d[k].trim() === '' || Number.isNaN(Number(d[k]))
                            ? 'A number with a point belongs here.'
                            : undefined
                    }
                />
            ))}
        </div>
    );
}

function ShiftTable({ shifts }: { shifts: Shifts }) {
    return (
        <table className="w-full">
            <HeadRow of={['Shift', 'Comes on', 'Lets go', 'Input falls by', 'Slip before', 'Carries', 'Heat']} />
            <tbody>
                {shifts.shifts.map((s) => (
                    <ShiftRow key={s.from + s.to} s={s} />
                ))}
            </tbody>
        </table>
    );
}

function ShiftRow({ s }: { s: Shift }) {
    return (
        <tr>
            <th scope="row" className="td text-left">
                {s.from} to {s.to}
            </th>
            <td className="td">{s.on.join(', ') || 'nothing'}</td>
            <td className="td">{s.off.join(', ') || 'nothing'}</td>
            <td className="td num">{s.inputDrop_rpm.toFixed(0)} rev/min</td>
            {s.elements.length > 0 ? (
                <>
                    <td className="td num">
                        {s.elements.map((e) => `${e.element} ${e.slipBefore_rpm.toFixed(0)}`).join(', ')}
                    </td>
                    <td className="td num">{s.elements.map((e) => `${e.torque_nm.toFixed(0)} N.m`).join(', ')}</td>
                    <td className="td font-head text-xl num">
                        {s.elements.map((e) => `${(e.energy_j / 1000).toFixed(1)} kJ`).join(', ')}
                    </td>
                </>
            ) : (
                <td className="td text-faint" colSpan={3}>
                    not determined
                </td>
            )}
        </tr>
    );
}

/** The step down to a gear from the one before; none into a reverse. */
const step = (before: number | null | undefined, ratio: number | null) =>
    before && ratio && ratio > 0 ? `÷ ${(before / ratio).toFixed(2)}` : '';

/** What stands under the solved train comes with it, so that nothing jumps under a finger. */
function Below({ waits, children }: { waits: boolean; children: ReactNode }) {
    return waits ? <Loading what="the train" /> : children;
}

const WORDS = { driven: 'driven', neutral: 'output free', held: 'output held', locked: 'tied up' } as const;

function speeds(solved: Solved, rpm: number) {
    const fastest = new Map<string, { node: string; rpm: number; gear: string; everBack: boolean }>();
    solved.gears
        .filter((g) => g.state === 'driven')
        .forEach((g) =>
            Object.entries(g.speeds).forEach(([node, w]) => {
                const before = fastest.get(node);
                const everBack = (before?.everBack ?? false) || w < -1e-9;
                fastest.set(
                    node,
                    !before || Math.abs(w * rpm) > Math.abs(before.rpm)
                        ? { node, rpm: w * rpm, gear: g.name, everBack }
                        : { ...before, everBack },
                );
            }),
        );
    return [...fastest.values()].sort((a, b) => Math.abs(b.rpm) - Math.abs(a.rpm));
}
