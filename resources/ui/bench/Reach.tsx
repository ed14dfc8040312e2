import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, type Schemas } from '../api/client';
import { Mark, Select } from '../kit/basics';
import { Fetched } from '../kit/Fetched';
import { Drawing } from './Drawing';
import { useSection } from './section';
import type { Work } from './types';

type Found = Schemas['Reach'];
type Props = { number: string; work: Work; onChoose: (code: string) => void };

const inHours = (h: number) =>
    h < 1 ? `${Math.round(h * 60)} min` : `${Math.floor(h)} h ${Math.round((h % 1) * 60)} min`;

const ofState = (work: Work, state: string) => work.operations.filter((o) => o.state === state);

/** Asked anew whenever something was done or jams. */
const useReach = (number: string, work: Work, part: string) =>
    useQuery({
        queryKey: ['reach', number, part, ...['done', 'jammed'].map((s) => ofState(work, s).map((o) => o.code))],
        queryFn: () =>
            answer(api.GET('/units/{number}/teardown/reach', { params: { path: { number }, query: { part } } })),
        enabled: part !== '',
    });

/** Names a part: the fewest operations that lead to it, what must be renewed on the way, hours, and where. */
export function Reach({ number, work, onChoose }: Props) {
    const [part, setPart] = useState('');
    const parts = useSection(work.family).data?.parts ?? [];
    const goes = new Set(work.operations.flatMap((o) => o.removes));
    const query = useReach(number, work, part);
    const off = ofState(work, 'done').flatMap((o) => o.removes);
    return (
        <div className="grid gap-3 p-2 lg:grid-cols-[1.4fr_1fr]">
            <Drawing
                family={work.family}
                states={{
                    ...Object.fromEntries(off.map((p) => [p, 'off' as const])),
                    ...Object.fromEntries(
                        (query.data?.operations ?? []).flatMap((o) => o.parts).map((p) => [p, 'next' as const]),
                    ),
                    ...(part && { [part]: 'hand' as const }),
                }}
                follow={part ? [part] : []}
                onPart={(p) => goes.has(p) && setPart(p)}
                className="h-80 border border-rule bg-sheet"
            />
            <div>
                <Select
                    label="The part to come to; touch it in the drawing or choose"
                    value={part}
                    onChange={setPart}
                    empty="which part?"
                    options={parts.filter((p) => goes.has(p.code)).map((p) => ({ value: p.code, text: p.name }))}
                />
                {part && (
                    <Fetched query={query} what="the way to it">
                        {(found) => <Way found={found} onChoose={onChoose} />}
                    </Fetched>
                )}
            </div>
        </div>
    );
}

function Way({ found, onChoose }: { found: Found; onChoose: (code: string) => void }) {
    const [first] = found.operations;
    if (!found.possible) {
        return <Mark kind="bad">Out of reach while these jam: {found.because.map((o) => o.name).join(', ')}</Mark>;
    }
    if (!first) return <Mark kind="good">It is off already.</Mark>;
    return (
        <>
            <p className="font-head text-5xl num">{inHours(found.hours)}</p>
            <p>
                {found.inVehicle ? (
                    <Mark kind="good">can be done in the vehicle</Mark>
                ) : (
                    <Mark kind="warn">the unit must be out</Mark>
                )}
            </p>
            {!found.optimal && <p>At best {inHours(found.bound)}; the search was cut off there.</p>}
            <ol className="my-2 list-decimal pl-6">
                {found.operations.map((o) => (
                    <li key={o.code}>
                        {o.name} <span className="text-faint num">{inHours(o.hours)}</span>
                    </li>
                ))}
            </ol>
            {found.renews.length > 0 && (
                <p>
                    Renewed on the way: <strong>{found.renews.join(', ')}</strong>
                </p>
            )}
            <button type="button" className="btn mt-2" onClick={() => onChoose(first.code)}>
                Begin: {first.name}
            </button>
        </>
    );
}
