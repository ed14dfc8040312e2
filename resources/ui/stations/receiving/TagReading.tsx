import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { answer, api, type Schemas } from '../../api/client';
import { Mark } from '../../kit/basics';

/** Every unit a stamped code can mean; a tag is a clue, never an answer. */
export function TagReading({
    text,
    onFamily,
    family,
}: {
    text: string;
    onFamily?: (code: string) => void;
    family?: string;
}) {
    const [settled, setSettled] = useState(text);
    useEffect(() => {
        const timer = setTimeout(() => setSettled(text.trim()), 300);
        return () => clearTimeout(timer);
    }, [text]);
    const reading = useQuery({
        queryKey: ['tag', settled],
        queryFn: () => answer(api.GET('/identification/tag', { params: { query: { text: settled } } })),
        enabled: settled.length >= 4 && settled.length <= 40,
    });
    if (!reading.data || settled.length < 4) return null;
    if (reading.data.candidates.length === 0)
        return <p className="text-sm text-faint">No family stamps its codes like this.</p>;
    return (
        <ul className="text-sm">
            {reading.data.candidates.map((c, i) => (
                <Candidate key={i} onFamily={onFamily} family={family} c={c} />
            ))}
        </ul>
    );
}

function Candidate({
    onFamily,
    family,
    c,
}: {
    onFamily?: (code: string) => void;
    family?: string;
    c: Schemas['TagReading']['candidates'][number];
}) {
    return (
        <li className="flex flex-wrap items-center gap-x-2">
            <Mark kind={c.yearFits ? 'idle' : 'warn'}>{c.variant}</Mark>{' '}
            <span>
                {c.name}, made {c.made}; the year can be {c.years.join(' or ')}
                {!c.yearFits && ', which does not fit: swapped tag?'}
            </span>
            {onFamily && c.family !== family && (
                <button type="button" className="min-h-11 px-2 underline" onClick={() => onFamily(c.family)}>
                    take {c.family}
                </button>
            )}
        </li>
    );
}
