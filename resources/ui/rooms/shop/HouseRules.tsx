import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, fieldProblem, type Schemas } from '../../api/client';
import { useSession } from '../../api/session';
import { useWrite } from '../../api/useWrite';
import { Choice, Field, Loading, ProblemNote, TextArea } from '../../kit/basics';

type Rule = Schemas['HouseRules']['rules'][number];

/** Where practitioners disagree: which school is in force here, and why. */
export function HouseRules() {
    const rules = useQuery({ queryKey: ['house-rules'], queryFn: () => answer(api.GET('/house-rules')) });
    if (!rules.data) return <Loading what="the house rules" />;
    return (
        <>
            <h1 className="mb-2 text-3xl">House rules</h1>
            <p className="mb-2 text-faint">Good rebuilders differ on these. The shop picks one and signs it.</p>
            <div className="grid gap-3 lg:grid-cols-2">
                {rules.data.rules.map((r) => (
                    <RuleCard key={r.code + r.version} rule={r} />
                ))}
            </div>
        </>
    );
}

function RuleCard({ rule }: { rule: Rule }) {
    const { can } = useSession();
    const client = useQueryClient();
    const [choice, setChoice] = useState(rule.choice);
    const [reason, setReason] = useState(rule.reason);
    const { busy, problem, write } = useWrite();
    const changed = choice !== rule.choice || reason !== rule.reason;
    const save = () =>
        write(
            () =>
                api.PUT('/house-rules/{code}', {
                    params: { path: { code: rule.code } },
                    body: { choice, reason, version: rule.version },
                }),
            (data) => client.setQueryData(['house-rules'], data),
        );
    return (
        <section className="sheet px-4 py-3" aria-label={rule.question}>
            <h2 className="text-xl">{rule.question}</h2>
            {can('shop.set-rules') ? (
                <>
                    {rule.choices.length > 0 ? (
                        <Choice small label={rule.question} value={choice} values={rule.choices} onChange={setChoice} />
                    ) : (
                        <Field
                            label="Value"
                            inputMode="decimal"
                            value={choice}
                            onChange={setChoice}
                            problem={fieldProblem(problem, '/choice')}
                        />
                    )}
                    <TextArea
                        label="Why"
                        value={reason}
                        onChange={setReason}
                        problem={fieldProblem(problem, '/reason')}
                    />
                    <ProblemNote problem={problem} except={['/choice', '/reason']} />
                    {changed && (
                        <button type="button" className="btn btn-main mt-2" disabled={busy} onClick={() => void save()}>
                            Sign it
                        </button>
                    )}
                </>
            ) : (
                <p>
                    <strong>{rule.choice}</strong> – {rule.reason}
                </p>
            )}
            {rule.setBy && <p className="text-sm text-faint">signed by {rule.setBy}</p>}
        </section>
    );
}
