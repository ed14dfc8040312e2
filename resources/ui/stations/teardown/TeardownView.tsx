import { useState, type ReactNode } from 'react';
import { api, type Card } from '../../api/client';
import { percent } from '../../kit/format';
import { useWrite } from '../../api/useWrite';
import { Answers, HouseNote, Mark, Panel, ProblemNote } from '../../kit/basics';
import type { SectionProps } from '../../card/section';
import { useSession } from '../../api/session';
import { Bench } from '../../bench/Bench';
import { Drawing } from '../../bench/Drawing';
import { GradeFields, useGrade } from '../../bench/proofs/Grade';
import { More } from '../../kit/More';
import { Counts } from './Counts';
import { suspectSaid } from './suspect';

type Teardown = NonNullable<Card['teardown']>;
type Item = Teardown['inspection'][number];

const CODE_MEANS: Record<string, string> = {
    ratio: 'wrong ratio',
    solenoid: 'solenoid circuit',
    pressure: 'pressure control',
    lockup: 'lock-up',
};
const GEAR_STATES = ['ok', 'slips', 'missing', 'neutral', 'locks', 'wrong-ratio', 'delayed', 'harsh'];
const SHIFT_STATES = ['ok', 'flare', 'tie-up', 'delayed', 'harsh'];
const LOCKUP_STATES = ['ok', 'none', 'hunts', 'shudder', 'stays-on'];

/** Why it failed and which parts live. */
export function TeardownView(props: SectionProps<'teardown'>) {
    const { card, onCard, can, section: t } = props;
    const { person } = useSession();
    const editable = can('teardown.work') && ['teardown', 'returns'].includes(card.station);
    return (
        <>
            <Bench
                bench="teardown"
                material={{ teardown: t }}
                me={person?.name ?? null}
                badge={person?.badge ?? null}
                {...{ card, onCard, editable }}
            />
            <div className="mt-3 grid items-start gap-3 lg:grid-cols-2">
                <div className="flex flex-col gap-3">
                    <Counts {...props} editable={editable} />
                    <Symptoms {...props} />
                    {card.station === 'teardown' && editable && <Complete {...props} />}
                </div>
                <div className="flex flex-col gap-3">
                    <Suspects section={t} />
                    <Inspection {...props} editable={editable} />
                </div>
            </div>
        </>
    );
}

/** Where the suspects sit, each with its per cent. */
function SuspectsDrawn({ section: t }: Pick<SectionProps<'teardown'>, 'section'>) {
    const share = new Map<string, number>();
    for (const s of t.suspects.slice(0, 6)) share.set(s.element, (share.get(s.element) ?? 0) + s.posterior);
    const first = [...share].slice(0, 4);
    return (
        <Drawing
            family={t.work.family}
            states={Object.fromEntries(first.map(([element]) => [element, 'suspect' as const]))}
            tags={Object.fromEntries(first.map(([element, sum]) => [element, percent(sum)]))}
            className="h-56 bg-sheet"
        />
    );
}

function Suspects({ section: t }: Pick<SectionProps<'teardown'>, 'section'>) {
    return (
        <Panel
            title="Suspects"
            aside="from the apply chart, the torque each gear puts on each element, and the symptoms"
        >
            <HouseNote house={t.house.symptoms} />
            {t.suspects.length > 0 ? (
                <SuspectsDrawn section={t} />
            ) : (
                <p className="text-faint">Say which gears worked and which did not.</p>
            )}
            <ol>
                {t.suspects.slice(0, 5).map((s, i) => (
                    <li key={`${s.element} ${s.fault}`} className="border-b border-rule py-1">
                        <span className="flex items-baseline justify-between">
                            <strong className={i === 0 ? 'font-head text-2xl' : ''}>
                                {suspectSaid(s)} <span className="text-base font-normal">{t.elements[s.element]}</span>
                            </strong>
                            <span className={`num ${i === 0 ? 'font-head text-3xl' : ''}`}>{percent(s.posterior)}</span>
                        </span>
                        <span className="text-sm">{s.because}</span>
                    </li>
                ))}
            </ol>
        </Panel>
    );
}

function Inspection(props: SectionProps<'teardown'> & { editable: boolean }) {
    const { house, inspection } = props.section;
    return (
        <Panel title="Inspection" aside="first failure and what its debris did are two things">
            <HouseNote house={house.inspection} />
            <ul className="divide-y divide-rule">
                {inspection.map((i) => (
                    <Finding key={i.part} item={i} {...props} />
                ))}
            </ul>
        </Panel>
    );
}

/** One thing of the list answered; the same answer again takes it back. */
const turned = (all: Record<string, string>, key: string, state: string) =>
    all[key] === state ? Object.fromEntries(Object.entries(all).filter(([k]) => k !== key)) : { ...all, [key]: state };

/** The stations at which what was driven or tested may still be said. */
const TOLD_AT = ['identification', 'ordering', 'teardown', 'assembly', 'returns'];

/** Shifts between neighbouring forward gears. */
const shiftsOf = (gears: string[]) =>
    gears.flatMap((gear, i) => {
        const next = gears[i + 1];
        return next && gear !== 'R' && next !== 'R' ? [`${gear}-${next}`] : [];
    });

function Symptoms({ section: t, card, onCard, can }: SectionProps<'teardown'>) {
    const { busy, problem, write } = useWrite();
    const params = { path: { number: card.coreTag } };
    const say = (body: { observed: Record<string, string>; pressures?: Record<string, string> }) => {
        if (!busy) void write(() => api.POST('/units/{number}/teardown/symptoms', { params, body }), onCard);
    };
    const changeable = can('yard.hold') && TOLD_AT.includes(card.station);
    const set = (key: string, state: string) => say({ observed: turned(t.symptoms, key, state) });
    const tap = (circuit: string, state: string) =>
        say({ observed: t.symptoms, pressures: turned(t.pressures, circuit, state) });
    const row = { changeable, said: t.symptoms, onAnswer: set, unknown: 'not known' };
    return (
        <Panel title="Which gears worked" aside="as driven or tested before teardown">
            <table className="w-full">
                <tbody>
                    {t.gears.map((g) => (
                        <Asked key={g} {...row} code={g} what="Gear" values={GEAR_STATES} large />
                    ))}
                    {shiftsOf(t.gears).map((s) => (
                        <Asked key={s} {...row} code={s} what="Shift" values={SHIFT_STATES} />
                    ))}
                    <Asked {...row} code="lockup" what="Converter" values={LOCKUP_STATES}>
                        Lock-up
                    </Asked>
                </tbody>
            </table>
            <Taps section={t} changeable={changeable} onAnswer={tap} />
            {t.codes.length > 0 && (
                <p className="mt-1 text-sm">
                    Stored codes: {t.codes.map(codeSaid).join(', ')}. A solenoid code often means that slip was noticed,
                    not that the solenoid is bad.
                </p>
            )}
            <ProblemNote problem={problem} />
        </Panel>
    );
}

function codeSaid({ code, means, gear }: Teardown['codes'][number]): string {
    if (!means) return `${code} (not in the vocabulary)`;
    return `${code} (${CODE_MEANS[means]}${gear ? `, gear ${gear}` : ''})`;
}

type AskedProps = {
    code: string;
    /** What kind of thing is asked: with the code it names the buttons. */
    what: string;
    values: string[];
    said: Record<string, string>;
    unknown: string;
    changeable: boolean;
    onAnswer: (code: string, value: string) => void;
    large?: boolean;
    children?: ReactNode;
};

function Asked({ code, what, values, said, unknown, changeable, onAnswer, large, children }: AskedProps) {
    return (
        <tr>
            <th scope="row" className={`td text-left ${large ? 'w-16 font-head text-2xl' : ''}`}>
                {children ?? code}
            </th>
            <td className="td">
                {changeable ? (
                    <Answers
                        small
                        label={`${what} ${code}`}
                        value={said[code] ?? null}
                        values={values}
                        onAnswer={(v) => onAnswer(code, v)}
                    />
                ) : (
                    (said[code] ?? unknown)
                )}
            </td>
        </tr>
    );
}

type TapsProps = { section: Teardown; changeable: boolean; onAnswer: (circuit: string, state: string) => void };

function Taps({ section: t, changeable, onAnswer }: TapsProps) {
    const read = Object.keys(t.pressures).length;
    const title = (
        <>Pressures at the case taps {read > 0 && <span className="font-normal text-faint">{read} read</span>}</>
    );
    return (
        <More className="mt-2" open={read > 0} title={title}>
            <table className="w-full">
                <tbody>
                    {['line', ...Object.keys(t.elements)].map((c) => (
                        <Asked
                            key={c}
                            code={c}
                            what="Pressure"
                            values={['low', 'normal', 'high']}
                            said={t.pressures}
                            unknown="not read"
                            changeable={changeable}
                            onAnswer={onAnswer}
                        >
                            {c === 'line' ? 'Line' : c}{' '}
                            <span className="text-sm font-normal text-faint">{t.elements[c]}</span>
                        </Asked>
                    ))}
                </tbody>
            </table>
        </More>
    );
}

function Finding({ item, editable, ...props }: { item: Item; editable: boolean } & SectionProps<'teardown'>) {
    const [open, setOpen] = useState(false);
    const f = item.finding;
    return (
        <li className="py-1">
            <div className="flex flex-wrap items-center gap-x-3">
                <strong className="flex-1">
                    {item.name} <span className="text-sm font-normal text-faint num">{item.partNumber}</span>
                </strong>
                <Found finding={f} />
                {editable && (
                    <button
                        type="button"
                        className="btn"
                        aria-expanded={open}
                        aria-label={`${f ? 'Change' : 'Inspect'} ${item.name}`}
                        onClick={() => setOpen(!open)}
                    >
                        {f ? 'change' : 'inspect'}
                    </button>
                )}
            </div>
            {f?.note && !open && <p className="text-sm">{f.note}</p>}
            {open && <WriteFinding item={item} {...props} onWritten={() => setOpen(false)} />}
        </li>
    );
}

function Found({ finding: f }: { finding: Item['finding'] }) {
    if (!f) return <Mark kind="idle">not looked at</Mark>;
    return (
        <span>
            {f.condition}, {f.disposition} {f.role === 'cause' && <Mark kind="bad">cause</Mark>}
            {f.role === 'collateral' && <Mark kind="warn">collateral</Mark>}{' '}
            <span className="text-sm text-faint">{f.by}</span>
        </span>
    );
}

function WriteFinding({
    item,
    card,
    onCard,
    onWritten,
}: { item: Item; onWritten: () => void } & SectionProps<'teardown'>) {
    const [grade, setGrade] = useGrade(item);
    const { busy, problem, write } = useWrite();
    const save = () =>
        write(
            () =>
                api.POST('/units/{number}/teardown/findings', {
                    params: { path: { number: card.coreTag } },
                    body: { part: item.part, ...grade, version: item.finding?.version ?? null },
                }),
            (next) => {
                onCard(next);
                onWritten();
            },
        );
    return (
        <div className="my-2 flex flex-col gap-2 border-l-4 border-hand pl-3">
            <GradeFields item={item} grade={grade} onGrade={setGrade} />
            <ProblemNote problem={problem} />
            <button
                type="button"
                className="btn btn-main self-start"
                disabled={busy || !grade.condition || !grade.disposition}
                onClick={() => void save()}
            >
                Write it down
            </button>
        </div>
    );
}

function Complete({ card, onCard }: SectionProps<'teardown'>) {
    const [none, setNone] = useState(false);
    const { busy, problem, write } = useWrite();
    return (
        <Panel title="Finish the teardown">
            <label className="flex min-h-11 items-center gap-2">
                <input
                    type="checkbox"
                    className="size-5 accent-[var(--hand)]"
                    checked={none}
                    onChange={() => setNone(!none)}
                />
                No cause was found (an honest result)
            </label>
            <ProblemNote problem={problem} />
            <button
                type="button"
                className="btn btn-main"
                disabled={busy}
                onClick={() =>
                    void write(
                        () =>
                            api.POST('/units/{number}/teardown/complete', {
                                params: { path: { number: card.coreTag } },
                                body: { noCauseFound: none },
                            }),
                        onCard,
                    )
                }
            >
                Teardown is complete
            </button>
        </Panel>
    );
}
