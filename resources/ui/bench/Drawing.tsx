import { HeadRow } from '../kit/basics';
import { useEffect, useId, useMemo, useRef, useState, type KeyboardEvent, type ReactNode, type RefObject } from 'react';
import { Fetched } from '../kit/Fetched';
import { More } from '../kit/More';
import { useZoom } from './useZoom';
import {
    apart,
    boxOf,
    inOrder,
    labelsOf,
    placed,
    useSection,
    type Box,
    type Part,
    type Section,
    type Shape,
} from './section';

export type PartState = 'hand' | 'next' | 'off' | 'absent' | 'suspect' | 'damaged' | 'measured';

const STATE_WORDS: Record<PartState, string> = {
    hand: 'in hand',
    next: 'next',
    off: 'off the unit',
    absent: 'not there yet',
    suspect: 'suspect',
    damaged: 'damaged',
    measured: 'measured',
};

const TURNS_WORDS = { input: 'turns with the input', other: 'turns otherwise', stands: 'stands' };

/** Above the axis the inside, cut; below it what hangs on the outside. */
type Half = 'inside' | 'axes' | 'outside';

/** What the picture shows: the outside, the main axis alone, or all parallel axes one under the other. */
const onHalf = (half: Half) => (p: Part) =>
    half === 'outside' ? p.kind === 'below' : p.kind !== 'below' && (half === 'axes' || isOnMainAxis(p));

const isOnMainAxis = (p: Part) => {
    const box = boxOf(p.shapes);
    return box.y + box.h <= 1;
};

type Props = {
    family: string;
    states: Record<string, PartState>;
    /** Short words at a part: a number, a per cent, a finding. */
    tags?: Record<string, string>;
    /** Parts the picture turns to: where all of them hang on the outside, that half is shown. */
    follow?: string[];
    /** A part was touched. */
    onPart?: (code: string) => void;
    className?: string;
};

/** A unit cut along its axis, drawn from its catalog data, with the part in hand lit. */
export function Drawing(props: Props) {
    const query = useSection(props.family);
    return (
        <Fetched query={query} what="the section drawing">
            {(section) => <Drawn {...props} section={section} />}
        </Fetched>
    );
}

const MARGIN = 8;
const LABELS = 44;

function viewOf(section: Section, half: Half): Box {
    const shown = section.parts.filter(onHalf(half));
    const all = boxOf(shown.flatMap((p) => p.shapes));
    const whole = boxOf(section.parts.flatMap((p) => p.shapes));
    return half !== 'outside'
        ? {
              x: whole.x - MARGIN,
              y: all.y - MARGIN - LABELS,
              w: whole.w + 2 * MARGIN,
              h: all.h + MARGIN + 14 + LABELS,
          }
        : { x: whole.x - MARGIN, y: -LABELS, w: whole.w + 2 * MARGIN, h: all.y + all.h + LABELS + MARGIN };
}

const labelled = (parts: Part[], states: Record<string, PartState>, chosen: string | null) =>
    parts.filter((p) => p.code === chosen || !['off', 'absent', undefined].includes(states[p.code])).slice(0, 8);

/** Arrow keys walk the parts; what was walked to is chosen. */
function useWalk(order: Part[]) {
    const [chosen, setChosen] = useState<string | null>(null);
    const onKeyDown = (e: KeyboardEvent) => {
        const step = STEPS[e.key];
        if (!step) return;
        e.preventDefault();
        const at = order.findIndex((p) => p.code === chosen);
        setChosen(order[(at + step + order.length) % order.length]?.code ?? null);
    };
    return { chosen, setChosen, onKeyDown };
}

const STEPS: Record<string, number> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };

function halfOf(section: Section, follow: string[]): Half {
    const followed = section.parts.filter((p) => follow.includes(p.code));
    if (followed.length > 0 && followed.every(onHalf('outside'))) return 'outside';
    return followed.some((p) => p.kind !== 'below' && !isOnMainAxis(p)) ? 'axes' : 'inside';
}

/** What of the unit is shown: the half where the work is until a hand turns it, whole or drawn apart. */
function useSight(whole: Section, follow: string[]) {
    const work = follow.join();
    const [turned, setTurned] = useState<{ half: Half; at: string } | null>(null);
    const [isApart, setApart] = useState(false);
    const section = useMemo(() => (isApart ? apart(whole) : whole), [whole, isApart]);
    // Turned by hand it stays until the work moves on.
    const half = turned?.at === work ? turned.half : halfOf(section, follow);
    const view = useMemo(() => viewOf(section, half), [section, half]);
    const order = useMemo(() => inOrder(section.parts.filter(onHalf(half))), [section, half]);
    return { section, half, view, order, isApart, setApart, turn: (to: Half) => setTurned({ half: to, at: work }) };
}

function Drawn({ section: whole, states, tags = {}, follow = [], ...props }: Props & { section: Section }) {
    const sight = useSight(whole, follow);
    const walk = useWalk(sight.order);
    const svg = useRef<SVGSVGElement>(null);
    const lit = sight.order.find((p) => p.code === walk.chosen) ?? sight.order.find((p) => states[p.code] === 'hand');
    const zoom = useZoom(svg, sight.view, middleOf(lit));
    useWheel(svg, zoom.byWheel);
    return (
        <div className={`relative ${props.className ?? ''}`}>
            <Canvas {...{ svg, sight, walk, zoom, states, tags }} onPart={props.onPart} />
            <Halves section={sight.section} half={sight.half} onTurn={sight.turn} near={zoom.isNear} onFit={zoom.fit}>
                {sight.half !== 'outside' && <Apart on={sight.isApart} onChange={sight.setApart} />}
            </Halves>
            <DrawingLegend />
            <More title="The drawing as a table" className="sr-only focus-within:not-sr-only">
                <PartTable parts={sight.order} states={states} tags={tags} />
            </More>
        </div>
    );
}

type CanvasProps = {
    svg: RefObject<SVGSVGElement | null>;
    sight: ReturnType<typeof useSight>;
    walk: ReturnType<typeof useWalk>;
    zoom: ReturnType<typeof useZoom>;
    states: Record<string, PartState>;
    tags: Record<string, string>;
    onPart: ((code: string) => void) | undefined;
};

/** The picture itself, under fingers, wheel and keys. */
function Canvas({ svg, sight, walk, zoom, states, tags, onPart }: CanvasProps) {
    const { section, half, view, order } = sight;
    const { box, isNear, fit, byKey, hands } = zoom;
    const spoken = order.find((p) => p.code === walk.chosen);
    return (
        <svg
            ref={svg}
            viewBox={`${box.x} ${box.y} ${box.w} ${box.h}`}
            className="h-full w-full pb-7"
            role="img"
            tabIndex={0}
            aria-label={`Section drawing of the ${section.family}. ${spoken ? said(spoken, states) : summed(order, states)}`}
            style={{ touchAction: isNear ? 'none' : 'pan-y' }}
            onKeyDown={(e) => {
                byKey(e.key);
                walk.onKeyDown(e);
            }}
            onDoubleClick={fit}
            {...hands}
        >
            <Parts
                {...{ section, half, states, view }}
                chosen={walk.chosen}
                onChoose={(code) => {
                    walk.setChosen(code);
                    onPart?.(code);
                }}
            />
            {labelsOf(labelled(order, states, walk.chosen), view).map((l) => (
                <Leader key={l.code} label={l} top={view.y + 14} state={states[l.code]} tag={tags[l.code]} />
            ))}
        </svg>
    );
}

type PartsProps = {
    section: Section;
    half: Half;
    states: Record<string, PartState>;
    chosen: string | null;
    view: Box;
    onChoose: (code: string) => void;
};

function Parts({ section, half, states, chosen, view, onChoose }: PartsProps) {
    const id = useId().replaceAll(':', '');
    return (
        <>
            <Hatches id={id} />
            {half === 'outside' && section.parts.map((p) => <Outside key={p.code} part={p} />)}
            {section.parts.filter(onHalf(half)).map((p) => (
                <PartShapes
                    key={p.code}
                    id={id}
                    part={p}
                    state={states[p.code]}
                    chosen={p.code === chosen}
                    onChoose={() => onChoose(p.code)}
                />
            ))}
            <line
                x1={view.x}
                x2={view.x + view.w}
                y1={0}
                y2={0}
                stroke="var(--faint)"
                strokeWidth={0.5}
                strokeDasharray="14 3 3 3"
            />
        </>
    );
}

function Outside({ part }: { part: Part }) {
    return (
        <>
            {part.shapes
                .filter((s) => s.as === 'outside')
                .map((s, n) => (
                    <polygon
                        key={n}
                        points={joined(s)}
                        fill="var(--turn-stands)"
                        stroke="var(--ink)"
                        strokeWidth={0.7}
                    />
                ))}
        </>
    );
}

function middleOf(part: Part | undefined) {
    if (!part) return null;
    const box = boxOf(part.shapes);
    return { x: box.x + box.w / 2, y: box.y + box.h / 2 };
}

/** The wheel turns the picture, not the page; only a listener that is not passive may say so. */
function useWheel(svg: RefObject<SVGSVGElement | null>, turn: (e: WheelEvent) => void) {
    const latest = useRef(turn);
    useEffect(() => {
        latest.current = turn;
    });
    useEffect(() => {
        const at = svg.current;
        const onWheel = (e: WheelEvent) => {
            if (!e.ctrlKey && document.activeElement !== at) return;
            e.preventDefault();
            latest.current(e);
        };
        at?.addEventListener('wheel', onWheel, { passive: false });
        return () => at?.removeEventListener('wheel', onWheel);
    }, [svg]);
}

const HALVES: Record<Half, string> = { inside: 'Inside', axes: 'All axes', outside: 'Outside' };

type HalvesProps = {
    section: Section;
    half: Half;
    near: boolean;
    onTurn: (half: Half) => void;
    onFit: () => void;
    children: ReactNode;
};

/** Parts slid along the axis, so that each is seen whole. */
function Apart({ on, onChange }: { on: boolean; onChange: (on: boolean) => void }) {
    return (
        <button
            type="button"
            aria-pressed={on}
            className={`min-h-11 px-2 text-sm ${on ? 'font-semibold' : 'underline'}`}
            onClick={() => onChange(!on)}
        >
            Drawn apart
        </button>
    );
}

/** Which half fills the picture; it turns by itself to the part in hand. */
function Halves({ section, half, near, onTurn, onFit, children }: HalvesProps) {
    const there = (Object.keys(HALVES) as Half[]).filter((h) => h !== 'axes' || section.axes.length > 1);
    return (
        <div className="absolute bottom-0 left-1 flex gap-1 no-print" role="group" aria-label="What the drawing shows">
            {there.map((h) => (
                <button
                    key={h}
                    type="button"
                    aria-pressed={h === half}
                    className={`min-h-11 px-2 text-sm ${h === half ? 'font-semibold' : 'underline'}`}
                    onClick={() => onTurn(h)}
                >
                    {HALVES[h]}
                </button>
            ))}
            {near && (
                <button type="button" className="min-h-11 px-2 text-sm underline" onClick={onFit}>
                    Whole unit
                </button>
            )}
            {children}
        </div>
    );
}

const joined = (shape: Shape) =>
    placed(shape)
        .map((p) => p.join(','))
        .join(' ');

const stateWord = (state: PartState | undefined) => (state ? STATE_WORDS[state] : '');

const said = (p: Part, states: Record<string, PartState>) =>
    [p.name, TURNS_WORDS[p.turns], stateWord(states[p.code])].filter(Boolean).join(', ') + '.';

function summed(parts: Part[], states: Record<string, PartState>): string {
    const inHand = parts.filter((p) => states[p.code] === 'hand').map((p) => p.name);
    return inHand.length > 0 ? `In hand: ${inHand.join(', ')}.` : `${parts.length} parts; arrow keys walk them.`;
}

/** Cut faces of neighbours are hatched the other way; tints say what turns with what, words in the legend too. */
function Hatches({ id }: { id: string }) {
    return (
        <defs>
            {[45, -45].map((angle) => (
                <pattern
                    key={angle}
                    id={`${id}h${angle}`}
                    width="3.4"
                    height="3.4"
                    patternUnits="userSpaceOnUse"
                    patternTransform={`rotate(${angle})`}
                >
                    <line y2="3.4" stroke="var(--ink)" strokeOpacity="0.34" strokeWidth="0.8" />
                </pattern>
            ))}
        </defs>
    );
}

const TINT = { input: 'var(--turn-input)', other: 'var(--turn-other)', stands: 'var(--turn-stands)' };

/** Paper of a shape, and its paper while the part is in hand. */
const PAPER: Partial<Record<Shape['as'], [plain: string, lit: string]>> = {
    friction: ['var(--lining)', 'var(--hand)'],
    ring: ['var(--ink)', 'var(--hand)'],
    snap: ['var(--ink)', 'var(--hand)'],
    steel: ['var(--steel)', 'var(--lit)'],
    wave: ['var(--steel)', 'var(--lit)'],
    line: ['none', 'none'],
    spring: ['none', 'none'],
};

function fillOf(shape: Shape, part: Part, state: PartState | undefined): string {
    if (state === 'off' || state === 'absent') return 'none';
    const [plain, lit] = PAPER[shape.as] ?? [shape.as === 'cut' ? TINT[part.turns] : 'var(--paper)', 'var(--lit)'];
    return state === 'hand' ? lit : plain;
}

function penOf(state: PartState | undefined, chosen: boolean) {
    const lit = state === 'hand' || chosen;
    if (state === 'off') return { stroke: 'var(--frame)', strokeWidth: 0.55, strokeDasharray: '3 2', opacity: 0.55 };
    if (state === 'absent') {
        return { stroke: 'var(--faint)', strokeWidth: 0.45, strokeDasharray: '1.2 2.4', opacity: 0.6 };
    }
    if (state === 'next' && !lit) return { stroke: 'var(--hand)', strokeWidth: 0.7, strokeDasharray: '1.5 1.5' };
    return { stroke: lit ? 'var(--hand)' : 'var(--ink)', strokeWidth: lit ? 1.5 : 0.55 };
}

type PartProps = { id: string; part: Part; state: PartState | undefined; chosen: boolean; onChoose: () => void };

function PartShapes({ id, part, state, chosen, onChoose }: PartProps) {
    const style = penOf(state, chosen);
    const box = boxOf(part.shapes);
    const hatch = `url(#${id}h${part.code.length % 2 === 0 ? 45 : -45})`;
    return (
        <g onClick={onChoose} data-part={part.code} className="cursor-pointer">
            <title>{part.name}</title>
            {part.shapes
                .filter((s) => s.as !== 'outside')
                .map((s, n) => (
                    <OneShape
                        key={n}
                        shape={s}
                        fill={fillOf(s, part, state)}
                        hatch={state === 'off' || state === 'absent' ? null : hatch}
                        style={style}
                    />
                ))}
            <rect
                x={box.x - 2}
                y={box.y - 2}
                width={box.w + 4}
                height={box.h + 4}
                fill={state === 'suspect' || state === 'damaged' ? `url(#${id}h45)` : 'transparent'}
                pointerEvents={box.w * box.h < 2500 ? 'all' : 'none'}
            />
        </g>
    );
}

type ShapeProps = { shape: Shape; fill: string; hatch: string | null; style: object };

function OneShape({ shape, fill, hatch, style }: ShapeProps) {
    const points = placed(shape);
    const [c, edge] = points;
    if (shape.form === 'circle' && c && edge) {
        return <circle cx={c[0]} cy={c[1]} r={edge[0] - c[0]} fill={fill} {...style} />;
    }
    if (shape.form === 'line') return <polyline points={joined(shape)} fill="none" {...style} />;
    return (
        <>
            <polygon points={joined(shape)} fill={fill} {...style} />
            {shape.as === 'cut' && hatch && <polygon points={joined(shape)} fill={hatch} pointerEvents="none" />}
        </>
    );
}

type LeaderProps = {
    label: ReturnType<typeof labelsOf>[number];
    top: number;
    state: PartState | undefined;
    tag: string | undefined;
};

function Leader({ label, top, state, tag }: LeaderProps) {
    const lit = state === 'hand';
    const color = lit ? 'var(--hand)' : 'var(--ink)';
    return (
        <g pointerEvents="none">
            <polyline
                points={`${label.at},${top + 6} ${label.x},${top + 22} ${label.x},${label.y}`}
                fill="none"
                stroke={color}
                strokeWidth={lit ? 1.2 : 0.6}
            />
            <circle cx={label.x} cy={label.y} r={1.6} fill={color} />
            <text
                x={label.at}
                y={top}
                textAnchor="middle"
                fontSize={lit ? 12.5 : 10}
                fontWeight={lit ? 700 : 400}
                fill={color}
            >
                {label.name}
                {tag && ` ${tag}`}
            </text>
        </g>
    );
}

function PartTable({
    parts,
    states,
    tags,
}: {
    parts: Part[];
    states: Record<string, PartState>;
    tags: Record<string, string>;
}) {
    return (
        <table className="text-sm">
            <HeadRow of={['Part', 'Turns', 'State']} />
            <tbody>
                {parts.map((p) => (
                    <tr key={p.code}>
                        <td className="td">{p.name}</td>
                        <td className="td">{TURNS_WORDS[p.turns]}</td>
                        <td className="td">
                            {stateWord(states[p.code])} {tags[p.code]}
                        </td>
                    </tr>
                ))}
            </tbody>
        </table>
    );
}

/** Tints by word: never a colour alone. */
function DrawingLegend() {
    return (
        <ul className="absolute right-3 bottom-1 flex gap-4 text-sm text-faint">
            {(Object.keys(TINT) as (keyof typeof TINT)[]).map((t) => (
                <li key={t} className="flex items-center gap-1.5">
                    <svg width="18" height="12" aria-hidden="true">
                        <rect width="18" height="12" fill={TINT[t]} stroke="var(--ink)" />
                    </svg>
                    {TURNS_WORDS[t]}
                </li>
            ))}
        </ul>
    );
}
