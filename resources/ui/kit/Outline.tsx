import type { SVGAttributes } from 'react';
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

type Noted = { bad: number; seen: number; photos: number };
type OutlineProps = {
    drawing: Drawing;
    chosen: string | null;
    onChoose: (code: string) => void;
    notes: Record<string, Noted>;
};

/** The unit seen from its side, drawn from the catalog. Each place is a button: tapped, it shows what belongs there. */
export function Outline({ drawing, chosen, onChoose, notes }: OutlineProps) {
    return (
        <svg
            viewBox={`0 0 ${drawing.width} ${drawing.height}`}
            role="group"
            aria-label="The unit from its side; choose a place"
            className="max-h-72 w-full"
        >
            {drawing.places.map((p) => (
                <PlaceButton
                    key={p.code}
                    place={p}
                    chosen={p.code === chosen}
                    noted={notes[p.code] ?? { bad: 0, seen: 0, photos: 0 }}
                    onChoose={() => onChoose(p.code)}
                />
            ))}
        </svg>
    );
}

const spoken = (place: Place, n: Noted) =>
    [
        place.name,
        n.bad > 0 && `${n.bad} missing or damaged`,
        n.seen > 0 && `${n.seen} noted`,
        n.photos > 0 && `${n.photos} ${n.photos === 1 ? 'picture' : 'pictures'}`,
    ]
        .filter(Boolean)
        .join(', ');

type PlaceButtonProps = { place: Place; chosen: boolean; noted: Noted; onChoose: () => void };

function PlaceButton({ place, chosen, noted, onChoose }: PlaceButtonProps) {
    const words = spoken(place, noted);
    const look = chosen
        ? { fill: 'var(--enamel)', fillOpacity: 0.9, stroke: 'var(--hand)', strokeWidth: 4 }
        : { fill: 'var(--sheet)', stroke: 'var(--edge)', strokeWidth: 2 };
    return (
        <g
            role="button"
            tabIndex={0}
            aria-pressed={chosen}
            aria-label={words}
            className="cursor-pointer"
            onClick={onChoose}
            onKeyDown={(e) => {
                if (e.key === 'Enter' || e.key === ' ') {
                    e.preventDefault();
                    onChoose();
                }
            }}
        >
            <title>{words}</title>
            <ShapeOf shape={place.shape} {...look} />
            <rect {...grown(place.shape)} fill="transparent" />
            <NotedMark at={centre(place.shape)} noted={noted} chosen={chosen} />
        </g>
    );
}

function NotedMark({ at: [x, y], noted, chosen }: { at: readonly [number, number]; noted: Noted; chosen: boolean }) {
    if (noted.bad + noted.seen === 0) return null;
    const fine = chosen ? 'var(--enamel-ink)' : 'var(--good)';
    return (
        <text
            x={x}
            y={y + 6}
            textAnchor="middle"
            fontSize={18}
            fontWeight={700}
            fill={noted.bad > 0 ? 'var(--bad)' : fine}
            aria-hidden="true"
        >
            {noted.bad > 0 ? '▲' : '●'}
        </text>
    );
}

type Look = Pick<SVGAttributes<SVGElement>, 'fill' | 'fillOpacity' | 'stroke' | 'strokeWidth'>;

function ShapeOf({ shape, ...look }: { shape: Place['shape'] } & Look) {
    if (shape.kind === 'polygon')
        return <polygon points={shape.points?.map((q) => q.join(',')).join(' ')} strokeLinejoin="round" {...look} />;
    if (shape.kind === 'circle') return <circle cx={shape.x} cy={shape.y} r={shape.r} {...look} />;
    return <rect x={shape.x} y={shape.y} width={shape.w} height={shape.h} rx={3} {...look} />;
}

/** The same drawing as a picture to choose by: shapes only, nothing to press. */
export function OutlinePicture({ drawing }: { drawing: Drawing }) {
    const line = { fill: 'var(--paper)', stroke: 'var(--edge)', strokeWidth: 4 };
    return (
        <svg viewBox={`0 0 ${drawing.width} ${drawing.height}`} aria-hidden="true" className="h-20 w-full">
            {drawing.places.map(({ code, shape }) => (
                <ShapeOf key={code} shape={shape} {...line} />
            ))}
        </svg>
    );
}
