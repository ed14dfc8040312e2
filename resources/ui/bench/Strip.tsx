import { timerEnds } from './resting';
import { clockOf, useSecondsTo } from './proofs/Timer';
import { isWanted, type Operation, type Work } from './types';

const LOOK: Record<Operation['state'], string> = {
    done: 'bg-good',
    open: 'border-2 border-hand',
    waits: 'bg-rule',
    jammed: 'border-2 border-dashed border-bad',
};
const WORDS: Record<Operation['state'], string> = {
    done: 'done',
    open: 'may be done now',
    waits: 'waits',
    jammed: 'jams',
};

const hours = (h: number) =>
    h < 1 ? `${Math.round(h * 60)} min` : `${Math.floor(h)} h ${Math.round((h % 1) * 60)} min`;

/** Another way that nobody took and nobody needs any more is not shown. */
const isWorth = (o: Operation, work: Work) => o.state === 'done' || o.state === 'jammed' || isWanted(o, work);

/** How far it is: a tick for each operation, the one in hand taller. */
export function Strip({ work, at, onChoose }: { work: Work; at: string | null; onChoose: (code: string) => void }) {
    const needed = work.operations.filter((o) => !o.alternative || o.state === 'done');
    const done = needed.filter((o) => o.state === 'done').length;
    return (
        <div className="flex min-h-11 items-center gap-4 border-b border-rule px-2">
            <ol className="flex h-8 items-center gap-1" aria-label="Operations">
                {work.operations
                    .filter((o) => isWorth(o, work))
                    .map((o) => (
                        <li key={o.code}>
                            <button
                                type="button"
                                tabIndex={-1}
                                disabled={o.state === 'waits'}
                                title={`${o.name}: ${WORDS[o.state]}`}
                                aria-label={`${o.name}: ${WORDS[o.state]}`}
                                aria-current={o.code === at ? 'step' : undefined}
                                className={`block w-3 ${o.code === at ? 'h-8 bg-hand' : `h-5 ${LOOK[o.state]}`}`}
                                onClick={() => onChoose(o.code)}
                            />
                        </li>
                    ))}
            </ol>
            <p className="font-semibold num">
                {done} of {needed.length} · {hours(work.hoursLeft)} left
            </p>
            {work.operations.map((o) => {
                const ends = timerEnds(o);
                return ends && <Running key={o.code} operation={o} ends={ends} onChoose={onChoose} />;
            })}
        </div>
    );
}

function Running({
    operation: o,
    ends,
    onChoose,
}: {
    operation: Operation;
    ends: string;
    onChoose: (code: string) => void;
}) {
    const left = useSecondsTo(ends);
    return (
        <button type="button" className="min-h-11 font-semibold underline num" onClick={() => onChoose(o.code)}>
            {o.name}: {left > 0 ? clockOf(left) : 'time is up'}
        </button>
    );
}
