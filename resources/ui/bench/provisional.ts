import type { Card } from '../api/client';
import { available, missingBefore, reopened, unreachable, type Node } from './evaluate';
import type { Operation, ProofAsked } from './types';
import type { Waiting } from './offline';

/** Proofs that only the server can take: parts off its shelf, a second person's PIN, which metals go together. */
const NEEDS_NETWORK = new Set(['fit', 'sign', 'metal', 'patch', 'skilled']);

/** What is kept beside the work and proves nothing: something said, a picture of no proof. */
const saysNothing = (write: Waiting): boolean =>
    write.sound !== undefined || (write.photo !== undefined && write.proof === undefined);

export const canWait = (card: Card, write: Waiting): boolean => {
    const proof = operationOf(card, write)?.proofs.find((p) => p.code === write.proof);
    return saysNothing(write) || write.move !== undefined || (proof !== undefined && !NEEDS_NETWORK.has(proof.kind));
};

const operationOf = (card: Card, write: Waiting): Operation | undefined =>
    card[write.bench]?.work.operations.find((o) => o.code === write.operation);

/** The card as it will be if the server agrees: what waits, laid over what was last seen. */
export function laidOver(card: Card, write: Waiting): Card {
    const section = card[write.bench];
    if (!section || saysNothing(write)) return card;
    const changed = section.work.operations.map((o) => (o.code === write.operation ? touched(o, write) : o));
    const work = { ...section.work, operations: settled(changed, write) };
    return { ...card, [write.bench]: { ...section, work } };
}

function touched(o: Operation, write: Waiting): Operation {
    if (write.move) return moved(o, write);
    const proven = o.proven.map((p, n) => (p.code === write.proof ? answered(o, n, write) : p));
    const over = proven.every((p) => p.open === null);
    return { ...o, proven, activity: over ? 'done' : 'running', state: over ? 'done' : o.state, by: '', at: write.at };
}

function answered(o: Operation, n: number, write: Waiting): Operation['proven'][number] {
    const asked = o.proofs[n];
    return {
        code: write.proof ?? '',
        by: null,
        at: write.at,
        note: write.note,
        answer: { ...write.answer, ...(asked?.kind === 'timer' && { ends: endsOf(asked, write) }) },
        open: provesNothing(asked, write) ? 'Kept; it is not how it belongs.' : null,
    };
}

/** What the tablet itself can tell: a part the wrong way round, a valve that hangs. */
function provesNothing(asked: ProofAsked | undefined, { answer }: Waiting): boolean {
    if (asked?.kind === 'orientation') return answer?.choice !== asked.right;
    return asked?.kind === 'free' && Object.values(answer?.moves ?? {}).some((how) => how !== 'falls');
}

/** When a timer that was started without a network is over; one begun before, elsewhere, is over at once. */
function endsOf(asked: ProofAsked, write: Waiting): string {
    const minutes = write.answer?.already ? 0 : (asked.minutes ?? 0);
    return new Date(Date.parse(write.at) + minutes * 60_000).toISOString();
}

const ACTIVITY = { start: 'running', pause: 'paused', jam: 'jammed', free: 'open', undo: 'open' } as const;

function moved(o: Operation, write: Waiting): Operation {
    if (write.move === 'note' || !write.move) return { ...o, note: write.note };
    const again =
        write.move === 'undo' ? o.proven.map((p) => ({ ...p, answer: null, open: 'To be proven again.' })) : o.proven;
    const state = write.move === 'jam' ? 'jammed' : write.move === 'undo' ? 'open' : o.state;
    return { ...o, proven: again, activity: ACTIVITY[write.move], state, reason: write.note };
}

/** The states of all operations, reckoned anew by the evaluator. */
function settled(operations: Operation[], write: Waiting): Operation[] {
    const nodes: Node[] = operations;
    const before = new Set(operations.filter((o) => o.state === 'done').map((o) => o.code));
    if (write.move === 'undo') before.add(write.operation);
    const fallen = new Set(
        write.move === 'undo' ? [write.operation, ...reopened(nodes, before, new Set([write.operation]))] : [],
    );
    const done = new Set([...before].filter((code) => !fallen.has(code)));
    const jammed = new Set(operations.filter((o) => o.activity === 'jammed').map((o) => o.code));
    const open = new Set(available(nodes, done, jammed));
    const barred = new Set(unreachable(nodes, done, jammed));
    return operations.map((o) => ({
        ...o,
        state: done.has(o.code) ? 'done' : jammed.has(o.code) ? 'jammed' : open.has(o.code) ? 'open' : 'waits',
        waitsFor: done.has(o.code) ? [] : missingBefore(o, done),
        barredBy: barred.has(o.code) ? [...jammed] : [],
    }));
}
