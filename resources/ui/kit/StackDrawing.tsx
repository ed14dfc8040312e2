import { formatValue } from './format';

export type Plate = { name: string; thickness: number; kind: 'fixed' | 'picked' };

const HEIGHT = 260;
const KINDS = {
    fixed: { x: 34, width: 136, fill: 'var(--warn)', opacity: 0.55 },
    picked: { x: 27, width: 150, fill: 'var(--enamel)', opacity: 0.9 },
};

type StackDrawingProps = { plates: Plate[]; clearance: number; depth: number; unit: string };

/** Each plate with its height and upper edge, from the bottom of the drum up, and the top of the stack. */
function stacked(plates: Plate[], scale: number) {
    let top = 8 + HEIGHT;
    const placed = plates.map((plate) => {
        const height = plate.thickness * scale;
        top -= height;
        return { plate, height, y: top };
    });
    return { placed, top };
}

/** The name of a plate stands once, at the first of its kind, with how many there are. */
function labelOf(plates: Plate[], i: number, unit: string): string | null {
    const plate = plates[i];
    if (!plate) return null;
    const alike = plates.filter((q) => q.name === plate.name);
    if (alike[0] !== plate) return null;
    return `${plate.name} ${formatValue(plate.thickness, unit)}${alike.length > 1 ? ` × ${alike.length}` : ''}`;
}

/** The pack to scale: every plate with its thickness, and the gap that is left under the snap ring. */
export function StackDrawing({ plates, clearance, depth, unit }: StackDrawingProps) {
    const sum = plates.reduce((s, p) => s + p.thickness, 0);
    const scale = HEIGHT / Math.max(depth, sum);
    const { placed, top } = stacked(plates, scale);
    const show = (v: number) => `${formatValue(v, unit)} ${unit}`;
    return (
        <svg
            viewBox={`0 0 330 ${HEIGHT + 26}`}
            className="w-full max-w-sm"
            role="img"
            aria-label={`Stack of ${plates.length} plates in a depth of ${show(depth)}; clearance ${show(clearance)}`}
        >
            <path d={`M 22 4 V ${HEIGHT + 10} H 182 V 4`} fill="none" stroke="var(--ink)" strokeWidth="5" />
            {placed.map(({ plate, height, y }, i) => (
                <g key={i}>
                    <rect y={y} height={Math.max(1, height - 0.8)} {...KINDS[plate.kind]} />
                    <text x="190" y={y + height / 2 + 4} fontSize="12" fill="var(--ink)">
                        {labelOf(plates, i, unit)}
                    </text>
                </g>
            ))}
            <Gap top={top} height={Math.max(clearance, 0) * scale} text={show(clearance)} />
        </svg>
    );
}

function Gap({ top, height, text }: { top: number; height: number; text: string }) {
    return (
        <>
            <rect
                x="27"
                y={top - height}
                width="150"
                height={height}
                fill="none"
                stroke="var(--hand)"
                strokeDasharray="4 2"
                strokeWidth="1.5"
            />
            <text x="190" y={Math.max(12, top - height / 2 + 4)} fontSize="14" fontWeight="600" fill="var(--hand)">
                gap {text}
            </text>
        </>
    );
}
