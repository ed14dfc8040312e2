import { useState } from 'react';
import { fieldProblem } from '../../api/client';
import { Choice } from '../../kit/basics';
import type { ProofProps } from '../types';
import { ProofForm } from './ProofForm';

const MOVES = ['falls', 'tapped', 'hangs'] as const;

/** Valve by valve, dry: does it fall through its bore by its own weight? Nothing is chosen beforehand. */
export function FreeProof({ proof, proven, send, problem }: ProofProps) {
    const [moves, setMoves] = useState<Record<string, string>>({});
    const each = proof.each ?? [];
    return (
        <ProofForm
            onSend={() => send({ moves })}
            problem={problem}
            except={each.map((valve) => `/answer/moves/${valve}`)}
        >
            <p>
                Dry: does it fall by its own weight, only when tapped, or hang?{' '}
                <strong className="num">{Object.keys(moves).length}</strong> of {each.length} tried.
            </p>
            <ul className="grid grid-cols-[repeat(auto-fill,minmax(14.5rem,1fr))] gap-x-3 gap-y-2">
                {each.map((valve) => {
                    const wrong = fieldProblem(problem, `/answer/moves/${valve}`);
                    return (
                        <li key={valve}>
                            <p className={`text-sm font-semibold ${wrong ? 'text-bad' : ''}`}>{valve}</p>
                            <Choice
                                small
                                label={`How the ${valve} moves`}
                                value={moves[valve] ?? null}
                                values={MOVES}
                                onChange={(v) => setMoves({ ...moves, [valve]: v })}
                            />
                            {wrong && (
                                <p role="alert" className="font-semibold text-bad">
                                    {wrong}
                                </p>
                            )}
                        </li>
                    );
                })}
            </ul>
            {proven?.answer && proven.open && <p className="font-semibold text-bad">{proven.open}</p>}
        </ProofForm>
    );
}
