import type { Card } from '../api/client';
import type { Operation } from './types';

/** An operation for tests: one proof, nothing before it. */
export function operation(code: string, change: Partial<Operation> = {}): Operation {
    const proofs = change.proofs ?? [{ code: 'done', kind: 'done' as const, of: '' }];
    return {
        code,
        name: `Operation ${code}`,
        after: [],
        afterAny: [],
        alternative: false,
        hours: 0.1,
        removes: [],
        state: 'open',
        waitsFor: [],
        barredBy: [],
        spoken: [],
        earlier: [],
        activity: null,
        reason: '',
        note: '',
        worked_s: 0,
        by: null,
        at: null,
        tabletAt: null,
        proven: proofs.map((p) => ({ code: p.code, answer: null, by: null, at: null, note: '', open: 'Missing.' })),
        ...change,
        proofs,
    };
}

/** A card at the assembly bench with these operations, as far as the bench reads it. */
export const benchCard = (operations: Operation[]): Card =>
    ({
        coreTag: 'C-1',
        serial: 'VY-26-0001',
        station: 'assembly',
        assembly: {
            work: { family: 'RD4', operations, hoursLeft: 1, longestPath: [], handover: [] },
            places: [],
            fasteners: [],
            gauges: [],
        },
    }) as unknown as Card; // the rest of a card is of no interest here
