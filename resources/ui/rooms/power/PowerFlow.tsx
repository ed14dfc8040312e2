import { shafts, type Element, type PlanetSet, type SolvedGear, type Train } from './trains';

const [TOP, STEP, LEFT, COLUMN, RIGHT] = [46, 46, 150, 62, 170];
const MEMBERS = ['sun', 'carrier', 'ring'] as const;

/** What every rail and column of one gear's drawing looks up. */
type Picture = {
    train: Train;
    gear: SolvedGear;
    width: number;
    height: number;
    applied: string[];
    /** The shafts that carry torque. */
    loaded: Set<string>;
    /** Where a shaft's rail lies. */
    y: (node: string) => number;
};

const carries = (t: number | undefined): t is number => t !== undefined && Math.abs(t) > 1e-9;
const thick = (live: boolean) => ({ stroke: live ? 'var(--hand)' : 'var(--frame)', strokeWidth: live ? 6 : 2 });

function loadedShafts(train: Train, gear: SolvedGear, applied: string[]): Set<string> {
    const elements = train.elements.filter((e) => applied.includes(e.id) && carries(gear.elementTorque[e.id]));
    const members = train.sets.flatMap((s) =>
        MEMBERS.filter((m) => carries(gear.setTorque[s.id]?.[m])).map((m) => s[m]),
    );
    return new Set([
        ...elements.flatMap((e) => [e.a, e.b]),
        ...members,
        ...(gear.state === 'driven' ? [train.input, train.output] : []),
    ]);
}

function pictureOf(train: Train, gear: SolvedGear): Picture {
    const rails = shafts(train);
    const applied = train.gears.find((g) => g.name === gear.name)?.applied ?? [];
    return {
        train,
        gear,
        applied,
        width: LEFT + COLUMN * (train.elements.length + train.sets.length) + RIGHT,
        height: TOP + STEP * rails.length + 12,
        loaded: loadedShafts(train, gear, applied),
        y: (node) => (node === 'case' ? TOP - 22 : TOP + STEP * (rails.indexOf(node) + 0.5)),
    };
}

type PowerFlowProps = {
    train: Train;
    gear: SolvedGear;
    /** A tap on an element; the list under "What if" does the same for keys. */
    onPick?: (element: string) => void;
};

/**
 * One gear as a drawing: every shaft is a rail, every set and element a column that ties rails together. Rails and
 * columns that carry torque are thick; applied elements are filled; speeds and torques are written where they belong.
 */
export function PowerFlow({ train, gear, onPick }: PowerFlowProps) {
    const picture = pictureOf(train, gear);
    const { width, height, applied } = picture;
    const said =
        gear.ratio === null
            ? `Gear ${gear.name}: ${gear.state}`
            : `Gear ${gear.name}, ratio ${gear.ratio.toFixed(3)}; applied ${applied.join(', ') || 'nothing'}`;
    const column = (i: number) => LEFT + COLUMN * (i + 0.5);
    return (
        <figure className="overflow-x-auto">
            <svg
                viewBox={`0 0 ${width} ${height}`}
                role="img"
                aria-label={`Power flow. ${said}.`}
                style={{ minWidth: Math.min(width, 720) }}
                className="w-full text-ink"
            >
                <Case width={width} />
                {shafts(train).map((node) => (
                    <Rail key={node} picture={picture} node={node} />
                ))}
                {train.elements.map((e, i) => (
                    <g key={e.id} onClick={() => onPick?.(e.id)} className={onPick ? 'cursor-pointer' : ''}>
                        <ElementColumn picture={picture} element={e} x={column(i)} />
                    </g>
                ))}
                {train.sets.map((s, i) => (
                    <SetColumn key={s.id} picture={picture} set={s} x={column(train.elements.length + i)} />
                ))}
            </svg>
            <figcaption className="text-sm text-faint">
                S sun, C carrier, R ring (″ meshed planet pair). Right: speed for an input of 1, ▶ with the input, ◀
                backwards. Small numbers: torque for an input torque of 1. Thick: carries torque. Filled: applied.
                {onPick && ' Tap an element to break it.'}
            </figcaption>
        </figure>
    );
}

function Case({ width }: { width: number }) {
    return (
        <>
            <line
                x1={LEFT - 12}
                x2={width - RIGHT}
                y1={TOP - 22}
                y2={TOP - 22}
                stroke="var(--frame)"
                strokeWidth={3}
                strokeDasharray="2 5"
            />
            <text x={10} y={TOP - 18} fontSize={14} fill="var(--faint)">
                case
            </text>
        </>
    );
}

function turn(speed: number | undefined): string {
    if (speed === undefined) return 'free';
    if (Math.abs(speed) < 1e-9) return 'stands';
    return `${speed < 0 ? '◀ ' : '▶ '}${Math.abs(speed).toFixed(3)}`;
}

function railName(train: Train, node: string): string {
    if (node === train.input) return `▶ ${node}`;
    return node === train.output ? `${node} ▶` : node;
}

function Rail({ picture: { train, gear, width, loaded, y }, node }: { picture: Picture; node: string }) {
    const power = loaded.has(node);
    const torque =
        node === train.output && gear.outputTorque !== undefined ? `, ${gear.outputTorque.toFixed(2)} T` : '';
    return (
        <g>
            <text
                x={10}
                y={y(node) + 5}
                fontSize={15}
                fontWeight={node === train.input || node === train.output ? 700 : 400}
                fill="currentColor"
            >
                {railName(train, node)}
            </text>
            <line x1={LEFT - 12} x2={width - RIGHT + 8} y1={y(node)} y2={y(node)} {...thick(power)} />
            <text
                x={width - RIGHT + 18}
                y={y(node) + 5}
                fontSize={15}
                className="num"
                fill="currentColor"
                fontWeight={power ? 700 : 400}
            >
                {turn(gear.speeds[node])}
                {torque}
            </text>
        </g>
    );
}

function elementSaid(element: Element, on: boolean, gear: SolvedGear): string {
    const torque = gear.elementTorque[element.id];
    const slip = gear.slip[element.id];
    const state = on
        ? `applied${carries(torque) ? `, ${Math.abs(torque).toFixed(3)} times the input torque` : ''}`
        : `released${slip === undefined ? '' : `, slips ${slip.toFixed(3)}`}`;
    return `${element.id} ${element.name ?? ''}: ${state}`;
}

function ElementColumn({ picture, element, x }: { picture: Picture; element: Element; x: number }) {
    const { gear, applied, y } = picture;
    const on = applied.includes(element.id);
    const torque = on ? gear.elementTorque[element.id] : undefined;
    const ends = [element.a, element.b];
    const grounded = element.kind === 'brake' || ends.includes('case');
    const mid = grounded ? TOP - 4 : (y(element.a) + y(element.b)) / 2;
    return (
        <g>
            <title>{elementSaid(element, on, gear)}</title>
            <line
                x1={x}
                x2={x}
                y1={y(element.a)}
                y2={y(element.b)}
                {...thick(carries(torque))}
                strokeDasharray={on ? undefined : '3 4'}
            />
            {ends
                .filter((n) => n !== 'case')
                .map((n) => (
                    <circle key={n} cx={x} cy={y(n)} r={5} fill={on ? 'var(--hand)' : 'var(--frame)'} />
                ))}
            <ElementBox element={element} on={on} x={x} y={mid} />
            {carries(torque) && (
                <text x={x + 17} y={mid + 22} fontSize={12} className="num" fill="currentColor">
                    {Math.abs(torque).toFixed(2)}
                </text>
            )}
        </g>
    );
}

/** A one-way is round, a clutch or brake square; filled when it is on. */
function ElementBox({ element, on, x, y }: { element: Element; on: boolean; x: number; y: number }) {
    const look = { fill: on ? 'var(--enamel)' : 'var(--paper)', stroke: 'var(--edge)', strokeWidth: 2 };
    return (
        <>
            {element.kind === 'one-way' ? (
                <circle cx={x} cy={y} r={12} {...look} />
            ) : (
                <rect x={x - 15} y={y - 11} width={30} height={22} {...look} />
            )}
            <text
                x={x}
                y={y + 5}
                fontSize={13}
                fontWeight={600}
                textAnchor="middle"
                fill={on ? 'var(--enamel-ink)' : 'currentColor'}
            >
                {element.id}
            </text>
        </>
    );
}

function SetColumn({ picture: { gear, height, y }, set, x }: { picture: Picture; set: PlanetSet; x: number }) {
    const ys = MEMBERS.map((m) => y(set[m]));
    const torques = gear.setTorque[set.id];
    const kind = set.kind === 'double' ? 'meshed planet pair' : 'simple set';
    return (
        <g>
            <title>{`${set.id}: ${kind}, sun ${set.sunTeeth}, ring ${set.ringTeeth}`}</title>
            <line
                x1={x}
                x2={x}
                y1={Math.min(...ys)}
                y2={Math.max(...ys)}
                {...thick(MEMBERS.some((m) => carries(torques?.[m])))}
            />
            <text x={x} y={height - 1} fontSize={13} textAnchor="middle" fill="currentColor">
                {set.id}
                {set.kind === 'double' && '″'}
            </text>
            {MEMBERS.map((m) => (
                <Member key={m} letter={m.charAt(0).toUpperCase()} x={x} y={y(set[m])} torque={torques?.[m]} />
            ))}
        </g>
    );
}

function Member({ letter, x, y, torque }: { letter: string; x: number; y: number; torque: number | undefined }) {
    return (
        <g>
            <circle cx={x} cy={y} r={10} fill="var(--sheet)" stroke="var(--edge)" strokeWidth={2} />
            <text x={x} y={y + 5} fontSize={13} fontWeight={600} textAnchor="middle" fill="currentColor">
                {letter}
            </text>
            {carries(torque) && (
                <text x={x + 13} y={y - 7} fontSize={11} className="num" fill="currentColor">
                    {torque.toFixed(2)}
                </text>
            )}
        </g>
    );
}

const [WIDTH, HEIGHT, EDGE, ABOVE] = [620, 300, 44, 14];
const DASHES = ['', '8 4', '2 4', '10 3 2 3', '5 5', '1 6', '12 4', '6 2 2 2'];

const backwards = (gear: SolvedGear) => gear.ratio !== null && gear.ratio < 0;

function lineColour(train: Train, node: string): string {
    if (node === train.output) return 'var(--hand)';
    return node === train.input ? 'var(--good)' : 'var(--edge)';
}

/** Names at the ends of the lines, moved apart where they would lie on each other. */
function endNames(nodes: string[], last: SolvedGear | undefined, y: (speed: number) => number) {
    let above = -Infinity;
    return nodes
        .flatMap((node) => {
            const speed = last?.speeds[node];
            return speed === undefined ? [] : [{ node, y: y(speed) }];
        })
        .sort((a, b) => a.y - b.y)
        .map((end) => {
            above = Math.max(end.y, above + 15);
            return { ...end, y: above };
        });
}

function speedRange(gears: SolvedGear[]): [number, number] {
    const all = gears.flatMap((g) => Object.values(g.speeds));
    return [Math.min(0, ...all), Math.max(1, ...all)];
}

/** Speeds of all members against the gears. */
export function SpeedDiagram({ train, gears }: { train: Train; gears: SolvedGear[] }) {
    const driven = gears.filter((g) => g.state === 'driven');
    const nodes = shafts(train);
    const [low, high] = speedRange(driven);
    const x = (i: number) => EDGE + (driven.length > 1 ? (i * (WIDTH - EDGE - 120)) / (driven.length - 1) : 0);
    const y = (s: number) => ABOVE + ((high - s) / (high - low)) * (HEIGHT - ABOVE - 30);
    return (
        <svg
            viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
            role="img"
            aria-label="Speeds of all members by gear, for an input speed of 1"
            className="w-full"
        >
            {[...new Set([Math.ceil(low), 0, 1, Math.floor(high)])].map((v) => (
                <Level key={v} value={v} y={y(v)} />
            ))}
            {driven.map((g, i) => (
                <text key={g.name} x={x(i)} y={HEIGHT - 6} fontSize={14} textAnchor="middle" fill="currentColor">
                    {g.name}
                </text>
            ))}
            {nodes.map((n, k) => (
                <SpeedLine
                    key={n}
                    train={train}
                    node={n}
                    driven={driven}
                    dash={DASHES[k % DASHES.length]}
                    x={x}
                    y={y}
                />
            ))}
            {endNames(nodes, driven.at(-1), y).map((e) => (
                <text key={e.node} x={x(driven.length - 1) + 10} y={e.y + 4} fontSize={13} fill="currentColor">
                    {e.node}
                </text>
            ))}
        </svg>
    );
}

function Level({ value, y }: { value: number; y: number }) {
    return (
        <g>
            <line x1={EDGE} x2={WIDTH - 112} y1={y} y2={y} stroke="var(--rule)" strokeWidth={value === 0 ? 2 : 1} />
            <text x={EDGE - 8} y={y + 5} fontSize={13} textAnchor="end" fill="var(--faint)">
                {value}
            </text>
        </g>
    );
}

type SpeedLineProps = {
    train: Train;
    node: string;
    driven: SolvedGear[];
    dash: string | undefined;
    x: (i: number) => number;
    y: (speed: number) => number;
};

/** One member over the forward gears; what it does in reverse is a point of its own. */
function SpeedLine({ train, node, driven, dash, x, y }: SpeedLineProps) {
    const points = driven.flatMap((gear, i) => {
        const speed = gear.speeds[node];
        return speed === undefined ? [] : [{ gear, x: x(i), y: y(speed) }];
    });
    const colour = lineColour(train, node);
    return (
        <>
            <polyline
                fill="none"
                stroke={colour}
                strokeWidth={node === train.output || node === train.input ? 4 : 2}
                strokeDasharray={dash}
                points={points
                    .filter((p) => !backwards(p.gear))
                    .map((p) => `${p.x},${p.y}`)
                    .join(' ')}
            />
            {points
                .filter((p) => backwards(p.gear))
                .map((p) => (
                    <circle key={p.gear.name} cx={p.x} cy={p.y} r={5} fill={colour} />
                ))}
        </>
    );
}
