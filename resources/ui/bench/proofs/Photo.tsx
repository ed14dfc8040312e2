import { useRef, useState } from 'react';
import { api } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { ProblemNote } from '../../kit/basics';
import { PROOF_FORM, type ProofProps } from '../types';

/** A picture, taken now. */
export function PhotoProof({ number, bench, proof, send, problem }: ProofProps) {
    const file = useRef<HTMLInputElement>(null);
    const [name, setName] = useState('');
    const upload = useWrite();
    const take = async () => {
        const photo = file.current?.files?.[0];
        if (!photo) {
            file.current?.click();
            return;
        }
        await upload.write(
            () =>
                api.POST('/units/{number}/photos', {
                    params: { path: { number } },
                    body: { photo: '', place: proof.of, station: bench },
                    bodySerializer: (b) => {
                        const form = new FormData();
                        form.set('photo', photo);
                        form.set('place', b.place);
                        form.set('station', b.station ?? '');
                        return form;
                    },
                }),
            (saved) => send({ photo: String(saved.id) }),
        );
    };
    return (
        <form
            id={PROOF_FORM}
            className="flex flex-col gap-2"
            onSubmit={(e) => {
                e.preventDefault();
                void take();
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
                        void take();
                    }}
                />
            </label>
            <ProblemNote problem={upload.problem ?? problem} />
        </form>
    );
}
