import { useState } from 'react';
import { api, type Card } from '../../api/client';
import { percent } from '../../kit/format';
import { useWrite } from '../../api/useWrite';
import { HouseNote, Mark, Panel, ProblemNote } from '../../kit/basics';
import type { SectionProps } from '../../card/section';
import { useSession } from '../../api/session';
import { Bench } from '../../bench/Bench';
import { Drawing } from '../../bench/Drawing';
import { GradeFields, isGraded, saidOf, useGrade } from '../../bench/proofs/Grade';
import { Counts } from './Counts';
import { Symptoms } from './Symptoms';
import { suspectSaid } from './suspect';

type Teardown = NonNullable<Card['teardown']>;
type Item = Teardown['inspection'][number];

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

/** The first five, without those that would stand there with no per cent at all. */
const likely = (suspects: Teardown['suspects']) =>
    suspects.slice(0, 5).filter((s, i) => i === 0 || s.posterior >= 0.005);

/** Where the suspects sit, each with its per cent. */
function SuspectsDrawn({ section: t }: Pick<SectionProps<'teardown'>, 'section'>) {
    const share = new Map<string, number>();
    for (const s of likely(t.suspects)) share.set(s.element, (share.get(s.element) ?? 0) + s.posterior);
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
                {likely(t.suspects).map((s, i) => (
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
    section,
    onWritten,
}: { item: Item; onWritten: () => void } & SectionProps<'teardown'>) {
    const [grade, setGrade] = useGrade(item);
    const { busy, problem, write } = useWrite();
    const save = () =>
        write(
            () =>
                api.POST('/units/{number}/teardown/findings', {
                    params: { path: { number: card.coreTag } },
                    body: { part: item.part, ...saidOf(grade, item), version: item.finding?.version ?? null },
                }),
            (next) => {
                onCard(next);
                onWritten();
            },
        );
    return (
        <div className="my-2 flex flex-col gap-2 border-l-4 border-hand pl-3">
            <GradeFields {...{ item, grade, problem }} gauges={section.gauges} onGrade={setGrade} at="" />
            <ProblemNote problem={problem} except={['/reading', '/gauge', '/note']} />
            <button
                type="button"
                className="btn btn-main self-start"
                disabled={busy || !isGraded(grade)}
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
