import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, type Schemas } from '../../api/client';
import { percent } from '../../kit/format';
import { useSession } from '../../api/session';
import { useWrite } from '../../api/useWrite';
import { Choice, Mark, Panel, ProblemNote } from '../../kit/basics';
import { Pending } from '../../kit/Fetched';

type Round = Schemas['TrainerRound'];

/** A past, confirmed core, dealt clue by clue: ask well, then say what it is. */
export function Trainer() {
    const { can } = useSession();
    const client = useQueryClient();
    const results = useQuery({
        queryKey: ['identification/trainer'],
        queryFn: () => answer(api.GET('/identification/trainer')),
    });
    const families = useQuery({ queryKey: ['families'], queryFn: () => answer(api.GET('/catalog/families')) });
    const [family, setFamily] = useState<string | null>(null);
    const [round, setRound] = useState<Round | null>(null);
    const { busy, problem, write } = useWrite();
    const deal = () => write(() => api.POST('/identification/trainer', { body: { family } }), setRound);
    const ask = (feature: string) =>
        write(
            () =>
                api.POST('/identification/trainer/{round}/questions', {
                    params: { path: { round: round!.id } },
                    body: { feature },
                }),
            setRound,
        );
    const say = (variant: string) =>
        write(
            () =>
                api.POST('/identification/trainer/{round}/answer', {
                    params: { path: { round: round!.id } },
                    body: { variant },
                }),
            (r) => {
                setRound(r);
                void client.invalidateQueries({ queryKey: ['identification/trainer'] });
            },
        );
    if (!results.data || !families.data) return <Pending of={[results, families]} what="the trainer" />;
    return (
        <>
            <h1 className="mb-2 text-3xl">Trainer</h1>
            <div className="grid items-start gap-3 lg:grid-cols-[2fr_1fr]">
                {round === null ? (
                    <Panel
                        title="Deal a past core"
                        aside="a question scores its information for the work it costs, against the best one at that moment"
                    >
                        <Choice
                            label="Family"
                            value={family ?? 'any'}
                            values={['any', ...families.data.families.map((f) => f.code)]}
                            onChange={(v) => setFamily(v === 'any' ? null : v)}
                        />
                        <ProblemNote problem={problem} />
                        {can('identification.train') && (
                            <button
                                type="button"
                                className="btn btn-main mt-3"
                                disabled={busy}
                                onClick={() => void deal()}
                            >
                                Deal
                            </button>
                        )}
                    </Panel>
                ) : (
                    <Panel title={round.family.name} aside={`work spent ${round.effort}`}>
                        <ol className="mb-3">
                            {round.asked.map((a) => (
                                <li key={a.feature} className="flex items-baseline gap-3 border-b border-rule py-1">
                                    <span className="flex-1">
                                        {a.name}: <strong>{a.value}</strong>
                                    </span>
                                    <span className="text-sm">{a.gainBits.toFixed(2)} bits</span>
                                    <Mark kind={a.score > 0.8 ? 'good' : a.score > 0.4 ? 'warn' : 'bad'}>
                                        {percent(a.score)} of the best question
                                    </Mark>
                                </li>
                            ))}
                        </ol>
                        {!round.over && (
                            <>
                                <h3 className="text-xl">Look at</h3>
                                <div className="my-1 flex flex-wrap gap-1.5">
                                    {round.clues.map((c) => (
                                        <button
                                            key={c.feature}
                                            type="button"
                                            className="btn px-3"
                                            disabled={busy}
                                            onClick={() => void ask(c.feature)}
                                        >
                                            {c.name}{' '}
                                            <span className="text-sm text-faint">
                                                {c.where}, {c.effort}
                                            </span>
                                        </button>
                                    ))}
                                </div>
                                <h3 className="mt-3 text-xl">It is</h3>
                                <div className="my-1 flex flex-wrap gap-1.5">
                                    {round.variants.map((v) => (
                                        <button
                                            key={v.code}
                                            type="button"
                                            className="btn px-3"
                                            disabled={busy}
                                            onClick={() => void say(v.code)}
                                        >
                                            <strong>{v.code}</strong> {v.name}
                                        </button>
                                    ))}
                                </div>
                            </>
                        )}
                        {round.result && (
                            <div aria-live="polite">
                                <p className="text-2xl">
                                    {round.result.right ? (
                                        <Mark kind="good">Right: {round.result.truth}</Mark>
                                    ) : (
                                        <Mark kind="bad">
                                            It was confirmed as {round.result.truth}, not {round.result.answer}
                                        </Mark>
                                    )}
                                </p>
                                <p>
                                    Questions {percent(round.result.questionScore)} of the best; work {round.effort},
                                    the engine needed {round.result.engineEffort}.
                                </p>
                                <p className="text-sm text-faint">
                                    With your clues:{' '}
                                    {round.result.ranking
                                        .map((r) => `${r.variant} ${percent(r.posterior, 1)}`)
                                        .join(', ')}
                                    .
                                </p>
                                <button
                                    type="button"
                                    className="btn btn-main mt-2"
                                    disabled={busy}
                                    onClick={() => void deal()}
                                >
                                    Deal the next
                                </button>
                            </div>
                        )}
                        <ProblemNote problem={problem} />
                    </Panel>
                )}
                <Panel title="Results">
                    {results.data.results.length === 0 && <p className="text-faint">Nobody has played a round yet.</p>}
                    {results.data.results.map((r) => (
                        <div key={r.name} className="border-b border-rule py-1.5">
                            <p className="flex justify-between">
                                <strong>{r.name}</strong>
                                <span className="num">
                                    {r.right} of {r.rounds} right
                                </span>
                            </p>
                            <p className="text-sm text-faint">
                                95 % interval {percent(r.lower)} to {percent(r.upper)}; questions{' '}
                                {percent(r.questionScore)}
                                {r.effortRatio !== null && `; work ${r.effortRatio.toFixed(1)} times the engine's`}
                            </p>
                        </div>
                    ))}
                </Panel>
            </div>
        </>
    );
}
