import { useCallback, useEffect, useState } from 'react';
import { isProblem, type Card, type Problem } from '../api/client';
import { uuid } from '../api/intent';
import { useWrite, type Result } from '../api/useWrite';
import { deliver, deliverWaiting } from './deliver';
import { drop, enqueue, keepCard, replay, waiting, type Waiting } from './offline';
import { canWait, laidOver } from './provisional';
import type { Answer, BenchName, Move, Picture } from './types';

const CHANGED = 'yard:waiting';
const AGAIN_MS = 4000;

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
        await replay(badge, deliverWaiting, (card) => onCard(card));
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

/** Proofs and moves of one unit at one bench; without a network they wait here, shown as they will be. */
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
            here.length > 0 ? waits(one) : deliver(one).catch((e) => (isProblem(e) ? Promise.reject(e) : waits(one)));
        return write(call, onCard);
    };
    return {
        busy,
        problem: problem as Problem | null,
        shown,
        waiting: here,
        elsewhere: list.length - here.length,
        prove: (operation: string, proof: string, answer: Answer, note = '', picture?: Picture) =>
            act({ operation, proof, answer, note, ...picture }),
        speak: (operation: string, sound: Blob) => act({ operation, note: '', sound }),
        picture: (operation: string, picture: Picture) => act({ operation, note: '', ...picture }),
        move: (operation: string, move: Move, note = '') => act({ operation, move, note }),
        drop: (id: number) => void drop(id).then(changed),
    };
}
