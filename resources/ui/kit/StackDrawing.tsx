import { formatValue } from './format';

export type Plate = { name: string; thickness: number; kind: 'fixed' | 'picked' };

/** The pack to scale: every plate with its thickness, and the gap that is left under the snap ring. */
export function StackDrawing({
    plates,
    clearance,
    depth,
    unit,
}: {
    plates: Plate[];
    clearance: number;
    depth: number;
    unit: string;
}) {
    const height = 260;
    const scale =
        height /
        Math.max(
            depth,
            plates.reduce((s, p) => s + p.thickness, 0),
        );
    // Lower edge of each plate, and of the gap above them all.
    const edges = plates.reduce<number[]>((at, p) => [...at, at.at(-1)! - p.thickness * scale], [8 + height]);
    const gap = Math.max(clearance, 0) * scale;
    const top = edges.at(-1)!;
    return (
        <svg
            viewBox={`0 0 330 ${height + 26}`}
            className="w-full max-w-sm"
            role="img"
            aria-label={`Stack of ${plates.length} plates in a depth of ${formatValue(depth, unit)} ${unit}; clearance ${formatValue(clearance, unit)} ${unit}`}
        >
            <path d={`M 22 4 V ${height + 10} H 182 V 4`} fill="none" stroke="var(--ink)" strokeWidth="5" />
            {plates.map((p, i) => {
                const h = p.thickness * scale;
                const y = edges[i + 1]!;
                const label =
                    plates.findIndex((q) => q.name === p.name) === i
                        ? `${p.name} ${formatValue(p.thickness, unit)}${plates.filter((q) => q.name === p.name).length > 1 ? ` × ${plates.filter((q) => q.name === p.name).length}` : ''}`
                        : null;
                return (
                    <g key={i}>
                        <rect
                            x={p.kind === 'fixed' ? 34 : 27}
                            y={y}
                            width={p.kind === 'fixed' ? 136 : 150}
                            height={Math.max(1, h - 0.8)}
                            fill={p.kind === 'fixed' ? 'var(--warn)' : 'var(--enamel)'}
                            opacity={p.kind === 'fixed' ? 0.55 : 0.9}
                        />
                        {label && (
                            <text x="190" y={y + h / 2 + 4} fontSize="12" fill="var(--ink)">
                                {label}
                            </text>
                        )}
                    </g>
                );
            })}
            <rect
                x="27"
                y={top - gap}
                width="150"
                height={gap}
                fill="none"
                stroke="var(--hand)"
                strokeDasharray="4 2"
                strokeWidth="1.5"
            />
            <text x="190" y={Math.max(12, top - gap / 2 + 4)} fontSize="14" fontWeight="600" fill="var(--hand)">
                gap {formatValue(clearance, unit)} {unit}
            </text>
        </svg>
    );
}
