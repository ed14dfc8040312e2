import { useState } from 'react';
import { Choice } from '../../kit/basics';

type Props = {
    name: string;
    count: number;
    /** From healthy to worst. */
    conditions: string[];
    /** From the piston outwards; empty where nobody has graded the plate yet. */
    plates: string[];
    onPlates: (plates: string[]) => void;
};

/**
 * The pack as it lies, from the piston to the backing plate: take a word, touch the plates it is true of. How far a
 * plate is gone shows as its hatching, and as its word.
 */
export function BurnMap({ name, count, conditions, plates, onPlates }: Props) {
    const [word, setWord] = useState('');
    const all = Array.from({ length: count }, (_, n) => plates[n] ?? '');
    const paint = (n: number) => word && onPlates(all.map((p, k) => (k === n ? word : p)));
    return (
        <fieldset className="flex flex-col gap-2">
            <legend className="text-sm font-semibold text-faint">{name}, plate by plate</legend>
            <Choice label="This word" value={word || null} values={conditions} onChange={setWord} />
            <div className="flex items-stretch gap-1 overflow-x-auto">
                <End side="left">piston</End>
                {all.map((plate, n) => (
                    <button
                        key={n}
                        type="button"
                        aria-label={`Plate ${n + 1} of ${count}: ${plate || 'not graded'}`}
                        className="flex min-w-11 flex-1 flex-col items-center border border-rule bg-sheet"
                        onClick={() => paint(n)}
                    >
                        <span className="num">{n + 1}</span>
                        <Face grade={conditions.indexOf(plate)} of={conditions.length} />
                        <span className="min-h-8 px-0.5 text-xs leading-tight">{plate || '–'}</span>
                    </button>
                ))}
                <End side="right">backing plate</End>
            </div>
            <button
                type="button"
                className="btn self-start"
                disabled={word === ''}
                onClick={() => onPlates(all.map(() => word))}
            >
                {word ? `All are ${word}` : 'All alike: take a word first'}
            </button>
        </fieldset>
    );
}

function End({ side, children }: { side: 'left' | 'right'; children: string }) {
    return (
        <span className={`w-14 self-center text-sm text-faint ${side === 'left' ? 'text-right' : ''}`}>{children}</span>
    );
}

/** The lining seen from the side: the denser its hatching the further it is gone; not graded it is dashed. */
function Face({ grade, of }: { grade: number; of: number }) {
    const lines = grade < 0 ? 0 : Math.round((grade / Math.max(1, of - 1)) * 11);
    return (
        <svg viewBox="0 0 20 60" className="h-12 w-full max-w-9" aria-hidden="true" preserveAspectRatio="none">
            <rect
                x="2"
                y="1"
                width="16"
                height="58"
                fill="var(--sheet)"
                stroke="var(--ink)"
                strokeDasharray={grade < 0 ? '3 3' : undefined}
            />
            {Array.from({ length: lines }, (_, n) => (
                <path
                    key={n}
                    d={`M2 ${((n + 1) * 58) / (lines + 1) + 4} L18 ${((n + 1) * 58) / (lines + 1) - 3}`}
                    stroke="var(--ink)"
                    strokeWidth={1 + grade * 0.5}
                />
            ))}
        </svg>
    );
}
