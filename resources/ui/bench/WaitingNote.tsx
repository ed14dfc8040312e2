import { Mark } from '../kit/basics';
import type { Waiting } from './offline';

type Props = { waiting: { id: number; write: Waiting }[]; elsewhere: number; onDrop: (id: number) => void };

const what = (w: Waiting) => `${w.sound ? 'spoken note' : (w.move ?? w.proof ?? 'picture')} at ${w.operation}`;

/** What the server has not said yes to: how much waits, and what it refused, which a person must look at. */
export function WaitingNote({ waiting, elsewhere, onDrop }: Props) {
    const refused = waiting.filter(({ write }) => write.refused);
    const open = waiting.length - refused.length;
    if (waiting.length === 0 && elsewhere === 0) return null;
    return (
        <div role="status" className="border-l-4 border-warn bg-sheet px-3 py-1">
            {open > 0 && (
                <Mark kind="warn">
                    {open} {open === 1 ? 'entry waits' : 'entries wait'} for the network; provisional until they are
                    sent
                </Mark>
            )}
            {elsewhere > 0 && <p className="text-sm">{elsewhere} more on this tablet, of other units.</p>}
            <ul>
                {refused.map(({ id, write }) => (
                    <li key={id} className="flex flex-wrap items-center gap-x-3">
                        <Mark kind="bad">Refused: {what(write)}</Mark>
                        <span className="flex-1">
                            {write.refused} {write.answer && JSON.stringify(write.answer)} {write.note}
                        </span>
                        <button type="button" className="btn" onClick={() => onDrop(id)}>
                            I have seen it, drop it
                        </button>
                    </li>
                ))}
            </ul>
        </div>
    );
}
