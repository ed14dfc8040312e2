import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Card } from '../api/client';
import type { Answer, BenchName, Move } from './types';

/** One write of the bench that waits for the network. */
export type Waiting = {
    /** Its idempotency key: however often it is sent, it happens once. */
    key: string;
    number: string;
    bench: BenchName;
    operation: string;
    /** A proof with its answer, or a move. */
    proof?: string;
    answer?: Answer;
    move?: Move;
    /** A picture that shows it, and of what it is. */
    photo?: Blob;
    place?: string;
    /** What was said at the operation. */
    sound?: Blob;
    note: string;
    /** By this tablet's clock. */
    at: string;
    /** Whose hands they were: sent only while this badge is signed in. */
    badge: string;
    /** What the server said against it; it then waits for a person. */
    refused?: string;
};

interface Store extends DBSchema {
    cards: { key: string; value: Card };
    waiting: { key: number; value: Waiting };
}

let opened: Promise<IDBPDatabase<Store>> | null = null;

const store = () =>
    (opened ??= openDB<Store>('yard-bench', 1, {
        upgrade(db) {
            db.createObjectStore('cards');
            db.createObjectStore('waiting', { autoIncrement: true });
        },
    }));

/** Forgets the connection, so that a test can begin with an empty store. */
export async function forget(): Promise<void> {
    (await opened)?.close();
    opened = null;
}

export const keepCard = async (bench: BenchName, card: Card): Promise<void> => {
    await (await store()).put('cards', card, `${card.coreTag}/${bench}`);
};

/** The card as it was last seen here, with what waits laid over it. */
export async function keptCard(bench: BenchName, number: string): Promise<Card | undefined> {
    const db = await store();
    const direct = await db.get('cards', `${number}/${bench}`);
    if (direct) return direct;
    return (await db.getAll('cards')).find((c) => c.serial === number && c[bench]);
}

export const enqueue = async (write: Waiting): Promise<void> => {
    await (await store()).add('waiting', write);
};

export async function waiting(): Promise<{ id: number; write: Waiting }[]> {
    const db = await store();
    const [ids, writes] = await Promise.all([db.getAllKeys('waiting'), db.getAll('waiting')]);
    return ids.map((id, n) => ({ id, write: writes[n]! })); // eslint-disable-line @typescript-eslint/no-non-null-assertion -- the same transaction order
}

export const drop = async (id: number): Promise<void> => {
    await (await store()).delete('waiting', id);
};

/** What became of one write: it happened, it was refused, or there is still no answer. */
export type Outcome = { sent: true; card: Card } | { sent: false; refused: string | null };

/**
 * Sends what waits, in its order, each with the key it was given; one tab at a time. Stops at the first without an
 * answer. What the server refuses stays, with its sentence, until a person drops it; what hangs on it is refused too.
 */
export async function replay(
    badge: string,
    send: (write: Waiting) => Promise<Outcome>,
    done: (card: Card, write: Waiting) => void,
): Promise<void> {
    await alone(async () => {
        for (const { id, write } of await waiting()) {
            if (write.badge !== badge || write.refused) continue;
            const outcome = await send(write);
            if (outcome.sent) {
                await drop(id);
                done(outcome.card, write);
            } else if (outcome.refused === null) {
                return;
            } else {
                await (await store()).put('waiting', { ...write, refused: outcome.refused }, id);
            }
        }
    });
}

/** Two tabs of one tablet must not send the same queue. */
async function alone(work: () => Promise<void>): Promise<void> {
    if (!('locks' in navigator)) return work();
    await navigator.locks.request('yard-replay', { ifAvailable: true }, (lock) => (lock ? work() : undefined));
}
