import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, type Schemas } from '../../api/client';
import { percent } from '../../kit/format';
import { useSession } from '../../api/session';
import { useWrite } from '../../api/useWrite';
import { Choice, Mark, Panel, ProblemNote } from '../../kit/basics';
import { Pending } from '../../kit/Fetched';

type Round = Schemas['TrainerRound'];

/** The round in hand: dealt, asked and answered at the server, which alone knows the core. */
function useRound() {
    const client = useQueryClient();
    const [family, setFamily] = useState<string | null>(null);
    const [round, setRound] = useState<Round | null>(null);
    const { busy, problem, write } = useWrite();
    const deal = () => void write(() => api.POST('/identification/trainer', { body: { family } }), setRound);
    const params = { path: { round: round?.id ?? 0 } };
    const ask = (feature: string) =>
        void write(
            () => api.POST('/identification/trainer/{round}/questions', { params, body: { feature } }),
            setRound,
        );
    const say = (variant: string) =>
        void write(
            () => api.POST('/identification/trainer/{round}/answer', { params, body: { variant } }),
            (r) => {
                setRound(r);
                void client.invalidateQueries({ queryKey: ['identification/trainer'] });
            },
        );
    return { family, setFamily, round, busy, problem, deal, ask, say };
}

type Playing = ReturnType<typeof useRound>;

/** A past, confirmed core, dealt clue by clue: ask well, then say what it is. */
export function Trainer() {
    const results = useQuery({
        queryKey: ['identification/trainer'],
        queryFn: () => answer(api.GET('/identification/trainer')),
    });
    const families = useQuery({ queryKey: ['families'], queryFn: () => answer(api.GET('/catalog/families')) });
    const playing = useRound();
    if (!results.data || !families.data) return <Pending of={[results, families]} what="the trainer" />;
    return (
        <>
            <h1 className="mb-2 text-3xl">Trainer</h1>
            <div className="grid items-start gap-3 lg:grid-cols-[2fr_1fr]">
                {playing.round ? (
                    <RoundPanel {...playing} round={playing.round} />
                ) : (
                    <Deal families={families.data.families.map((f) => f.code)} {...playing} />
                )}
                <Results results={results.data.results} />
            </div>
        </>
    );
}

function Deal({ families, family, setFamily, busy, problem, deal }: Playing & { families: string[] }) {
    const { can } = useSession();
    return (
        <Panel
            title="Deal a past core"
            aside="a question scores its information for the work it costs, against the best one at that moment"
        >
            <Choice
                label="Family"
                value={family ?? 'any'}
                values={['any', ...families]}
                onChange={(v) => setFamily(v === 'any' ? null : v)}
            />
            <ProblemNote problem={problem} />
            {can('identification.train') && (
                <button type="button" className="btn btn-main mt-3" disabled={busy} onClick={deal}>
                    Deal
                </button>
            )}
        </Panel>
    );
}

const scoreMark = (score: number) => (score > 0.8 ? 'good' : score > 0.4 ? 'warn' : 'bad');

type RoundProps = Playing & { round: Round };

function RoundPanel(props: RoundProps) {
    const { round, problem, deal, busy } = props;
    return (
        <Panel title={round.family.name} aside={`work spent ${round.effort}`}>
            <ol className="mb-3">
                {round.asked.map((a) => (
                    <li key={a.feature} className="flex items-baseline gap-3 border-b border-rule py-1">
                        <span className="flex-1">
                            {a.name}: <strong>{a.value}</strong>
                        </span>
                        <span className="text-sm">{a.gainBits.toFixed(2)} bits</span>
                        <Mark kind={scoreMark(a.score)}>{percent(a.score)} of the best question</Mark>
                    </li>
                ))}
            </ol>
            {!round.over && <Questions {...props} />}
            {round.result && (
                <div aria-live="polite">
                    <Outcome result={round.result} effort={round.effort} />
                    <button type="button" className="btn btn-main mt-2" disabled={busy} onClick={deal}>
                        Deal the next
                    </button>
                </div>
            )}
            <ProblemNote problem={problem} />
        </Panel>
    );
}

function Questions({ round, busy, ask, say }: RoundProps) {
    return (
        <>
            <h3 className="text-xl">Look at</h3>
            <div className="my-1 flex flex-wrap gap-1.5">
                {round.clues.map((c) => (
                    <button
                        key={c.feature}
                        type="button"
                        className="btn px-3"
                        disabled={busy}
                        onClick={() => ask(c.feature)}
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
                    <button key={v.code} type="button" className="btn px-3" disabled={busy} onClick={() => say(v.code)}>
                        <strong>{v.code}</strong> {v.name}
                    </button>
                ))}
            </div>
        </>
    );
}

function Outcome({ result, effort }: { result: NonNullable<Round['result']>; effort: number }) {
    return (
        <>
            <p className="text-2xl">
                {result.right ? (
                    <Mark kind="good">Right: {result.truth}</Mark>
                ) : (
                    <Mark kind="bad">
                        It was confirmed as {result.truth}, not {result.answer}
                    </Mark>
                )}
            </p>
            <p>
                Questions {percent(result.questionScore)} of the best; work {effort}, the engine needed{' '}
                {result.engineEffort}.
            </p>
            <p className="text-sm text-faint">
                With your clues: {result.ranking.map((r) => `${r.variant} ${percent(r.posterior, 1)}`).join(', ')}.
            </p>
        </>
    );
}

type Result = Schemas['TrainerResults']['results'][number];

function Results({ results }: { results: Result[] }) {
    return (
        <Panel title="Results">
            {results.length === 0 && <p className="text-faint">Nobody has played a round yet.</p>}
            {results.map((r) => (
                <div key={r.name} className="border-b border-rule py-1.5">
                    <p className="flex justify-between">
                        <strong>{r.name}</strong>
                        <span className="num">
                            {r.right} of {r.rounds} right
                        </span>
                    </p>
                    <p className="text-sm text-faint">
                        95 % interval {percent(r.lower)} to {percent(r.upper)}; questions {percent(r.questionScore)}
                        {r.effortRatio !== null && `; work ${r.effortRatio.toFixed(1)} times the engine's`}
                    </p>
                </div>
            ))}
        </Panel>
    );
}
