import { useEffect, useRef, useState } from 'react';
import { moment } from '../kit/format';
import type { BenchName, Operation } from './types';

type Props = { number: string; bench: BenchName; spoken: Operation['spoken'] };

/** What was said at the operation in hand. */
export function Spoken({ number, bench, spoken }: Props) {
    return spoken.map((s) => (
        <figure key={s.id} className="flex flex-wrap items-center gap-2 text-sm">
            <figcaption>
                Said by {s.by}, {moment(s.at)}
            </figcaption>
            <audio controls preload="none" className="h-11" src={`/api/units/${number}/${bench}/recordings/${s.id}`} />
        </figure>
    ));
}

const LONGEST_S = 120;
const BITS_PER_S = 32_000; // two minutes are half a megabyte

type Speaking = { stop: (keep: boolean) => void; seconds: number };

/** The tablet's microphone: speaks for at most two minutes; nothing is kept before the hand says so. */
function useMicrophone(onSound: (sound: Blob) => void) {
    const [seconds, setSeconds] = useState<number | null>(null);
    const [refused, setRefused] = useState('');
    const running = useRef<{ recorder: MediaRecorder; keep: boolean } | null>(null);
    const stop = (keep: boolean) => {
        if (!running.current) return;
        running.current.keep = keep;
        running.current.recorder.stop();
    };
    const start = async () => {
        setRefused('');
        try {
            const stream = await navigator.mediaDevices.getUserMedia({ audio: true });
            const recorder = new MediaRecorder(stream, { audioBitsPerSecond: BITS_PER_S });
            const parts: Blob[] = [];
            const state = { recorder, keep: false };
            recorder.ondataavailable = (e) => void parts.push(e.data);
            recorder.onstop = () => {
                stream.getTracks().forEach((t) => t.stop());
                running.current = null;
                setSeconds(null);
                if (state.keep) onSound(new Blob(parts, { type: recorder.mimeType }));
            };
            running.current = state;
            recorder.start();
            setSeconds(0);
        } catch {
            setRefused('This tablet lets nobody use its microphone here: allow it for this address, or type the note.');
        }
    };
    useEffect(() => {
        if (seconds === null) return;
        if (seconds >= LONGEST_S) stop(true);
        const clock = setTimeout(() => setSeconds((s) => (s === null ? null : s + 1)), 1000);
        return () => clearTimeout(clock);
    }, [seconds]);
    useEffect(() => () => stop(false), []);
    const speaking: Speaking | null = seconds === null ? null : { stop, seconds };
    return { start, speaking, refused };
}

/** Says a note instead of typing it. */
export function Speak({ busy, onSound }: { busy: boolean; onSound: (sound: Blob) => void }) {
    const { start, speaking, refused } = useMicrophone(onSound);
    if (!speaking) {
        return (
            <>
                <button type="button" className="btn min-h-14" disabled={busy} onClick={() => void start()}>
                    Speak
                </button>
                {refused && (
                    <p role="alert" className="basis-full font-semibold text-bad">
                        {refused}
                    </p>
                )}
            </>
        );
    }
    return (
        <>
            <span role="status" className="self-center font-semibold num">
                <span aria-hidden="true" className="text-bad">
                    ●{' '}
                </span>
                listening, {speaking.seconds} of {LONGEST_S} s
            </span>
            <button type="button" className="btn min-h-14" onClick={() => speaking.stop(false)}>
                Drop it
            </button>
            <button type="button" className="btn btn-main min-h-14" onClick={() => speaking.stop(true)}>
                Keep what I said
            </button>
        </>
    );
}
