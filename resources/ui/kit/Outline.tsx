import type { Schemas } from '../api/client';

type Place = Schemas['OutlinePlace'];
type Drawing = { width: number; height: number; places: Place[] };

const centre = (s: Place['shape']): [number, number] =>
    s.kind === 'polygon'
        ? [mean(s.points ?? [], 0), mean(s.points ?? [], 1)]
        : [(s.x ?? 0) + (s.w ?? 0) / 2, (s.y ?? 0) + (s.h ?? 0) / 2];

const mean = (points: number[][], axis: 0 | 1) =>
    points.reduce((sum, p) => sum + (p[axis] ?? 0), 0) / Math.max(1, points.length);

/** A finger needs this much of the picture, however small the part is. */
const TARGET = 60;

/** Two corners of what a place takes up. */
function cornersOf({ points, x = 0, y = 0, w, h, r }: Place['shape']): number[][] {
    if (points) return points;
    return r === undefined
        ? [
              [x, y],
              [x + (w ?? 0), y + (h ?? 0)],
          ]
        : [
              [x - r, y - r],
              [x + r, y + r],
          ];
}

function grown(shape: Place['shape']) {
    const corners = cornersOf(shape);
    const span = (axis: 0 | 1) => {
        const at = corners.map((c) => c[axis] ?? 0);
        const size = Math.max(...at) - Math.min(...at);
        return { from: Math.min(...at) - Math.max(0, TARGET - size) / 2, size: Math.max(TARGET, size) };
    };
    const [across, down] = [span(0), span(1)];
    return { x: across.from, y: down.from, width: across.size, height: down.size };
}

/** The unit seen from its side, drawn from the catalog. Each place is a button: tapped, it shows what belongs there. */
export function Outline({
    drawing,
    chosen,
    onChoose,
    notes,
}: {
    drawing: Drawing;
    chosen: string | null;
    onChoose: (code: string) => void;
    notes: Record<string, { bad: number; seen: number; photos: number }>;
}) {
    return (
        <svg
            viewBox={`0 0 ${drawing.width} ${drawing.height}`}
            role="group"
            aria-label="The unit from its side; choose a place"
            className="max-h-72 w-full"
        >
            {drawing.places.map((p) => {
                const n = notes[p.code] ?? { bad: 0, seen: 0, photos: 0 };
                const [x, y] = centre(p.shape);
                const mark = n.bad > 0 ? '▲' : n.seen > 0 ? '●' : '';
                const common = {
                    fill: p.code === chosen ? 'var(--enamel)' : 'var(--sheet)',
                    fillOpacity: p.code === chosen ? 0.9 : 1,
                    stroke: p.code === chosen ? 'var(--hand)' : 'var(--edge)',
                    strokeWidth: p.code === chosen ? 4 : 2,
                };
                const words = [
                    p.name,
                    n.bad > 0 && `${n.bad} missing or damaged`,
                    n.seen > 0 && `${n.seen} noted`,
                    n.photos > 0 && `${n.photos} ${n.photos === 1 ? 'picture' : 'pictures'}`,
                ]
                    .filter(Boolean)
                    .join(', ');
                return (
                    <g
                        key={p.code}
                        role="button"
                        tabIndex={0}
                        aria-pressed={p.code === chosen}
                        aria-label={words}
                        className="cursor-pointer"
                        onClick={() => onChoose(p.code)}
                        onKeyDown={(e) => {
                            if (e.key === 'Enter' || e.key === ' ') {
                                e.preventDefault();
                                onChoose(p.code);
                            }
                        }}
                    >
                        <title>{words}</title>
                        {p.shape.kind === 'polygon' && (
                            <polygon
                                points={(p.shape.points ?? []).map((q) => q.join(',')).join(' ')}
                                strokeLinejoin="round"
                                {...common}
                            />
                        )}
                        {p.shape.kind === 'rect' && (
                            <rect x={p.shape.x} y={p.shape.y} width={p.shape.w} height={p.shape.h} rx={3} {...common} />
                        )}
                        <rect {...grown(p.shape)} fill="transparent" />
                        {p.shape.kind === 'circle' && (
                            <circle cx={p.shape.x} cy={p.shape.y} r={p.shape.r} {...common} />
                        )}
                        {mark && (
                            <text
                                x={x}
                                y={y + 6}
                                textAnchor="middle"
                                fontSize={18}
                                fontWeight={700}
                                fill={
                                    n.bad > 0 ? 'var(--bad)' : p.code === chosen ? 'var(--enamel-ink)' : 'var(--good)'
                                }
                                aria-hidden="true"
                            >
                                {mark}
                            </text>
                        )}
                    </g>
                );
            })}
        </svg>
    );
}

/** The same drawing as a picture to choose by: shapes only, nothing to press. */
export function OutlinePicture({ drawing }: { drawing: Drawing }) {
    const line = { fill: 'var(--paper)', stroke: 'var(--edge)', strokeWidth: 4 };
    return (
        <svg viewBox={`0 0 ${drawing.width} ${drawing.height}`} aria-hidden="true" className="h-20 w-full">
            {drawing.places.map(({ code, shape }) =>
                shape.kind === 'polygon' ? (
                    <polygon key={code} points={shape.points?.map((q) => q.join(',')).join(' ')} {...line} />
                ) : shape.kind === 'rect' ? (
                    <rect key={code} x={shape.x} y={shape.y} width={shape.w} height={shape.h} rx={3} {...line} />
                ) : (
                    <circle key={code} cx={shape.x} cy={shape.y} r={shape.r} {...line} />
                ),
            )}
        </svg>
    );
}
