import { useQuery } from '@tanstack/react-query';
import { answer, api, type Schemas } from '../api/client';

export type Section = Schemas['Section'];
export type Part = Section['parts'][number];
export type Shape = Part['shapes'][number];
export type Box = { x: number; y: number; w: number; h: number };

/** The section drawing of a family; it changes only with the catalog. */
export const useSection = (family: string) =>
    useQuery({
        queryKey: ['section', family],
        queryFn: () => answer(api.GET('/catalog/families/{code}/section', { params: { path: { code: family } } })),
        staleTime: 600_000,
        retry: false,
        gcTime: Infinity,
    });

/** Points of a shape with y downwards, as a picture counts it. */
export const placed = (shape: Shape): [number, number][] => shape.points.map(([x, y]) => [x ?? 0, -(y ?? 0)]);

/** What a shape takes up of the picture; of what is cut only, so that the silhouette below does not count. */
export function boxOf(shapes: Shape[]): Box {
    const all = shapes
        .filter((s) => s.as !== 'outside')
        .flatMap((s) => {
            const points = placed(s);
            const [c, edge] = points;
            if (s.form !== 'circle' || !c || !edge) return points;
            const r = edge[0] - c[0];
            return [
                [c[0] - r, c[1] - r],
                [c[0] + r, c[1] + r],
            ] as [number, number][];
        });
    const [x, y] = [all.map((p) => p[0]), all.map((p) => p[1])];
    const [x0, y0] = [Math.min(...x), Math.min(...y)];
    return { x: x0, y: y0, w: Math.max(...x) - x0, h: Math.max(...y) - y0 };
}

/** The order in which arrow keys walk: along the unit, then outwards. */
export const inOrder = (parts: Part[]): Part[] =>
    [...parts].sort((a, b) => {
        const [one, other] = [boxOf(a.shapes), boxOf(b.shapes)];
        return one.x - other.x || other.y - one.y;
    });

/** Room between two parts that are drawn apart, in millimetres. */
const APART = 11;

/** Whether a part holds the others: it stays where it is when they are drawn apart. */
const holds = (p: Part) => p.kind === 'housing' || p.kind === 'below' || p.code === 'case';

/** The parts slid along the axis, in the order they sit in, so that each is seen whole. */
export function apart(section: Section): Section {
    const middle = (p: Part) => boxOf(p.shapes).x + boxOf(p.shapes).w / 2;
    const inside = section.parts.filter((p) => !holds(p)).sort((a, b) => middle(a) - middle(b));
    const step = new Map(inside.map((p, n) => [p.code, (n - (inside.length - 1) / 2) * APART]));
    const moved = (shape: Shape, by: number): Shape => ({
        ...shape,
        points: shape.points.map(([x = 0, y = 0]) => [x + by, y]),
    });
    return {
        ...section,
        parts: section.parts.map((p) => ({ ...p, shapes: p.shapes.map((s) => moved(s, step.get(p.code) ?? 0)) })),
    };
}

/** Where a leader ends: on the material of the part. */
function anchorOf(part: Part): { x: number; y: number } {
    const shapes = part.shapes.filter((s) => s.as !== 'outside');
    const cut = shapes.find((s) => s.as === 'cut' && s.form === 'outline');
    const points = cut && cut.points.length > 6 ? placed(cut) : [];
    const [a, b] = [points[Math.floor(points.length / 4)], points[Math.floor(points.length / 4) - 1]];
    if (a && b) return { x: (a[0] + b[0]) / 2, y: (a[1] + b[1]) / 2 - 2 };
    const box = boxOf(shapes);
    return { x: box.x + box.w / 2, y: box.y + box.h * 0.2 };
}

/** Width of a letter of a label, as the drawing counts. */
const LETTER = 5.4;

export type Label = { code: string; name: string; x: number; y: number; at: number };

/** Labels above the drawing, in order and apart, so that leaders never cross. */
export function labelsOf(parts: Part[], view: Box): Label[] {
    const labels = parts.map((p) => ({ code: p.code, name: p.name, ...anchorOf(p), at: 0 })).sort((a, b) => a.x - b.x);
    const room = labels.map((l) => l.name.length * LETTER + 14);
    let free = view.x;
    for (const [n, label] of labels.entries()) {
        const half = (room[n] ?? 0) / 2;
        const after = room.slice(n + 1).reduce((sum, r) => sum + r, 0);
        label.at = Math.max(free + half, Math.min(label.x, view.x + view.w - half - after));
        free = label.at + half;
    }
    return labels;
}
