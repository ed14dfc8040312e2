import type { ReactNode } from 'react';
import type { Problem } from '../../api/client';
import { ProblemNote } from '../../kit/basics';
import { PROOF_FORM } from '../types';

type Props = { onSend: () => void; problem: Problem | null; except?: string[]; children: ReactNode };

/** The proof in hand: Enter, the pedal and the main button send it. */
export function ProofForm({ onSend, problem, except = [], children }: Props) {
    return (
        <form
            id={PROOF_FORM}
            noValidate
            className="flex flex-col gap-2"
            onSubmit={(e) => {
                e.preventDefault();
                onSend();
            }}
        >
            {children}
            <ProblemNote problem={problem} except={except} />
        </form>
    );
}
