/** A point of a control chart: what it says when pointed at, and whether it ends a pattern that is no chance. */
type ChartPoint = { value: number; title: string; flagged: boolean };
type Level = { at: number | null | undefined; kind: 'limit' | 'usual' | 'centre' };
type Props = { label: string; points: ChartPoint[]; levels: Level[]; height?: number };
type Scale = { x: (n: number) => number; y: (v: number) => number };

const WIDTH = 960;
const LEFT = 70;
const STROKES = { limit: 'stroke-bad', usual: 'stroke-warn', centre: 'stroke-edge' };

const drawn = (levels: Level[]) => levels.flatMap(({ at, kind }) => (typeof at === 'number' ? [{ at, kind }] : []));

function scaleOf({ points, levels, height = 320 }: Props): Scale {
    const all = [...points.map((p) => p.value), ...drawn(levels).map((l) => l.at)];
    const [least, most] = [Math.min(...all), Math.max(...all)];
    const pad = (most - least || 1) * 0.06;
    return {
        x: (n) => LEFT + 10 + (n * (WIDTH - LEFT - 30)) / Math.max(1, points.length - 1),
        y: (v) => height - 20 - ((v - least + pad) / (most - least + 2 * pad)) * (height - 40),
    };
}

/** Values in the order they came, with what is usual of them and what limits them. */
export function ControlChart(props: Props) {
    const { label, points, levels, height = 320 } = props;
    const scale = scaleOf(props);
    return (
        <svg viewBox={`0 0 ${WIDTH} ${height}`} className="my-2 w-full" role="img" aria-label={label}>
            <Levels levels={levels} scale={scale} />
            <polyline
                points={points.map((p, n) => `${scale.x(n)},${scale.y(p.value)}`).join(' ')}
                fill="none"
                className="stroke-faint"
                strokeWidth="1"
            />
            {points.map((p, n) => (
                <Point key={n} point={p} x={scale.x(n)} y={scale.y(p.value)} />
            ))}
        </svg>
    );
}

function Levels({ levels, scale }: { levels: Level[]; scale: Scale }) {
    return drawn(levels).map(({ at, kind }, n) => (
        <g key={n}>
            <line
                x1={LEFT}
                x2={WIDTH - 10}
                y1={scale.y(at)}
                y2={scale.y(at)}
                className={STROKES[kind]}
                strokeWidth="1.5"
                strokeDasharray={kind === 'usual' ? '6 4' : undefined}
            />
            <text x={LEFT - 6} y={scale.y(at) + 4} textAnchor="end" className="fill-ink num text-[13px]">
                {at.toPrecision(4)}
            </text>
        </g>
    ));
}

/** What ends a pattern is square and red, the rest round. */
function Point({ point: { title, flagged }, x, y }: { point: ChartPoint; x: number; y: number }) {
    return flagged ? (
        <rect x={x - 6} y={y - 6} width="12" height="12" className="fill-bad">
            <title>{title}</title>
        </rect>
    ) : (
        <circle cx={x} cy={y} r="4" className="fill-ink">
            <title>{title}</title>
        </circle>
    );
}
