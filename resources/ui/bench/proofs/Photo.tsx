import { useRef, useState } from 'react';
import { ProblemNote } from '../../kit/basics';
import { PROOF_FORM, type ProofProps } from '../types';

/** A picture, taken now; without a network it waits on the tablet like any other proof. */
export function PhotoProof({ proof, send, problem }: ProofProps) {
    const file = useRef<HTMLInputElement>(null);
    const [name, setName] = useState('');
    const take = () => {
        const photo = file.current?.files?.[0];
        if (photo) send({}, '', { photo, place: proof.of });
        else file.current?.click();
    };
    return (
        <form
            id={PROOF_FORM}
            className="flex flex-col gap-2"
            onSubmit={(e) => {
                e.preventDefault();
                take();
            }}
        >
            <p className="font-head text-3xl">Picture of: {proof.of}</p>
            <label className="btn self-start">
                {name || 'Take the picture'}
                <input
                    ref={file}
                    type="file"
                    accept="image/*"
                    capture="environment"
                    className="sr-only"
                    onChange={(e) => {
                        setName(e.target.files?.[0]?.name ?? '');
                        take();
                    }}
                />
            </label>
            <ProblemNote problem={problem} />
        </form>
    );
}
