import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { beforeEach, describe, expect, it } from 'vitest';
import type { Card } from '../api/client';
import { drop, enqueue, forget, keepCard, keptCard, replay, waiting, type Outcome, type Waiting } from './offline';
import { canWait, laidOver } from './provisional';
import { benchCard, operation } from './testing';

const write = (n: number, change: Partial<Waiting> = {}): Waiting => ({
    key: `key-${n}`,
    number: 'C-1',
    bench: 'assembly',
    operation: 'clean',
    proof: 'done',
    answer: {},
    note: '',
    at: '2026-11-27T08:00:00.000Z',
    badge: '103',
    ...change,
});
const happened: Outcome = { sent: true, card: {} as Card };

beforeEach(async () => {
    await forget();
    globalThis.indexedDB = new IDBFactory();
});

describe('what waits for the network', () => {
    it('sends 500 entries once each and in their order, however often it is cut', async () => {
        for (let n = 0; n < 500; n++) await enqueue(write(n));
        const sent: string[] = [];
        let cut = 0;
        const send = (w: Waiting): Promise<Outcome> => {
            if (++cut % 97 === 0) return Promise.resolve({ sent: false, refused: null });
            sent.push(w.key);
            return Promise.resolve(happened);
        };
        for (let round = 0; round < 8; round++) await replay('103', send, () => undefined);
        expect(sent).toEqual(Array.from({ length: 500 }, (_, n) => `key-${n}`));
        expect(await waiting()).toEqual([]);
    });

    it('keeps what the server refuses, with its sentence, and goes on', async () => {
        await enqueue(write(1));
        await enqueue(write(2));
        const send = (w: Waiting): Promise<Outcome> =>
            Promise.resolve(w.key === 'key-1' ? { sent: false, refused: 'It is done already.' } : happened);
        await replay('103', send, () => undefined);
        const left = await waiting();
        expect(left.map((l) => [l.write.key, l.write.refused])).toEqual([['key-1', 'It is done already.']]);
        await replay('103', send, () => undefined);
        expect(await waiting()).toHaveLength(1);
        await drop(left[0]?.id ?? 0);
        expect(await waiting()).toEqual([]);
    });

    it('sends nothing of another badge', async () => {
        await enqueue(write(1, { badge: '107' }));
        await replay(
            '103',
            () => Promise.resolve(happened),
            () => expect.unreachable(),
        );
        expect(await waiting()).toHaveLength(1);
    });

    it('survives a reload: the card last seen and the queue are there again', async () => {
        await keepCard('assembly', benchCard([operation('clean')]));
        await enqueue(write(1));
        await forget();
        expect((await keptCard('assembly', 'C-1'))?.coreTag).toBe('C-1');
        expect((await keptCard('assembly', 'VY-26-0001'))?.coreTag).toBe('C-1');
        expect(await keptCard('assembly', 'C-9')).toBeUndefined();
        expect(await waiting()).toHaveLength(1);
    });
});

describe('what is shown meanwhile', () => {
    const card = benchCard([
        operation('clean'),
        operation('soak', {
            proofs: [
                { code: 'timer', kind: 'timer', of: 'soaking', minutes: 30 },
                { code: 'done', kind: 'done', of: '' },
            ],
        }),
        operation('pack', { after: ['clean', 'soak'], state: 'waits' }),
        operation('parts', { proofs: [{ code: 'fit', kind: 'fit', of: 'pack:C1' }] }),
        operation('valves', { proofs: [{ code: 'free', kind: 'free', of: 'valves', each: ['Boost valve'] }] }),
        operation('cage', {
            proofs: [{ code: 'lip', kind: 'orientation', of: 'cage', choices: ['wide', 'narrow'], right: 'wide' }],
        }),
    ]);
    const states = (c: Card) => c.assembly?.work.operations.slice(0, 4).map((o) => o.state);
    const last = (c: Card, code: string) => c.assembly?.work.operations.find((o) => o.code === code)?.state;

    it('lays the answer over the card and opens what comes after', () => {
        const once = laidOver(card, write(1));
        expect(states(once)).toEqual(['done', 'open', 'waits', 'open']);
        const timed = laidOver(once, write(2, { operation: 'soak', proof: 'timer' }));
        expect(timed.assembly?.work.operations[1]?.proven[0]?.answer?.ends).toBe('2026-11-27T08:30:00.000Z');
        const over = laidOver(timed, write(3, { operation: 'soak' }));
        expect(states(over)).toEqual(['done', 'done', 'open', 'open']);
        const undone = laidOver(over, write(4, { operation: 'clean', proof: undefined, move: 'undo', note: 'Dirt.' }));
        expect(states(undone)).toEqual(['open', 'done', 'waits', 'open']);
        expect(states(laidOver(card, write(5, { proof: undefined, move: 'jam', note: 'Fast.' })))).toEqual([
            'jammed',
            'open',
            'waits',
            'open',
        ]);
    });

    it('takes no valve that hangs and no part the wrong way round for done', () => {
        const tried = (how: string) =>
            laidOver(card, write(1, { operation: 'valves', proof: 'free', answer: { moves: { 'Boost valve': how } } }));
        expect([last(tried('falls'), 'valves'), last(tried('hangs'), 'valves')]).toEqual(['done', 'open']);
        const turned = (choice: string) =>
            laidOver(card, write(1, { operation: 'cage', proof: 'lip', answer: { choice } }));
        expect([last(turned('wide'), 'cage'), last(turned('narrow'), 'cage')]).toEqual(['done', 'open']);
    });

    it('lets wait what needs only hands, not the shelf', () => {
        expect(canWait(card, write(1))).toBe(true);
        expect(canWait(card, write(1, { operation: 'parts', proof: 'fit' }))).toBe(false);
        expect(canWait(card, write(1, { operation: 'nowhere' }))).toBe(false);
    });
});
