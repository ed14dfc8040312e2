import { formatValue } from './format';

type Props = {
    unit: string;
    min: number | null;
    max: number | null;
    target?: number | null;
    reading?: number | null;
    label: string;
};

/** Where a value lies on the bar: the window takes its middle, what lies far out stays at the edge. */
function scaleOf(low: number, high: number) {
    const span = Math.max(high - low, 1e-9);
    const from = low - 0.6 * span;
    return (v: number) => Math.min(296, Math.max(4, ((v - from) / (2.2 * span)) * 300));
}

/** A window open at one end is drawn as far as the reading needs. */
function endsOf(min: number | null, max: number | null, reading: number | null): [number, number] {
    const low = min ?? 0;
    return [low, max ?? (reading ?? low) * 1.5 + 1];
}

const isInside = (v: number, min: number | null, max: number | null) =>
    (min === null || v >= min) && (max === null || v <= max);

/** A window drawn as a small gauge: the allowed stretch, the target, and where the reading lies. */
export function GaugeBar({ unit, min, max, target = null, reading = null, label }: Props) {
    const [low, high] = endsOf(min, max, reading);
    const x = scaleOf(low, high);
    const show = (v: number) => formatValue(v, unit);
    const inside = reading !== null && isInside(reading, min, max);
    const stands = reading === null ? 'no reading' : `${show(reading)} ${unit}, ${inside ? 'inside' : 'outside'}`;
    const words = `${label}: ${stands} the window ${show(low)} to ${show(high)} ${unit}`;
    const good = { stroke: 'var(--good)' };
    return (
        <svg viewBox="0 0 300 46" className="w-full max-w-xs" role="img" aria-label={words}>
            <line x1="0" x2="300" y1="22" y2="22" stroke="var(--rule)" strokeWidth="2" />
            <rect x={x(low)} y="14" width={x(high) - x(low)} height="16" fill="var(--good)" opacity="0.25" {...good} />
            {target !== null && <path d={`M ${x(target)} 12 V 32`} strokeDasharray="3 2" strokeWidth="2" {...good} />}
            {reading !== null && (
                <path d={`M ${x(reading)} 15 l -7 -13 h 14 z`} fill={inside ? 'var(--good)' : 'var(--bad)'} />
            )}
            {[low, high].map((v) => (
                <text key={v} x={x(v)} y="44" textAnchor="middle" fontSize="13" fill="var(--ink)">
                    {show(v)}
                </text>
            ))}
        </svg>
    );
}
