import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, fieldProblem } from '../../api/client';
import { Field } from '../../kit/basics';
import type { ProofProps } from '../types';
import { ProofForm } from './ProofForm';

/** Where tools of a kind hang; nothing while that cannot be known. */
function Hangs({ kind }: { kind: string }) {
    const tools = useQuery({ queryKey: ['tools'], queryFn: () => answer(api.GET('/tools')), staleTime: 60_000 });
    const fit = tools.data?.tools.filter((t) => t.kind === kind && !t.overdue) ?? [];
    if (!tools.data) return null;
    return (
        <p className="text-sm">
            {fit.length === 0
                ? 'None that was looked at in time is registered.'
                : fit.map((t) => `${t.tag} ${t.name}: ${t.place}`).join(' · ')}
        </p>
    );
}

/** The special tool, scanned before the work begins; without it only with a word, by the name of who does it. */
export function ToolProof({ proof, proven, send, problem }: ProofProps) {
    const [code, setCode] = useState('');
    const [without, setWithout] = useState(false);
    const [note, setNote] = useState('');
    return (
        <ProofForm
            onSend={() => (without ? send({ without: true }, note) : send({ code }))}
            problem={problem}
            except={['/answer/code', '/note']}
        >
            {proven?.open && <p className="text-lg">{proven.open}</p>}
            {!without && <Hangs kind={proof.of} />}
            {without ? (
                <Field
                    className="max-w-xl"
                    label="Why it is done without"
                    value={note}
                    onChange={setNote}
                    autoFocus
                    problem={fieldProblem(problem, '/note')}
                />
            ) : (
                <Field
                    className="max-w-sm text-2xl"
                    label={`Scan the tool: ${proof.of.replaceAll('-', ' ')}`}
                    value={code}
                    onChange={setCode}
                    autoFocus
                    problem={fieldProblem(problem, '/answer/code')}
                />
            )}
            <button type="button" className="btn self-start" onClick={() => setWithout(!without)}>
                {without ? 'The tool is here after all' : 'Done without it, by my name'}
            </button>
        </ProofForm>
    );
}

const SIZES = [
    ['um4', 'over 4 µm'],
    ['um6', 'over 6 µm'],
    ['um14', 'over 14 µm'],
] as const;

/** Particles on the patch, a millilitre. */
export function PatchProof({ proven, send, problem }: ProofProps) {
    const [counts, setCounts] = useState<Record<string, string>>({});
    return (
        <ProofForm onSend={() => send(counts)} problem={problem} except={SIZES.map(([size]) => `/answer/${size}`)}>
            {proven?.open && <p className="text-lg">{proven.open}</p>}
            <div className="flex flex-wrap gap-3">
                {SIZES.map(([size, text], n) => (
                    <Field
                        key={size}
                        className="w-44 text-2xl"
                        label={`Particles ${text}, a mL`}
                        inputMode="decimal"
                        autoFocus={n === 0}
                        value={counts[size] ?? ''}
                        onChange={(v) => setCounts({ ...counts, [size]: v.trim() })}
                        problem={fieldProblem(problem, `/answer/${size}`)}
                    />
                ))}
            </div>
            <p className="text-sm text-faint">A microscope counts two sizes: leave the first empty.</p>
        </ProofForm>
    );
}
