import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import vectors from '../../../tests/fixtures/work-vectors.json';
import { available, missingBefore, reopened, unreachable, type Node } from './evaluate';

/** Any graph in which operations come after earlier ones. */
const graphs = fc
    .array(fc.tuple(fc.array(fc.nat(11), { maxLength: 3 }), fc.array(fc.nat(11), { maxLength: 3 })), {
        minLength: 1,
        maxLength: 12,
    })
    .map((raw): Node[] =>
        raw.map(([after, any], n) => {
            const earlier = (of: number[]) => [...new Set(of.filter((b) => b < n))].map((b) => `o${b}`);
            const group = earlier(any);
            return { code: `o${n}`, after: earlier(after), afterAny: group.length > 0 ? [group] : [] };
        }),
    );

describe('the evaluator of the tablets', () => {
    it('says what the core says', () => {
        for (const v of vectors) {
            const [done, jammed] = [new Set(v.done), new Set(v.jammed)];
            expect(available(v.operations, done, jammed)).toEqual(v.available);
            expect(unreachable(v.operations, done, jammed)).toEqual(v.unreachable);
            expect(reopened(v.operations, done, new Set(v.undo))).toEqual(v.reopened);
        }
        expect(vectors.length).toBe(200);
    });

    it('never offers what is not due, and finishes every graph', () => {
        fc.assert(
            fc.property(graphs, (nodes) => {
                const done = new Set<string>();
                for (let next = available(nodes, done, new Set()); next.length > 0;) {
                    const node = nodes.find((n) => n.code === next[0]);
                    if (!node) return false;
                    expect(missingBefore(node, done)).toEqual([]);
                    done.add(node.code);
                    next = available(nodes, done, new Set());
                }
                return done.size === nodes.length;
            }),
        );
    });

    it('opens again what stands on it and nothing else', () => {
        fc.assert(
            fc.property(graphs, fc.nat(11), (nodes, at) => {
                const done = new Set(nodes.map((n) => n.code));
                const undone = nodes[at % nodes.length]?.code ?? '';
                const fallen = new Set(reopened(nodes, done, new Set([undone])));
                const left = new Set([...done].filter((c) => c !== undone && !fallen.has(c)));
                // what is left is workable without it
                expect(nodes.filter((n) => left.has(n.code) && missingBefore(n, left).length > 0)).toEqual([]);
            }),
        );
    });

    it('is quick with 250 operations', () => {
        const nodes: Node[] = Array.from({ length: 250 }, (_, n) => ({
            code: `o${n}`,
            after: n === 0 ? [] : [`o${Math.floor((n - 1) / 2)}`],
            afterAny: n > 4 ? [[`o${n - 1}`, `o${n - 3}`]] : [],
        }));
        const half = new Set(nodes.slice(0, 120).map((n) => n.code));
        expect(available(nodes, half, new Set())).toContain('o120');
        expect(unreachable(nodes, half, new Set(['o121'])).length).toBeGreaterThan(0);
    });
});
