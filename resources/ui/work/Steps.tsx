import { useState } from 'react';
import { api, fieldProblem, type Card } from '../api/client';
import { moment } from '../kit/format';
import { useWrite } from '../api/useWrite';
import { Caution, Field, HouseNote, Mark, Panel, ProblemNote } from '../kit/basics';
import type { CardProps } from '../card/section';

type Step = NonNullable<Card['teardown']>['steps'][number] & { note?: string; because?: string };

/** The guided order of work: a graph, not a list; what waits says for what. */
export function Steps({
    phase,
    steps,
    card,
    onCard,
    editable,
}: { phase: 'teardown' | 'assembly'; steps: Step[]; editable: boolean } & Pick<CardProps, 'card' | 'onCard'>) {
    const done = steps.filter((s) => s.state === 'done').length;
    const next = steps.find((s) => s.state === 'open');
    const name = (code: string) => steps.find((s) => s.code === code)?.name ?? code;
    return (
        <Panel title="Steps" aside={`${done} of ${steps.length} done`}>
            <ol className="flex flex-col gap-1">
                {steps.map((s) => (
                    <li key={s.code} className={`border-l-4 py-1 pl-3 ${s === next ? 'border-hand' : 'border-rule'}`}>
                        <div className="flex flex-wrap items-baseline gap-x-3">
                            <strong className={s === next ? 'text-xl' : ''}>{s.name}</strong>
                            {s.state === 'done' && (
                                <Mark kind="good">
                                    done, {s.by}, {moment(s.at!)}
                                </Mark>
                            )}
                            {s.state === 'waits' && <Mark kind="idle">after {s.waitsFor.map(name).join(', ')}</Mark>}
                            {s.tool && <span className="text-sm text-faint">{s.tool}</span>}
                        </div>
                        {s.state !== 'done' && <Hints step={s} />}
                        {s.state === 'done' && s.note && <p className="text-sm">Note: {s.note}</p>}
                        {s.state === 'open' && editable && (
                            <MarkDone phase={phase} step={s} card={card} onCard={onCard} main={s === next} />
                        )}
                    </li>
                ))}
            </ol>
        </Panel>
    );
}

function Hints({ step: s }: { step: Step }) {
    return (
        <div className="text-sm">
            {s.mark && (
                <p>
                    <span className="text-faint">Mark first:</span> {s.mark}
                </p>
            )}
            {s.trap && (
                <p>
                    <span className="font-semibold text-warn">Trap:</span> {s.trap}
                </p>
            )}
            {s.comesWith && (
                <p>
                    <span className="text-faint">Should come with it:</span> {s.comesWith}
                </p>
            )}
            {s.keepTogether && (
                <p>
                    <span className="text-faint">Keep together:</span> {s.keepTogether}
                </p>
            )}
            <HouseNote house={s.house} />
            {s.because && (
                <p>
                    <span className="text-faint">Because of:</span> {s.because}
                </p>
            )}
            {s.caution && <Caution>{s.caution}</Caution>}
        </div>
    );
}

function MarkDone({
    phase,
    step,
    card,
    onCard,
    main,
}: { phase: 'teardown' | 'assembly'; step: Step; main: boolean } & Pick<CardProps, 'card' | 'onCard'>) {
    const wanted = Object.entries(step.counts);
    const [counts, setCounts] = useState<Record<string, string>>({});
    const [note, setNote] = useState('');
    const { busy, problem, write } = useWrite();
    const off = wanted.some(
        ([what, n]) => counts[what] !== undefined && counts[what] !== '' && Number(counts[what]) !== Number(n),
    );
    const body = {
        counts: Object.fromEntries(
            Object.entries(counts)
                .filter(([, v]) => v !== '')
                .map(([k, v]) => [k, Math.round(Number(v)) || 0]),
        ),
        note,
    };
    const params = { path: { number: card.coreTag, step: step.code } };
    const send = () =>
        write(
            () =>
                phase === 'teardown'
                    ? api.POST('/units/{number}/teardown/steps/{step}', { params, body })
                    : api.POST('/units/{number}/assembly/steps/{step}', { params, body }),
            onCard,
        );
    return (
        <div className="mt-1 flex flex-wrap items-end gap-2">
            {wanted.map(([what, n]) => (
                <Field
                    key={what}
                    className="w-44"
                    label={`${what}, counted (of ${String(n)})`}
                    inputMode="numeric"
                    value={counts[what] ?? ''}
                    onChange={(v) => setCounts({ ...counts, [what]: v })}
                    problem={fieldProblem(problem, `/counts/${what}`)}
                    onEnter={() => void send()}
                />
            ))}
            {(off || note) && (
                <Field className="w-72" label="Note: why the count differs" value={note} onChange={setNote} />
            )}
            <button
                type="button"
                className={`btn ${main ? 'btn-main' : ''}`}
                aria-label={`Done: ${step.name}`}
                disabled={busy}
                onClick={() => void send()}
            >
                Done
            </button>
            <ProblemNote problem={problem} except={wanted.map(([w]) => `/counts/${w}`)} />
        </div>
    );
}
