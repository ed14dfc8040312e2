import { useState } from 'react';
import { fieldProblem } from '../../api/client';
import { Choice } from '../../kit/basics';
import type { ProofProps } from '../types';
import { ProofForm } from './ProofForm';

const MOVES = ['falls', 'tapped', 'hangs'] as const;

const IN_WORDS: Record<string, string> = { falls: 'falls', tapped: 'only tapped', hangs: 'hangs' };

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
                Dry and by its own weight, both ways round. <strong className="num">{Object.keys(moves).length}</strong>{' '}
                of {each.length} tried.
            </p>
            <ul className="grid gap-x-6 gap-y-1 sm:grid-cols-2">
                {each.map((valve) => {
                    const wrong = fieldProblem(problem, `/answer/moves/${valve}`);
                    return (
                        <li key={valve} className="flex flex-wrap items-center justify-between gap-x-3">
                            <span className={wrong ? 'font-semibold text-bad' : ''}>{valve}</span>
                            <Choice
                                small
                                label={`How the ${valve} moves`}
                                value={moves[valve] ?? null}
                                values={MOVES}
                                text={(v) => IN_WORDS[v] ?? v}
                                onChange={(v) => setMoves({ ...moves, [valve]: v })}
                            />
                            {wrong && (
                                <p role="alert" className="w-full font-semibold text-bad">
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
