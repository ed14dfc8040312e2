import { useState } from 'react';
import { Link } from 'react-router';
import { api, fieldProblem, type Card, type Problem } from '../../api/client';
import { moment, percent } from '../../kit/format';
import { useWrite } from '../../api/useWrite';
import { Answers, Choice, Field, HeadRow, Mark, Panel, ProblemNote, Source } from '../../kit/basics';
import type { SectionProps } from '../../card/section';
import { More } from '../../kit/More';

type Question = NonNullable<Card['identification']>['questions'][number];

const NO_ANSWER = ['cannot see', 'broken off', 'not sure'];

/** Something was seen, not only looked for. */
const isAnswer = (q: Question) => q.answer !== null && !NO_ANSWER.includes(q.answer);

/** Clue by clue to the variant: cheapest and most telling question first, every answer can be changed. */
export function Identify({ section, card, onCard, can }: SectionProps<'identification'>) {
    const id = section;
    const editable =
        can('identification.identify') && ['identification', 'ordering', 'teardown'].includes(card.station);
    const open = id.questions.filter((q) => q.answer === null);
    const answered = id.questions.filter((q) => q.answer !== null);
    return (
        <div className="grid items-start gap-3 lg:grid-cols-2">
            <div className="flex flex-col gap-3">
                <Ranking id={id} />
                {id.mixed && <Aliens section={id} />}
                {card.station === 'identification' && can('identification.identify') && (
                    <Decide key={id.ranking[0]?.variant} section={id} card={card} onCard={onCard} />
                )}
                {id.decisions.length > 0 && <Decisions id={id} />}
            </div>
            <div className="flex flex-col gap-3">
                <LookNext card={card} onCard={onCard} editable={editable} open={open} />
                {answered.length > 0 && (
                    <Answered card={card} onCard={onCard} editable={editable} answered={answered} />
                )}
                <Learning section={id} />
            </div>
        </div>
    );
}

function Ranking({ id }: { id: NonNullable<Card['identification']> }) {
    const name = (feature: string) => id.questions.find((q) => q.feature === feature)?.name ?? feature;
    const said = (feature: string, bits: number | undefined) => `${name(feature)} (${signed(bits ?? 0)})`;
    return (
        <Panel
            title="Which variant is it"
            aside={
                <>
                    {id.entropyBits.toFixed(2)} bits still open ·{' '}
                    <Link to="/identification/trainer" className="underline">
                        train on past cores
                    </Link>
                </>
            }
        >
            <ol className="flex flex-col gap-3">
                {id.ranking.map((r, i) => (
                    <Ranked key={r.variant} said={said} r={r} i={i} />
                ))}
            </ol>
            <p className="mt-2 text-sm text-faint">Numbers in brackets: weight of the clue in bits.</p>
            {id.impossible && (
                <p className="mt-2">
                    <Mark kind="bad">Impossible together</Mark> {id.impossible}
                </p>
            )}
        </Panel>
    );
}

function Ranked({
    said,
    r,
    i,
}: {
    said: (feature: string, bits: number | undefined) => string;
    r: NonNullable<Card['identification']>['ranking'][number];
    i: number;
}) {
    return (
        <li>
            <div className="flex items-baseline justify-between gap-3">
                <strong className={i === 0 ? 'font-head text-2xl' : ''}>
                    {r.variant}{' '}
                    <span className="text-sm font-normal text-faint">
                        {r.name}, {r.years}
                    </span>
                </strong>
                <span className={`num ${i === 0 ? 'font-head text-4xl' : 'text-xl'}`}>{percent(r.posterior, 1)}</span>
            </div>
            <div className="h-3 border border-rule bg-sheet" aria-hidden="true">
                <div className="h-full bg-enamel" style={{ width: `${100 * r.posterior}%` }} />
            </div>
            <Clues word="against" tint="text-bad" of={r.contradicts.map((f) => said(f, r.weightBits[f]))} />
            <Clues word="for" tint="text-good" of={r.supports.map((f) => said(f, r.weightBits[f]))} />
        </li>
    );
}

function Decisions({ id }: { id: NonNullable<Card['identification']> }) {
    return (
        <Panel title="Decided">
            {id.decisions.map((d, i) => (
                <p key={i}>
                    {d.outcome === 'confirmed' ? (
                        <>
                            <strong>{d.variant}</strong> at {percent(d.posterior ?? 0, 1)}
                        </>
                    ) : (
                        'marked unknown'
                    )}
                    , {d.by}, {moment(d.at)}
                    {d.foreignParts.length > 0 && (
                        <>
                            {' '}
                            · with foreign{' '}
                            {d.foreignParts
                                .map((p) => `${p.part}${p.from.length > 0 ? ` (from ${p.from.join(' or ')})` : ''}`)
                                .join(', ')}
                        </>
                    )}
                    {d.note && <> · {d.note}</>}
                </p>
            ))}
        </Panel>
    );
}

type LookNextProps = { card: Card; onCard: (card: Card) => void; editable: boolean; open: Question[] };

function LookNext({ card, onCard, editable, open }: LookNextProps) {
    return (
        <Panel title="Look at this next" aside="free looks first, then most telling for the least work">
            {open.length === 0 && <p className="text-faint">Every clue is answered.</p>}
            <ul className="flex flex-col gap-3">
                {open.map((q, i) => (
                    <Clue key={q.feature} q={q} first={i === 0} card={card} onCard={onCard} editable={editable} />
                ))}
            </ul>
        </Panel>
    );
}

type AnsweredProps = { card: Card; onCard: (card: Card) => void; editable: boolean; answered: Question[] };

function Answered({ card, onCard, editable, answered }: AnsweredProps) {
    return (
        <Panel title="Answered">
            <ul>
                {answered.map((q) => (
                    <li key={q.feature} className="flex items-center gap-3 border-b border-rule py-1">
                        <span className="flex-1">
                            {q.name}:{' '}
                            <strong>
                                {q.answer}
                                {q.kind === 'number' && isAnswer(q) && ` ${q.unit}`}
                            </strong>{' '}
                            <span className="text-sm text-faint">{q.answeredBy}</span>
                        </span>
                        {editable && <TakeBack feature={q.feature} name={q.name} card={card} onCard={onCard} />}
                    </li>
                ))}
            </ul>
        </Panel>
    );
}

const signed = (bits: number) => (bits > 0 ? '+' : '') + bits.toFixed(1);

function Clues({ word, tint, of }: { word: string; tint: string; of: string[] }) {
    if (of.length === 0) return null;
    return (
        <p className="text-sm">
            <span className={tint}>{word}:</span> {of.join(', ')}
        </p>
    );
}

/** Parts that do not belong to the leader: what they come from and what that means for ordering. */
function Aliens({ section }: Pick<SectionProps<'identification'>, 'section'>) {
    const id = section;
    return (
        <Panel
            title="A mixed core"
            aside={`${id.aliens.length} foreign ${id.aliens.length === 1 ? 'part' : 'parts'} if it is ${id.ranking[0]?.variant}`}
        >
            <ul>
                {id.aliens.map((a) => (
                    <li key={a.feature} className="border-b border-rule py-1.5">
                        <Mark kind="warn">{a.part}</Mark>: {a.seen}
                        {a.from.length > 0 && (
                            <>
                                , as on <strong>{a.from.join(' or ')}</strong>
                            </>
                        )}
                        <span className="block text-sm">{a.ordering}</span>
                    </li>
                ))}
            </ul>
        </Panel>
    );
}

/** What the confirmed cores of the house add to the catalog's own numbers. */
function Learning({ section }: Pick<SectionProps<'identification'>, 'section'>) {
    const l = section.learning;
    return (
        <More
            className="sheet px-4 py-2"
            title={
                <>
                    Learned from confirmed cores: {l.on ? 'in force' : 'switched off'}{' '}
                    <span className="font-normal text-faint">(house rule)</span>
                </>
            }
        >
            <LearnedShares l={l} />
            <p className="my-1 text-sm text-faint">The catalog's share counts like {l.weight} confirmed cores.</p>
            <LearnedReliabilities l={l} />
        </More>
    );
}

function LearnedShares({ l }: { l: NonNullable<Card['identification']>['learning'] }) {
    return (
        <table className="w-full text-sm">
            <HeadRow of={['Variant', 'Catalog says', 'Confirmed here', 'Used']} />
            <tbody>
                {l.priors.map((p) => (
                    <tr key={p.variant}>
                        <th scope="row" className="td text-left">
                            {p.variant}
                        </th>
                        <td className="td num">{percent(p.catalog)}</td>
                        <td className="td num">{p.confirmed}</td>
                        <td className="td num font-semibold">{percent(p.used, 1)}</td>
                    </tr>
                ))}
            </tbody>
        </table>
    );
}

function LearnedReliabilities({ l }: { l: NonNullable<Card['identification']>['learning'] }) {
    return (
        <table className="w-full text-sm">
            <HeadRow of={['Clue', 'Reliability in the catalog', 'Cases', 'Learned']} />
            <tbody>
                {l.reliabilities.map((r) => (
                    <tr key={r.feature}>
                        <th scope="row" className="td text-left font-normal">
                            {r.name}
                        </th>
                        <td className="td num">{r.catalog.toFixed(3)}</td>
                        <td className="td num">{r.cases}</td>
                        <td className="td num font-semibold">{r.learned.toFixed(3)}</td>
                    </tr>
                ))}
            </tbody>
        </table>
    );
}

function Clue({
    q,
    first,
    card,
    onCard,
    editable,
}: { q: Question; first: boolean; editable: boolean } & Pick<SectionProps<'identification'>, 'card' | 'onCard'>) {
    const { problem, write } = useWrite();
    const [typed, setTyped] = useState('');
    const say = (value: string) =>
        write(
            () =>
                api.POST('/units/{number}/identification/clues', {
                    params: { path: { number: card.coreTag } },
                    body: { feature: q.feature, value },
                }),
            onCard,
        );
    return (
        <li className={`border-l-4 pl-3 ${first ? 'border-hand' : 'border-rule'}`}>
            <p className={first ? 'text-xl font-semibold' : 'font-semibold'}>
                {q.name}{' '}
                <span className="text-sm font-normal text-faint">
                    {q.where} · {(q.gainBits ?? 0).toFixed(2)} bits, effort {q.effort}
                </span>
            </p>
            <p className="text-sm">
                {q.how} <Source source={q.source} confidence={q.confidence} />
            </p>
            {editable && <ClueAnswers q={q} problem={problem} typed={typed} setTyped={setTyped} say={say} />}
            <ProblemNote problem={problem} except={['/value']} />
        </li>
    );
}

type ClueAnswersProps = {
    q: Question;
    problem: Problem | null;
    typed: string;
    setTyped: (to: string) => void;
    say: (value: string) => Promise<boolean>;
};

function ClueAnswers({ q, problem, typed, setTyped, say }: ClueAnswersProps) {
    return (
        <div className="mt-1 flex flex-wrap items-end gap-1.5">
            {q.kind === 'number' ? (
                <>
                    <Field
                        label={`Reading (${q.unit})`}
                        value={typed}
                        onChange={setTyped}
                        onEnter={() => void say(typed)}
                        problem={fieldProblem(problem, '/value')}
                        className="w-44"
                    />
                    <button type="button" className="btn" disabled={!typed} onClick={() => void say(typed)}>
                        Take the reading
                    </button>
                </>
            ) : (
                <Answers small label={q.name} value={null} values={q.values} onAnswer={(v) => void say(v)} />
            )}
            {NO_ANSWER.map((v) => (
                <button
                    key={v}
                    type="button"
                    className="min-h-11 px-2 text-faint underline"
                    onClick={() => void say(v)}
                >
                    {v}
                </button>
            ))}
        </div>
    );
}

function TakeBack({
    feature,
    name,
    card,
    onCard,
}: { feature: string; name: string } & Pick<SectionProps<'identification'>, 'card' | 'onCard'>) {
    const { write } = useWrite();
    return (
        <button
            type="button"
            className="min-h-11 px-2 underline"
            aria-label={`Change ${name}`}
            onClick={() =>
                void write(
                    () =>
                        api.POST('/units/{number}/identification/clues', {
                            params: { path: { number: card.coreTag } },
                            body: { feature, value: null },
                        }),
                    onCard,
                )
            }
        >
            change
        </button>
    );
}

type Decided = { variant: string; foreign: string[]; more: string; note: string };

/** What is typed as a list, with commas, semicolons or lines between. */
const listed = (text: string) =>
    text
        .split(/[,;\n]+/)
        .map((s) => s.trim())
        .filter(Boolean);

function useDecision(number: string, foreignParts: string[], note: string, onCard: (card: Card) => void) {
    const { busy, problem, write } = useWrite();
    const params = { path: { number } };
    const send = (variant: string | null) =>
        write(
            () => api.POST('/units/{number}/identification', { params, body: { variant, foreignParts, note } }),
            onCard,
        );
    return { busy, problem, send };
}

function Decide({ section: id, card, onCard }: Pick<SectionProps<'identification'>, 'section' | 'card' | 'onCard'>) {
    // Which variant it is, a person says; what the looks already showed to be foreign is not asked again.
    const shown = id.mixed ? id.aliens.flatMap((a) => a.feature ?? []) : [];
    const [d, setD] = useState<Decided>({ variant: '', foreign: shown, more: '', note: '' });
    const set = (to: Partial<Decided>) => setD({ ...d, ...to });
    const aliens = d.variant === id.ranking[0]?.variant ? id.aliens : [];
    const foreign = d.foreign.filter((f) => aliens.some((a) => a.feature === f));
    const { busy, problem, send } = useDecision(card.coreTag, [...foreign, ...listed(d.more)], d.note, onCard);
    return (
        <Panel title="Decide" aside="nothing is picked silently">
            <Choice
                label="Variant"
                value={d.variant}
                values={id.ranking.map((r) => r.variant)}
                onChange={(variant) => set({ variant })}
            />
            <ForeignParts aliens={aliens} chosen={d.foreign} onChoose={(to) => set({ foreign: to })} />
            <Besides d={d} set={set} problem={problem} />
            <div className="mt-2 flex flex-wrap gap-2">
                <button
                    type="button"
                    className="btn btn-main"
                    disabled={busy || !d.variant}
                    onClick={() => void send(d.variant)}
                >
                    {d.variant ? `Confirm ${d.variant}` : 'Pick the variant first'}
                    {foreign.length > 0 && ' with foreign parts'}
                </button>
                <button type="button" className="btn" disabled={busy} onClick={() => void send(null)}>
                    Mark unknown
                </button>
            </div>
        </Panel>
    );
}

type BesidesProps = { d: Decided; set: (to: Partial<Decided>) => void; problem: Problem | null };

function Besides({ d, set, problem }: BesidesProps) {
    return (
        <>
            <div className="mt-2 grid gap-3 sm:grid-cols-2">
                <Field
                    label="Other foreign parts"
                    value={d.more}
                    onChange={(more) => set({ more })}
                    hint="with commas between them"
                />
                <Field
                    label="Note"
                    value={d.note}
                    onChange={(note) => set({ note })}
                    problem={fieldProblem(problem, '/note')}
                />
            </div>
            <ProblemNote problem={problem} except={['/note']} />
        </>
    );
}

type Alien = NonNullable<Card['identification']>['aliens'][number];
type ForeignPartsProps = { aliens: Alien[]; chosen: string[]; onChoose: (to: string[]) => void };

function ForeignParts({ aliens, chosen, onChoose }: ForeignPartsProps) {
    if (aliens.length === 0) return null;
    const turn = (feature: string) =>
        onChoose(chosen.includes(feature) ? chosen.filter((f) => f !== feature) : [...chosen, feature]);
    return (
        <fieldset className="mt-2">
            <legend className="text-sm font-semibold text-faint">With these foreign parts</legend>
            {aliens.map(({ feature, part, from }) => (
                <label key={feature} className="flex min-h-11 items-center gap-2">
                    <input
                        type="checkbox"
                        className="size-5 accent-[var(--hand)]"
                        checked={!!feature && chosen.includes(feature)}
                        onChange={() => feature && turn(feature)}
                    />
                    {part}
                    {from.length > 0 && ` from ${from.join(' or ')}`}
                </label>
            ))}
        </fieldset>
    );
}
