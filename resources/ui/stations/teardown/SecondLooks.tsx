import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, type Schemas } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { Choice, HeadRow, Mark, Panel, ProblemNote } from '../../kit/basics';
import { Fetched, Pending } from '../../kit/Fetched';
import { percent } from '../../kit/format';
import { isDrawn, PartPicture, STATES } from '../../kit/PartPicture';

type Due = Schemas['SecondLooks'];
type Part = Due['parts'][number];

const KEY = ['second-looks'];

/** Now and then two people grade the same part, the second without knowing the first grade. */
export function SecondLooks() {
    const due = useQuery({ queryKey: KEY, queryFn: () => answer(api.GET('/second-looks')) });
    const [told, setTold] = useState<Due | null>(null);
    if (!due.data) return <Pending of={[due]} what="the second looks" />;
    const [first, ...rest] = due.data.parts;
    return (
        <>
            <h1 className="mb-2 text-3xl">Second looks</h1>
            <div className="grid items-start gap-3 lg:grid-cols-[3fr_2fr]">
                <Panel title="In hand" aside="graded without knowing the first grade">
                    {told?.first && (
                        <p role="status" className="mb-2">
                            You said <strong>{told.second}</strong>, the first person{' '}
                            <Mark kind={told.first === told.second ? 'good' : 'warn'}>{told.first}</Mark>
                        </p>
                    )}
                    {first ? (
                        <Look key={first.coreTag + first.part} part={first} onGraded={setTold} />
                    ) : (
                        <p className="text-faint">No part waits for a second look of yours.</p>
                    )}
                    {rest.length > 0 && (
                        <p className="mt-3 text-sm text-faint">
                            Then {due.data.more && 'more than '}
                            {rest.length}:{' '}
                            {rest
                                .slice(0, 3)
                                .map((p) => `${p.name} of ${p.coreTag}`)
                                .join(', ')}
                            {rest.length > 3 && ' and others'}
                        </p>
                    )}
                </Panel>
                <Agreement />
            </div>
        </>
    );
}

function Look({ part: p, onGraded }: { part: Part; onGraded: (told: Due) => void }) {
    const client = useQueryClient();
    const [condition, setCondition] = useState('');
    const { busy, problem, write } = useWrite();
    const save = () =>
        write(
            () =>
                api.POST('/units/{number}/teardown/second-looks', {
                    params: { path: { number: p.coreTag } },
                    body: { part: p.part, condition },
                }),
            (told: Due) => {
                client.setQueryData(KEY, told);
                onGraded(told);
                void client.invalidateQueries({ queryKey: [...KEY, 'agreement'] });
            },
        );
    return (
        <div className="flex flex-col gap-3">
            <p className="text-2xl">
                <strong>{p.name}</strong> of <span className="num">{p.coreTag}</span>
            </p>
            {isDrawn(p.kind) && <Drawn kind={p.kind} />}
            <Choice label="What it looks like" value={condition} values={p.conditions} onChange={setCondition} />
            <ProblemNote problem={problem} />
            <button
                type="button"
                className="btn btn-main self-start"
                disabled={busy || condition === ''}
                onClick={() => void save()}
            >
                That is my grade
            </button>
        </div>
    );
}

function Drawn({ kind }: { kind: string }) {
    return (
        <ul className="flex gap-6">
            {STATES.map((state) => (
                <li key={state} className="text-center text-sm">
                    <PartPicture kind={kind} state={state} className="size-28" />
                    {state}
                </li>
            ))}
        </ul>
    );
}

const two = (v: number | null) => (v ?? 0).toFixed(2);

/** Cohen's kappa with linear weights over good, borderline, scrap. */
function Agreement() {
    const agreement = useQuery({
        queryKey: [...KEY, 'agreement'],
        queryFn: () => answer(api.GET('/second-looks/agreement')),
    });
    return (
        <Panel title="How far two people agree" aside="beyond what chance gives">
            <Fetched query={agreement} what="the agreement">
                {({ rows }) => (
                    <table className="w-full">
                        <HeadRow of={['Parts', 'Pairs', 'The same', 'Kappa, 95 %']} numbersFrom={1} />
                        <tbody>
                            {rows.map((r) => (
                                <tr key={r.kind} className="border-b border-rule">
                                    <th scope="row" className="py-1 text-left font-normal">
                                        {r.name}
                                    </th>
                                    <td className="num text-right">{r.n}</td>
                                    <td className="num text-right">
                                        {r.observed === null ? '–' : percent(r.observed)}
                                    </td>
                                    <td className="num text-right">
                                        {r.kappa === null
                                            ? r.why
                                            : `${two(r.kappa)} (${two(r.lower)} to ${two(r.upper)})`}
                                    </td>
                                </tr>
                            ))}
                        </tbody>
                    </table>
                )}
            </Fetched>
        </Panel>
    );
}
