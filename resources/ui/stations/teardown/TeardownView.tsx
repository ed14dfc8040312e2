import { useState } from 'react';
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

type Item = NonNullable<Card['teardown']>['inspection'][number];

const CODE_MEANS: Record<string, string> = {
    ratio: 'wrong ratio',
    solenoid: 'solenoid circuit',
    pressure: 'pressure control',
    lockup: 'lock-up',
};
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
                    <Panel
                        title="Suspects"
                        aside="from the apply chart, the torque each gear puts on each element, and the symptoms"
                    >
                        <HouseNote house={t.house.symptoms} />
                        {t.suspects.length > 0 && <SuspectsDrawn section={t} />}
                        {t.suspects.length === 0 && (
                            <p className="text-faint">Say which gears worked and which did not.</p>
                        )}
                        <ol>
                            {t.suspects.slice(0, 5).map((s, i) => (
                                <li key={s.element} className="border-b border-rule py-1">
                                    <span className="flex items-baseline justify-between">
                                        <strong className={i === 0 ? 'font-head text-2xl' : ''}>
                                            {s.element}{' '}
                                            <span className="text-base font-normal">{t.elements[s.element]}</span>
                                        </strong>
                                        <span className={`num ${i === 0 ? 'font-head text-3xl' : ''}`}>
                                            {percent(s.posterior)}
                                        </span>
                                    </span>
                                    <span className="text-sm">{s.because}</span>
                                </li>
                            ))}
                        </ol>
                    </Panel>
                    <Panel title="Inspection" aside="first failure and what its debris did are two things">
                        <HouseNote house={t.house.inspection} />
                        <ul className="divide-y divide-rule">
                            {t.inspection.map((i) => (
                                <Finding key={i.part} item={i} {...props} editable={editable} />
                            ))}
                        </ul>
                    </Panel>
                </div>
            </div>
        </>
    );
}

/** Where the suspects sit, each with its per cent. */
function SuspectsDrawn({ section: t }: Pick<SectionProps<'teardown'>, 'section'>) {
    const first = t.suspects.slice(0, 4);
    return (
        <Drawing
            family={t.work.family}
            states={Object.fromEntries(first.map((s) => [s.element, 'suspect' as const]))}
            tags={Object.fromEntries(first.map((s) => [s.element, percent(s.posterior)]))}
            className="h-56 bg-sheet"
        />
    );
}

function Symptoms({ section, card, onCard, can }: SectionProps<'teardown'>) {
    const t = section;
    const { busy, problem, write } = useWrite();
    const set = (gear: string, state: string) => {
        const observed = { ...t.symptoms };
        if (observed[gear] === state) delete observed[gear];
        else observed[gear] = state;
        void write(
            () =>
                api.POST('/units/{number}/teardown/symptoms', {
                    params: { path: { number: card.coreTag } },
                    body: { observed },
                }),
            onCard,
        );
    };
    const tap = (circuit: string, state: string) => {
        const pressures = { ...t.pressures };
        if (pressures[circuit] === state) delete pressures[circuit];
        else pressures[circuit] = state;
        void write(
            () =>
                api.POST('/units/{number}/teardown/symptoms', {
                    params: { path: { number: card.coreTag } },
                    body: { observed: t.symptoms, pressures },
                }),
            onCard,
        );
    };
    const changeable =
        can('yard.hold') && ['identification', 'ordering', 'teardown', 'assembly', 'returns'].includes(card.station);
    const steps = t.gears
        .slice(0, -1)
        .map((g, i) => [g, t.gears[i + 1]!] as const)
        .filter(([a, b]) => a !== 'R' && b !== 'R');
    return (
        <Panel title="Which gears worked" aside="as driven or tested before teardown">
            <table className="w-full">
                <tbody>
                    {t.gears.map((g) => (
                        <tr key={g}>
                            <th scope="row" className="td w-16 text-left font-head text-2xl">
                                {g}
                            </th>
                            <td className="td">
                                {changeable ? (
                                    <Answers
                                        small
                                        label={`Gear ${g}`}
                                        value={t.symptoms[g] ?? null}
                                        values={['ok', 'slips', 'missing']}
                                        onAnswer={(v) => !busy && set(g, v)}
                                    />
                                ) : (
                                    (t.symptoms[g] ?? 'not known')
                                )}
                            </td>
                        </tr>
                    ))}
                    {steps.map(([a, b]) => (
                        <tr key={a + b}>
                            <th scope="row" className="td text-left">
                                {a}-{b}
                            </th>
                            <td className="td">
                                {changeable ? (
                                    <Answers
                                        small
                                        label={`Shift ${a}-${b}`}
                                        value={t.symptoms[`${a}-${b}`] ?? null}
                                        values={['ok', 'flare', 'tie-up', 'delayed']}
                                        onAnswer={(v) => !busy && set(`${a}-${b}`, v)}
                                    />
                                ) : (
                                    (t.symptoms[`${a}-${b}`] ?? 'not known')
                                )}
                            </td>
                        </tr>
                    ))}
                </tbody>
            </table>
            <More
                className="mt-2"
                open={Object.keys(t.pressures).length > 0}
                title={
                    <>
                        Pressures at the case taps{' '}
                        {Object.keys(t.pressures).length > 0 && (
                            <span className="font-normal text-faint">{Object.keys(t.pressures).length} read</span>
                        )}
                    </>
                }
            >
                <table className="w-full">
                    <tbody>
                        {['line', ...Object.keys(t.elements)].map((c) => (
                            <tr key={c}>
                                <th scope="row" className="td text-left">
                                    {c === 'line' ? 'Line' : c}{' '}
                                    <span className="text-sm font-normal text-faint">{t.elements[c]}</span>
                                </th>
                                <td className="td">
                                    {changeable ? (
                                        <Answers
                                            small
                                            label={`Pressure ${c}`}
                                            value={t.pressures[c] ?? null}
                                            values={['low', 'normal', 'high']}
                                            onAnswer={(v) => !busy && tap(c, v)}
                                        />
                                    ) : (
                                        (t.pressures[c] ?? 'not read')
                                    )}
                                </td>
                            </tr>
                        ))}
                    </tbody>
                </table>
            </More>
            {t.codes.length > 0 && (
                <p className="mt-1 text-sm">
                    Stored codes:{' '}
                    {t.codes
                        .map(
                            (c) =>
                                `${c.code}${c.means ? ` (${CODE_MEANS[c.means]}${c.gear ? `, gear ${c.gear}` : ''})` : ' (not in the vocabulary)'}`,
                        )
                        .join(', ')}
                    . A solenoid code often means that slip was noticed, not that the solenoid is bad.
                </p>
            )}
            <ProblemNote problem={problem} />
        </Panel>
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
