import { formatValue } from './format';

type Props = {
    unit: string;
    min: number | null;
    max: number | null;
    target?: number | null;
    reading?: number | null;
    label: string;
};

/** A window drawn as a small gauge: the allowed stretch, the target, and where the reading lies. */
export function GaugeBar({ unit, min, max, target, reading, label }: Props) {
    const low = min ?? 0;
    const high = max ?? (reading ?? low) * 1.5 + 1;
    const span = Math.max(high - low, 1e-9);
    const from = low - 0.6 * span;
    const x = (v: number) => Math.min(296, Math.max(4, ((v - from) / (2.2 * span)) * 300));
    const inside = reading == null || ((min == null || reading >= min) && (max == null || reading <= max));
    const words = `${label}: ${reading == null ? 'no reading' : `${formatValue(reading, unit)} ${unit}, ${inside ? 'inside' : 'outside'}`} the window ${formatValue(low, unit)} to ${formatValue(high, unit)} ${unit}`;
    return (
        <svg viewBox="0 0 300 46" className="w-full max-w-xs" role="img" aria-label={words}>
            <line x1="0" x2="300" y1="22" y2="22" stroke="var(--rule)" strokeWidth="2" />
            <rect
                x={x(low)}
                y="14"
                width={x(high) - x(low)}
                height="16"
                fill="var(--good)"
                opacity="0.25"
                stroke="var(--good)"
            />
            {target != null && (
                <line
                    x1={x(target)}
                    x2={x(target)}
                    y1="12"
                    y2="32"
                    stroke="var(--good)"
                    strokeDasharray="3 2"
                    strokeWidth="2"
                />
            )}
            {reading != null && (
                <path d={`M ${x(reading)} 15 l -7 -13 h 14 z`} fill={inside ? 'var(--good)' : 'var(--bad)'} />
            )}
            <text x={x(low)} y="44" textAnchor="middle" fontSize="13" fill="var(--ink)">
                {formatValue(low, unit)}
            </text>
            <text x={x(high)} y="44" textAnchor="middle" fontSize="13" fill="var(--ink)">
                {formatValue(high, unit)}
            </text>
        </svg>
    );
}
