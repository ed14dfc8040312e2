/**
 * What may be done next in a graph of operations, and what opens again when something is undone. Knows nothing of the
 * trade; held against vectors that the core writes (tests/fixtures/work-vectors.json).
 */
export type Node = { code: string; after: string[]; afterAny: string[][] };
type Codes = ReadonlySet<string>;

/** What is missing before an operation: all of `after`, and of a group nobody of is done, all of it. */
export function missingBefore(node: Node, done: Codes): string[] {
    const groups = node.afterAny.filter((group) => !group.some((code) => done.has(code)));
    return [...new Set([...node.after.filter((code) => !done.has(code)), ...groups.flat()])];
}

/** Operations that may be done now, in the order of the list. */
export const available = (nodes: Node[], done: Codes, jammed: Codes): string[] =>
    nodes
        .filter((n) => !done.has(n.code) && !jammed.has(n.code) && missingBefore(n, done).length === 0)
        .map((n) => n.code);

/** Operations nobody can come to while the jammed ones stay. */
export function unreachable(nodes: Node[], done: Codes, jammed: Codes): string[] {
    const reached = new Set(done);
    for (let grown = true; grown;) {
        const next = available(nodes, reached, jammed);
        for (const code of next) reached.add(code);
        grown = next.length > 0;
    }
    return nodes.filter((n) => !reached.has(n.code) && !jammed.has(n.code)).map((n) => n.code);
}

/** What was done on top of these and no longer stands; what never was done is no reason to fall. */
export function reopened(nodes: Node[], done: Codes, undone: Codes): string[] {
    const kept = new Set<string>();
    const stands = (node: Node) =>
        node.after.every((code) => !done.has(code) || kept.has(code)) &&
        node.afterAny.every((group) => !group.some((c) => done.has(c)) || group.some((c) => kept.has(c)));
    const left = nodes.filter((n) => done.has(n.code) && !undone.has(n.code));
    for (let grown = true; grown;) {
        const more = left.filter((n) => !kept.has(n.code) && stands(n));
        for (const n of more) kept.add(n.code);
        grown = more.length > 0;
    }
    return left.filter((n) => !kept.has(n.code)).map((n) => n.code);
}
