import { useEffect, useState } from 'react';
import { fieldProblem } from '../../api/client';
import { Field, Mark } from '../../kit/basics';
import { moment } from '../../kit/format';
import type { ProofProps } from '../types';
import { ProofForm } from './ProofForm';

const TICK_MS = 1000;

/** Seconds until then, by this tablet's clock. */
export function useSecondsTo(ends: string | null): number {
    const [now, setNow] = useState(Date.now);
    useEffect(() => {
        if (ends === null) return;
        const clock = setInterval(() => setNow(Date.now()), TICK_MS);
        return () => clearInterval(clock);
    }, [ends]);
    return ends === null ? 0 : Math.max(0, Math.ceil((Date.parse(ends) - now) / 1000));
}

export const clockOf = (seconds: number) => {
    const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
    return h > 0 ? `${h} h ${String(m).padStart(2, '0')} min` : `${m}:${String(s).padStart(2, '0')}`;
};

/** Soaking, draining, curing: started here, over by the server's clock; it runs on through reload and sleep. */
export function TimerProof({ proof, proven, send, problem }: ProofProps) {
    const [before, setBefore] = useState('');
    const ends = typeof proven?.answer?.ends === 'string' ? proven.answer.ends : null;
    const left = useSecondsTo(ends);
    const whyBefore = (label: string) => (
        <Field
            className="max-w-xl"
            label={label}
            value={before}
            onChange={setBefore}
            problem={fieldProblem(problem, '/note')}
        />
    );
    if (ends !== null) {
        return (
            <div>
                <p className="font-head text-6xl num" role="timer">
                    {clockOf(left)}
                </p>
                <Mark kind={left > 0 ? 'next' : 'good'}>
                    {left > 0 ? `${proof.of}, begun by ${proven?.by}, over ${moment(ends)}` : `${proof.of}: time is up`}
                </Mark>
                {left > 0 && (
                    <ProofForm onSend={() => send({ already: true }, before)} problem={problem} except={['/note']}>
                        {whyBefore('Not waited for, by my name: why')}
                    </ProofForm>
                )}
            </div>
        );
    }
    return (
        <ProofForm onSend={() => send(before ? { already: true } : {}, before)} problem={problem} except={['/note']}>
            <p className="font-head text-6xl num">{clockOf((proof.minutes ?? 0) * 60)}</p>
            <p>The clock starts with the button: {proof.of}.</p>
            {whyBefore('Begun before, elsewhere? Since when and where')}
        </ProofForm>
    );
}
