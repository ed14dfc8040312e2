import { useState } from 'react';
import { useSection, type Section } from './section';

type Ports = NonNullable<Section['ports']>;
type Port = Ports['list'][number];

const MARGIN = 10;
const TARGET_MM = 26;

const flipped = ([x, y]: number[]): [number, number] => [x ?? 0, -(y ?? 0)];

type Props = {
    family: string;
    /** The clutch or brake that is checked now. */
    element?: string | undefined;
    /** Says what the touched port fills. */
    onElement?: (element: string | undefined) => void;
    className?: string;
};

/** The face with its oil ports: touched, a port says what must move, what it loses on purpose and what to hold shut. */
export function PortMap({ family, element, onElement, className = '' }: Props) {
    const ports = useSection(family).data?.ports;
    const [chosen, setChosen] = useState<number | null>(null);
    if (!ports) return null;
    const port =
        ports.list.find((p) => p.number === chosen) ?? ports.list.find((p) => p.element && p.element === element);
    return (
        <figure className={`flex min-h-0 flex-col ${className}`} aria-label={ports.face}>
            <Face
                ports={ports}
                port={port}
                onChoose={(n) => {
                    setChosen(n);
                    onElement?.(ports.list.find((p) => p.number === n)?.element);
                }}
            />
            <figcaption className="px-2 pb-1 text-sm" aria-live="polite">
                {port ? <Said port={port} /> : <>{ports.face}. Touch a port.</>}
            </figcaption>
        </figure>
    );
}

function Said({ port }: { port: Port }) {
    return (
        <>
            <strong>
                {port.number} {port.name}
            </strong>
            {port.element ? `: ${port.element} must move. ` : ': nothing to hear. '}
            {port.bleeds && `${port.bleeds} `}
            {port.cover && `Hold shut meanwhile: ${port.cover.join(', ')}.`}
        </>
    );
}

type FaceProps = { ports: Ports; port: Port | undefined; onChoose: (number: number) => void };

function Face({ ports, port, onChoose }: FaceProps) {
    const corners = ports.outline.map(flipped);
    const [x, y] = [corners.map((c) => c[0]), corners.map((c) => c[1])];
    const [x0, y0] = [Math.min(...x) - MARGIN, Math.min(...y) - MARGIN];
    const [w, h] = [Math.max(...x) + MARGIN - x0, Math.max(...y) + MARGIN - y0];
    return (
        <svg viewBox={`${x0} ${y0} ${w} ${h}`} className="min-h-0 w-full flex-1" role="group" aria-label="Oil ports">
            <polygon
                points={corners.map((c) => c.join(',')).join(' ')}
                fill="var(--turn-stands)"
                stroke="var(--ink)"
                strokeWidth={1}
                strokeLinejoin="round"
            />
            {ports.list.map((p) => (
                <OnePort
                    key={p.number}
                    port={p}
                    state={p === port ? 'blow' : port?.cover?.includes(p.number) ? 'cover' : 'idle'}
                    onChoose={() => onChoose(p.number)}
                />
            ))}
        </svg>
    );
}

const STATE_WORDS = { blow: ', blow here', cover: ', hold shut', idle: '' };

const Cross = ({ x, y, r }: { x: number; y: number; r: number }) => (
    <path
        d={`M${x - r},${y - r} L${x + r},${y + r} M${x - r},${y + r} L${x + r},${y - r}`}
        stroke="var(--ink)"
        strokeWidth={1.8}
    />
);

type OnePortProps = { port: Port; state: keyof typeof STATE_WORDS; onChoose: () => void };

function OnePort({ port, state, onChoose }: OnePortProps) {
    const [x, y] = flipped(port.at);
    const r = port.bore / 2 + 1.5;
    return (
        <g
            role="button"
            tabIndex={0}
            aria-pressed={state === 'blow'}
            aria-label={`Port ${port.number}, ${port.name}${STATE_WORDS[state]}`}
            className="cursor-pointer"
            onClick={onChoose}
            onKeyDown={(e) => {
                if (e.key !== 'Enter' && e.key !== ' ') return;
                e.preventDefault();
                onChoose();
            }}
        >
            <circle
                cx={x}
                cy={y}
                r={r}
                fill={state === 'blow' ? 'var(--hand)' : 'var(--paper)'}
                stroke={state === 'blow' ? 'var(--hand)' : 'var(--ink)'}
                strokeWidth={state === 'idle' ? 0.7 : 1.8}
            />
            {state === 'cover' && <Cross x={x} y={y} r={r} />}
            <text
                x={x + r + 2}
                y={y + 3.5}
                fontSize={state === 'idle' ? 10 : 13}
                fontWeight={state === 'idle' ? 400 : 700}
                fill="var(--ink)"
            >
                {port.number}
            </text>
            <circle cx={x} cy={y} r={TARGET_MM / 2} fill="transparent" />
        </g>
    );
}
