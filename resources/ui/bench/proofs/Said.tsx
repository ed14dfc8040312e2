import { useState } from 'react';
import { fieldProblem } from '../../api/client';
import { Choice, Field } from '../../kit/basics';
import type { ProofProps } from '../types';
import { ProofForm } from './ProofForm';

/** Somebody says that it is done. */
export function DoneProof({ send, problem }: ProofProps) {
    return (
        <ProofForm onSend={() => send({})} problem={problem}>
            <p className="font-head text-3xl">Done when your hands say so.</p>
        </ProofForm>
    );
}

/** Balls, rings, plates, bolts. */
export function CountProof({ proof, send, problem }: ProofProps) {
    const wanted = Object.entries(proof.counts ?? {});
    const [counts, setCounts] = useState<Record<string, string>>({});
    const [note, setNote] = useState('');
    const off = wanted.some(([what, n]) => (counts[what] ?? '') !== '' && Number(counts[what]) !== n);
    const answer = Object.fromEntries(
        Object.entries(counts)
            .filter(([, v]) => /^\d+$/.test(v.trim()))
            .map(([what, v]) => [what, Number(v)]),
    );
    return (
        <ProofForm
            onSend={() => send({ counts: answer }, note)}
            problem={problem}
            except={wanted.map(([w]) => `/answer/counts/${w}`)}
        >
            <div className="flex flex-wrap gap-3">
                {wanted.map(([what, n], i) => (
                    <Field
                        key={what}
                        className="w-48 text-2xl"
                        label={`${what}, counted (of ${n})`}
                        inputMode="numeric"
                        autoFocus={i === 0}
                        value={counts[what] ?? ''}
                        onChange={(v) => setCounts({ ...counts, [what]: v })}
                        problem={fieldProblem(problem, `/answer/counts/${what}`)}
                    />
                ))}
            </div>
            {(off || note) && (
                <Field className="max-w-xl" label="Note: why the count differs" value={note} onChange={setNote} />
            )}
        </ProofForm>
    );
}

/** How a part lies. Nothing is chosen beforehand. */
export function OrientationProof({ proof, proven, send, problem }: ProofProps) {
    const [choice, setChoice] = useState('');
    return (
        <ProofForm onSend={() => send({ choice })} problem={problem} except={['/answer/choice']}>
            <Choice label={proof.ask ?? ''} value={choice} values={proof.choices ?? []} onChange={setChoice} />
            {fieldProblem(problem, '/answer/choice') && (
                <p role="alert" className="font-semibold text-bad">
                    {fieldProblem(problem, '/answer/choice')}
                </p>
            )}
            {proven?.answer && proven.open && <p className="font-semibold text-bad">{proven.open}</p>}
        </ProofForm>
    );
}

/** A code off a tray, a part, a lot or a tool. */
export function ScanProof({ proof, send, problem }: ProofProps) {
    const [code, setCode] = useState('');
    return (
        <ProofForm onSend={() => send({ code })} problem={problem} except={['/answer/code']}>
            <Field
                className="max-w-sm text-2xl"
                label={`Scan the ${proof.of}`}
                value={code}
                onChange={setCode}
                autoFocus
                problem={fieldProblem(problem, '/answer/code')}
            />
        </ProofForm>
    );
}

/** A second person, with badge and PIN. */
export function SignProof({ proof, send, problem }: ProofProps) {
    const [badge, setBadge] = useState('');
    const [pin, setPin] = useState('');
    return (
        <ProofForm onSend={() => send({ badge, pin })} problem={problem} except={['/answer/badge', '/pin']}>
            <p>
                {proof.kind === 'skilled'
                    ? 'Somebody who is good at it looks it over: '
                    : 'A second person looks at it: '}
                <strong>{proof.of}</strong>
            </p>
            <div className="flex flex-wrap gap-3">
                <Field
                    className="w-40"
                    label="Badge of the second person"
                    value={badge}
                    onChange={setBadge}
                    problem={fieldProblem(problem, '/answer/badge')}
                />
                <Field
                    className="w-40"
                    label="Their PIN"
                    type="password"
                    value={pin}
                    onChange={setPin}
                    problem={fieldProblem(problem, '/pin')}
                />
            </div>
        </ProofForm>
    );
}
