import type { Operation } from './types';

/** When the timer of an operation is over; null while none runs. */
export function timerEnds(o: Operation): string | null {
    if (o.state !== 'open') return null;
    const at = o.proofs.findIndex((p, n) => p.kind === 'timer' && o.proven[n]?.answer != null);
    const ends = o.proven[at]?.answer?.ends;
    return typeof ends === 'string' ? ends : null;
}

/** Whether it only needs its time now. */
export function isResting(o: Operation, now: number = Date.now()): boolean {
    const ends = timerEnds(o);
    return ends !== null && Date.parse(ends) > now;
}
