import { useState } from 'react';
import { api, fieldProblem, type Card } from '../../lib/api';
import { moment, percent } from '../../lib/format';
import { useWrite } from '../../lib/useWrite';
import { Choice, Field, Mark, Panel, ProblemNote, Source } from '../../parts/basics';
import type { SectionProps } from '../yard/UnitCard';

type Question = NonNullable<Card['identity']>['questions'][number];

const NO_ANSWER = ['cannot see', 'broken off', 'not sure'];

/** Clue by clue to the variant: cheapest and most telling question first, every answer can be changed. */
export function Identify({ card, onCard, can }: SectionProps) {
    const id = card.identity!;
    const editable = can('identify-core') && ['identify', 'desk', 'teardown'].includes(card.station);
    const open = id.questions.filter((q) => q.answer === null);
    const answered = id.questions.filter((q) => q.answer !== null);
    const name = (feature: string) => id.questions.find((q) => q.feature === feature)?.name ?? feature;
    return (
        <div className="grid items-start gap-3 lg:grid-cols-2">
            <div className="flex flex-col gap-3">
                <Panel title="Which variant is it" aside={`${id.entropyBits.toFixed(2)} bits still open`}>
                    <ol className="flex flex-col gap-3">
                        {id.ranking.map((r, i) => (
                            <li key={r.variant}>
                                <div className="flex items-baseline justify-between gap-3">
                                    <strong className={i === 0 ? 'font-head text-2xl' : ''}>{r.variant} <span className="text-sm font-normal text-faint">{r.name}, {r.years}</span></strong>
                                    <span className={`num ${i === 0 ? 'font-head text-4xl' : 'text-xl'}`}>{percent(r.posterior, 1)}</span>
                                </div>
                                <div className="h-3 border border-rule bg-sheet" aria-hidden="true"><div className="h-full bg-enamel" style={{ width: `${100 * r.posterior}%` }} /></div>
                                {r.contradicts.length > 0 && <p className="text-sm"><span className="text-bad">against:</span> {r.contradicts.map((f) => `${name(f)} (${Number(r.weightBits[f] ?? 0).toFixed(1)})`).join(', ')}</p>}
                                {r.supports.length > 0 && <p className="text-sm"><span className="text-good">for:</span> {r.supports.map((f) => `${name(f)} (+${Number(r.weightBits[f] ?? 0).toFixed(1)})`).join(', ')}</p>}
                            </li>
                        ))}
                    </ol>
                    <p className="mt-2 text-sm text-faint">Numbers in brackets: weight of the clue in bits.</p>
                    {id.mixed && <p className="mt-2"><Mark kind="warn">Mixed core</Mark> {id.ranking[0]!.contradicts.map(name).join(', ')} {id.ranking[0]!.contradicts.length === 1 ? 'does' : 'do'} not belong to {id.ranking[0]!.variant}: name the foreign parts when you confirm.</p>}
                    {id.impossible && <p className="mt-2"><Mark kind="bad">Impossible together</Mark> {id.impossible}</p>}
                </Panel>
                {card.station === 'identify' && can('identify-core') && <Decide card={card} onCard={onCard} />}
                {id.decisions.length > 0 && (
                    <Panel title="Decided">
                        {id.decisions.map((d, i) => (
                            <p key={i}>{d.outcome === 'confirmed' ? <><strong>{d.variant}</strong> at {percent(d.posterior ?? 0, 1)}</> : 'marked unknown'}, {d.by}, {moment(d.at)}{d.foreignParts.length > 0 && <> · foreign: {d.foreignParts.join(', ')}</>}{d.note && <> · {d.note}</>}</p>
                        ))}
                    </Panel>
                )}
            </div>
            <div className="flex flex-col gap-3">
                <Panel title="Look at this next" aside="most telling for the least work first">
                    {open.length === 0 && <p className="text-faint">Every clue is answered.</p>}
                    <ul className="flex flex-col gap-3">{open.map((q, i) => <Clue key={q.feature} q={q} first={i === 0} card={card} onCard={onCard} editable={editable} />)}</ul>
                </Panel>
                {answered.length > 0 && (
                    <Panel title="Answered">
                        <ul>
                            {answered.map((q) => (
                                <li key={q.feature} className="flex items-center gap-3 border-b border-rule py-1">
                                    <span className="flex-1">{q.name}: <strong>{q.answer}{q.kind === 'number' && !NO_ANSWER.includes(q.answer!) && ` ${q.unit}`}</strong> <span className="text-sm text-faint">{q.answeredBy}</span></span>
                                    {editable && <TakeBack feature={q.feature} name={q.name} card={card} onCard={onCard} />}
                                </li>
                            ))}
                        </ul>
                    </Panel>
                )}
            </div>
        </div>
    );
}

function Clue({ q, first, card, onCard, editable }: { q: Question; first: boolean; editable: boolean } & Pick<SectionProps, 'card' | 'onCard'>) {
    const { problem, write } = useWrite();
    const [typed, setTyped] = useState('');
    const say = (value: string) => write((headers) => api.POST('/units/{number}/clues', { params: { path: { number: card.coreTag } }, headers, body: { feature: q.feature, value } }), onCard);
    return (
        <li className={`border-l-4 pl-3 ${first ? 'border-hand' : 'border-rule'}`}>
            <p className={first ? 'text-xl font-semibold' : 'font-semibold'}>{q.name} <span className="text-sm font-normal text-faint">{q.where} · {(q.gainBits ?? 0).toFixed(2)} bits, effort {q.effort}</span></p>
            <p className="text-sm">{q.how} <Source source={q.source} confidence={q.confidence} /></p>
            {editable && (
                <div className="mt-1 flex flex-wrap items-end gap-1.5">
                    {q.kind === 'number' ? (
                        <>
                            <Field label={`Reading (${q.unit})`} value={typed} onChange={setTyped} onEnter={() => void say(typed)} problem={fieldProblem(problem, '/value')} className="w-44" />
                            <button type="button" className="btn" disabled={!typed} onClick={() => void say(typed)}>Take the reading</button>
                        </>
                    ) : (
                        <Choice small label={q.name} value={null} values={q.values} onChange={(v) => void say(v)} />
                    )}
                    {NO_ANSWER.map((v) => <button key={v} type="button" className="min-h-11 px-2 text-faint underline" onClick={() => void say(v)}>{v}</button>)}
                </div>
            )}
            <ProblemNote problem={problem} except={['/value']} />
        </li>
    );
}

function TakeBack({ feature, name, card, onCard }: { feature: string; name: string } & Pick<SectionProps, 'card' | 'onCard'>) {
    const { write } = useWrite();
    return <button type="button" className="min-h-11 px-2 underline" aria-label={`Change ${name}`} onClick={() => void write((headers) => api.POST('/units/{number}/clues', { params: { path: { number: card.coreTag } }, headers, body: { feature, value: null } }), onCard)}>change</button>;
}

function Decide({ card, onCard }: Pick<SectionProps, 'card' | 'onCard'>) {
    const id = card.identity!;
    const [variant, setVariant] = useState(id.ranking[0]?.variant ?? '');
    const [foreign, setForeign] = useState('');
    const [note, setNote] = useState('');
    const { busy, problem, write } = useWrite();
    const send = (confirmed: boolean) => write((headers) => api.POST('/units/{number}/identity', { params: { path: { number: card.coreTag } }, headers, body: { variant: confirmed ? variant : null, foreignParts: foreign.split(/[,;\n]+/).map((s) => s.trim()).filter(Boolean), note } }), onCard);
    return (
        <Panel title="Decide" aside="nothing is picked silently">
            <Choice label="Variant" value={variant} values={id.ranking.map((r) => r.variant)} onChange={setVariant} />
            <div className="mt-2 grid gap-3 sm:grid-cols-2">
                <Field label="Foreign parts on it" value={foreign} onChange={setForeign} hint="with commas between them" />
                <Field label="Note" value={note} onChange={setNote} problem={fieldProblem(problem, '/note')} />
            </div>
            <ProblemNote problem={problem} except={['/note']} />
            <div className="mt-2 flex flex-wrap gap-2">
                <button type="button" className="btn btn-main" disabled={busy || !variant} onClick={() => void send(true)}>Confirm {variant}</button>
                <button type="button" className="btn" disabled={busy} onClick={() => void send(false)}>Mark unknown</button>
            </div>
        </Panel>
    );
}
