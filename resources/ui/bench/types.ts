import type { Card, Problem, Schemas } from '../api/client';

export type Work = Schemas['Work'];
export type Operation = Schemas['Operation'];
export type ProofAsked = Schemas['ProofAsked'];
type Proven = Operation['proven'][number];
export const BENCHES = ['teardown', 'assembly', 'dispatch', 'returns'] as const;
export type BenchName = (typeof BENCHES)[number];
export type Answer = Record<string, unknown>;
/** A picture taken for a proof, and what it shows. */
export type Picture = { photo: Blob; place: string };
export type Send = (answer: Answer, note?: string, picture?: Picture) => void;
export type Move = 'start' | 'pause' | 'jam' | 'free' | 'note' | 'undo';

/** Of alternatives only those whose group nobody has done yet are offered; everything else always is. */
export function isWanted(o: Operation, work: Work): boolean {
    if (!o.alternative) return true;
    const done = new Set(work.operations.filter((p) => p.state === 'done').map((p) => p.code));
    return work.operations.some((p) =>
        p.afterAny.some((group) => group.includes(o.code) && !group.some((c) => done.has(c))),
    );
}

/**
 * The proof that is due. Where all are proven, by somebody who looked before, the last one is confirmed and the
 * operation is done with it.
 */
export function dueAt(o: Operation): number {
    const open = o.proven.findIndex((p) => p.open !== null);
    return open < 0 ? o.proofs.length - 1 : open;
}

/** Nothing of the job is left at this bench; other ways that were not taken do not count. */
export const isFinished = (work: Work): boolean => work.operations.every((o) => o.state === 'done' || o.alternative);

/** What the proofs of a bench need beside themselves: places, bolts and gauges, or the list of parts to look at. */
export type Material = { assembly?: Card['assembly']; teardown?: Card['teardown'] };

export type ProofProps = {
    number: string;
    bench: BenchName;
    operation: Operation;
    proof: ProofAsked;
    proven: Proven | undefined;
    material: Material;
    busy: boolean;
    problem: Problem | null;
    /** Sends the answer to the proof; the form around it is submitted by Enter, the pedal or the main button. */
    send: Send;
};

/** The form of the proof in hand, so that the main button and the pedal can send it from outside. */
export const PROOF_FORM = 'proof-in-hand';
