import { Graph as Dag, layout } from '@dagrejs/dagre';
import { useMemo } from 'react';
import type { Operation, Work } from './types';

const NODE = { width: 168, height: 44 };
const WORDS: Record<Operation['state'], string> = { done: '● done', open: '▶ now', waits: '○ waits', jammed: '▲ jams' };

type Placed = { code: string; x: number; y: number };
type Edge = { key: string; points: { x: number; y: number }[]; any: boolean };

/** Where each operation goes: what comes before lies to the left. */
function placed(work: Work): { nodes: Placed[]; edges: Edge[]; width: number; height: number } {
    const dag = new Dag({ multigraph: true });
    dag.setGraph({ rankdir: 'LR', nodesep: 10, ranksep: 34, marginx: 8, marginy: 8 });
    dag.setDefaultEdgeLabel(() => ({}));
    for (const o of work.operations) dag.setNode(o.code, { ...NODE });
    const any = new Set<string>();
    for (const o of work.operations) {
        for (const before of o.after) dag.setEdge(before, o.code);
        for (const before of o.afterAny.flat()) {
            dag.setEdge(before, o.code);
            any.add(`${before}>${o.code}`);
        }
    }
    layout(dag);
    const size = dag.graph() as { width?: number; height?: number };
    return {
        nodes: work.operations.map((o) => ({ code: o.code, ...(dag.node(o.code) as { x: number; y: number }) })),
        edges: dag.edges().map((e) => ({
            key: `${e.v}>${e.w}`,
            points: (dag.edge(e) as { points: { x: number; y: number }[] }).points,
            any: any.has(`${e.v}>${e.w}`),
        })),
        width: size.width ?? 0,
        height: size.height ?? 0,
    };
}

/** What comes before what; the longest chain of what is left is drawn thick, what a jam bars is crossed out. */
export function Graph({ work, at, onChoose }: { work: Work; at: string | null; onChoose: (code: string) => void }) {
    const { nodes, edges, width, height } = useMemo(() => placed(work), [work]);
    const path = new Set(work.longestPath);
    const of = new Map(work.operations.map((o) => [o.code, o]));
    const onPath = (key: string) => key.split('>').every((code) => path.has(code));
    return (
        <div className="overflow-x-auto p-2">
            <svg
                width={width}
                height={height}
                viewBox={`0 0 ${width} ${height}`}
                role="group"
                aria-label="Order of the operations"
            >
                {edges.map((e) => (
                    <polyline
                        key={e.key}
                        points={e.points.map((p) => `${p.x},${p.y}`).join(' ')}
                        fill="none"
                        stroke={onPath(e.key) ? 'var(--hand)' : 'var(--frame)'}
                        strokeWidth={onPath(e.key) ? 3 : 1.4}
                        strokeDasharray={e.any ? '6 4' : undefined}
                    />
                ))}
                {nodes.map((n) => {
                    const o = of.get(n.code);
                    return (
                        o && <Box key={n.code} operation={o} x={n.x} y={n.y} lit={n.code === at} onChoose={onChoose} />
                    );
                })}
            </svg>
            <p className="text-sm text-faint">
                Thick: the longest chain of what is left. Dashed: one of several ways. Crossed: out of reach while
                something jams.
            </p>
        </div>
    );
}

type BoxProps = { operation: Operation; x: number; y: number; lit: boolean; onChoose: (code: string) => void };

function Box({ operation: o, x, y, lit, onChoose }: BoxProps) {
    const [w, h] = [NODE.width, NODE.height];
    const barred = o.barredBy.length > 0;
    return (
        <foreignObject x={x - w / 2} y={y - h / 2} width={w} height={h}>
            <button
                type="button"
                disabled={o.state === 'waits'}
                onClick={() => onChoose(o.code)}
                className={`h-full w-full overflow-hidden border-2 px-1 text-left text-xs leading-tight ${
                    lit ? 'border-hand bg-sheet font-semibold' : 'border-frame bg-paper'
                } ${barred ? 'line-through' : ''}`}
            >
                <span className="text-faint">{WORDS[o.state]}</span> {o.name}
            </button>
        </foreignObject>
    );
}
