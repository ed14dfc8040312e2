import { useCallback, useEffect, useState } from 'react';
import { api, asProblem, isProblem, type Card, type Problem } from '../api/client';
import { uuid } from '../api/intent';
import { useWrite, type Result } from '../api/useWrite';
import { drop, enqueue, keepCard, replay, waiting, type Outcome, type Waiting } from './offline';
import { canWait, laidOver } from './provisional';
import type { Answer, BenchName, Move } from './types';

const CHANGED = 'yard:waiting';
const AGAIN_MS = 4000;

/** What the server says when it knows nobody, is busy or away: not an answer to the write itself. */
const NO_ANSWER = new Set([0, 401, 419, 423, 429, 502, 503, 504]);

function post(write: Waiting): Promise<Result<Card>> {
    const { number, operation } = write;
    const headers = { 'Idempotency-Key': write.key };
    const stamps = { note: write.note, at: write.at, sent: new Date().toISOString() };
    if (write.move) {
        const request = { params: { path: { number, operation } }, body: { move: write.move, ...stamps }, headers };
        return write.bench === 'teardown'
            ? api.POST('/units/{number}/teardown/operations/{operation}/moves', request)
            : api.POST('/units/{number}/assembly/operations/{operation}/moves', request);
    }
    const path = { number, operation, proof: write.proof ?? '' };
    const request = { params: { path }, body: { answer: write.answer ?? {}, ...stamps }, headers };
    return write.bench === 'teardown'
        ? api.POST('/units/{number}/teardown/operations/{operation}/proofs/{proof}', request)
        : api.POST('/units/{number}/assembly/operations/{operation}/proofs/{proof}', request);
}

/** Sends one waiting write; no network and no session are no answers. */
async function send(write: Waiting): Promise<Outcome> {
    try {
        const { data, error, response } = await post(write);
        if (data !== undefined && response.ok) return { sent: true, card: data };
        const refused = NO_ANSWER.has(response.status) ? null : asProblem(error, response.status).detail;
        return { sent: false, refused: refused ?? null };
    } catch {
        return { sent: false, refused: null };
    }
}

/** What waits on this tablet, kept up to date. */
function useWaiting(): { id: number; write: Waiting }[] {
    const [list, setList] = useState<{ id: number; write: Waiting }[]>([]);
    useEffect(() => {
        const read = () => void waiting().then(setList);
        read();
        addEventListener(CHANGED, read);
        return () => removeEventListener(CHANGED, read);
    }, []);
    return list;
}

const changed = () => dispatchEvent(new Event(CHANGED));

/** Sends what waits, when the network comes back and now and then. */
function useReplay(badge: string | null, onCard: (card: Card) => void, some: boolean) {
    const go = useCallback(async () => {
        if (badge === null) return;
        await replay(badge, send, (card) => onCard(card));
        changed();
    }, [badge, onCard]);
    useEffect(() => {
        if (!some) return;
        const now = () => void go();
        const clock = setInterval(now, AGAIN_MS);
        addEventListener('online', now);
        return () => {
            clearInterval(clock);
            removeEventListener('online', now);
        };
    }, [go, some]);
}

type Hands = { bench: BenchName; card: Card; badge: string | null; onCard: (card: Card) => void };

/** Proofs and moves of one unit at one bench; without a network they wait on the tablet, and are shown as they will be. */
export function useBench({ bench, card, badge, onCard }: Hands) {
    const { busy, problem, write } = useWrite();
    const list = useWaiting();
    const here = list.filter(({ write: w }) => w.number === card.coreTag && w.bench === bench);
    useEffect(() => void keepCard(bench, card), [bench, card]);
    useReplay(badge, onCard, list.length > 0);
    const shown = here.filter((w) => !w.write.refused).reduce((seen, w) => laidOver(seen, w.write), card);

    const waits = async (one: Waiting): Promise<Result<Card>> => {
        if (!canWait(card, one)) throw new TypeError('needs the network');
        await enqueue(one);
        changed();
        return { data: card, response: new Response(null, { status: 200 }) };
    };
    const act = (what: Pick<Waiting, 'operation' | 'note'> & Partial<Waiting>) => {
        const one = {
            key: uuid(),
            number: card.coreTag,
            bench,
            at: new Date().toISOString(),
            badge: badge ?? '',
            ...what,
        };
        // What comes after something that waits must wait too, or it would arrive before it.
        const call = async () =>
            here.length > 0 ? waits(one) : post(one).catch((e) => (isProblem(e) ? Promise.reject(e) : waits(one)));
        return write(call, onCard);
    };
    return {
        busy,
        problem: problem as Problem | null,
        shown,
        waiting: here,
        elsewhere: list.length - here.length,
        prove: (operation: string, proof: string, answer: Answer, note = '') => act({ operation, proof, answer, note }),
        move: (operation: string, move: Move, note = '') => act({ operation, move, note }),
        drop: (id: number) => void drop(id).then(changed),
    };
}
