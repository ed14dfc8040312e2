import { shafts, type SolvedGear, type Train } from './trains';

const [TOP, STEP, LEFT, COLUMN, RIGHT] = [46, 46, 150, 62, 170];

/**
 * One gear as a drawing: every shaft is a rail, every set and element a column that ties rails together. Rails and
 * columns that carry torque are thick; applied elements are filled; speeds and torques are written where they belong.
 */
export function PowerFlow({ train, gear }: { train: Train; gear: SolvedGear }) {
    const rails = shafts(train);
    const y = (node: string) => (node === 'case' ? TOP - 22 : TOP + STEP * (rails.indexOf(node) + 0.5));
    const applied = train.gears.find((g) => g.name === gear.name)?.applied ?? [];
    const columns = [
        ...train.elements.map((e) => ({ kind: 'element' as const, e })),
        ...train.sets.map((s) => ({ kind: 'set' as const, s })),
    ];
    const width = LEFT + COLUMN * columns.length + RIGHT;
    const height = TOP + STEP * rails.length + 12;
    const carries = (t: number | undefined) => t !== undefined && Math.abs(t) > 1e-9;
    const loaded = new Set<string>();
    train.elements.forEach(
        (e) => carries(gear.elementTorque[e.id]) && applied.includes(e.id) && [e.a, e.b].forEach((n) => loaded.add(n)),
    );
    train.sets.forEach((s) =>
        (['sun', 'ring', 'carrier'] as const).forEach((m) => carries(gear.setTorque[s.id]?.[m]) && loaded.add(s[m])),
    );
    if (gear.state === 'driven') [train.input, train.output].forEach((n) => loaded.add(n));
    const turn = (w: number | undefined) =>
        w === undefined ? 'free' : Math.abs(w) < 1e-9 ? 'stands' : `${w < 0 ? '◀ ' : '▶ '}${Math.abs(w).toFixed(3)}`;
    const said =
        gear.state === 'driven'
            ? `Gear ${gear.name}, ratio ${gear.ratio!.toFixed(3)}; applied ${applied.join(', ') || 'nothing'}`
            : `Gear ${gear.name}: ${gear.state}`;
    return (
        <figure className="overflow-x-auto">
            <svg
                viewBox={`0 0 ${width} ${height}`}
                role="img"
                aria-label={`Power flow. ${said}.`}
                style={{ minWidth: Math.min(width, 720) }}
                className="w-full text-ink"
            >
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
                {rails.map((node) => {
                    const w = gear.speeds[node];
                    const power = loaded.has(node);
                    return (
                        <g key={node}>
                            <text
                                x={10}
                                y={y(node) + 5}
                                fontSize={15}
                                fontWeight={node === train.input || node === train.output ? 700 : 400}
                                fill="currentColor"
                            >
                                {node === train.input ? `▶ ${node}` : node === train.output ? `${node} ▶` : node}
                            </text>
                            <line
                                x1={LEFT - 12}
                                x2={width - RIGHT + 8}
                                y1={y(node)}
                                y2={y(node)}
                                stroke={power ? 'var(--hand)' : 'var(--frame)'}
                                strokeWidth={power ? 6 : 2}
                            />
                            <text
                                x={width - RIGHT + 18}
                                y={y(node) + 5}
                                fontSize={15}
                                className="num"
                                fill="currentColor"
                                fontWeight={power ? 700 : 400}
                            >
                                {turn(w)}
                                {node === train.output && gear.outputTorque !== undefined
                                    ? `, ${gear.outputTorque.toFixed(2)} T`
                                    : ''}
                            </text>
                        </g>
                    );
                })}
                {columns.map((c, i) => {
                    const x = LEFT + COLUMN * (i + 0.5);
                    if (c.kind === 'element') {
                        const on = applied.includes(c.e.id);
                        const t = gear.elementTorque[c.e.id];
                        const [ya, yb] = [y(c.e.a), y(c.e.b)];
                        const mid =
                            c.e.kind === 'brake' || c.e.a === 'case' || c.e.b === 'case' ? TOP - 4 : (ya + yb) / 2;
                        return (
                            <g key={c.e.id}>
                                <title>{`${c.e.id} ${c.e.name ?? ''}: ${on ? `applied${carries(t) ? `, ${Math.abs(t!).toFixed(3)} times the input torque` : ''}` : `released${gear.slip[c.e.id] !== undefined ? `, slips ${gear.slip[c.e.id]!.toFixed(3)}` : ''}`}`}</title>
                                <line
                                    x1={x}
                                    x2={x}
                                    y1={ya}
                                    y2={yb}
                                    stroke={on && carries(t) ? 'var(--hand)' : 'var(--frame)'}
                                    strokeWidth={on && carries(t) ? 6 : 2}
                                    strokeDasharray={on ? undefined : '3 4'}
                                />
                                {[c.e.a, c.e.b]
                                    .filter((n) => n !== 'case')
                                    .map((n) => (
                                        <circle
                                            key={n}
                                            cx={x}
                                            cy={y(n)}
                                            r={5}
                                            fill={on ? 'var(--hand)' : 'var(--frame)'}
                                        />
                                    ))}
                                {c.e.kind === 'one-way' ? (
                                    <circle
                                        cx={x}
                                        cy={mid}
                                        r={12}
                                        fill={on ? 'var(--enamel)' : 'var(--paper)'}
                                        stroke="var(--edge)"
                                        strokeWidth={2}
                                    />
                                ) : (
                                    <rect
                                        x={x - 15}
                                        y={mid - 11}
                                        width={30}
                                        height={22}
                                        fill={on ? 'var(--enamel)' : 'var(--paper)'}
                                        stroke="var(--edge)"
                                        strokeWidth={2}
                                    />
                                )}
                                <text
                                    x={x}
                                    y={mid + 5}
                                    fontSize={13}
                                    fontWeight={600}
                                    textAnchor="middle"
                                    fill={on ? 'var(--enamel-ink)' : 'currentColor'}
                                >
                                    {c.e.id}
                                </text>
                                {on && carries(t) && (
                                    <text x={x + 17} y={mid + 22} fontSize={12} className="num" fill="currentColor">
                                        {Math.abs(t!).toFixed(2)}
                                    </text>
                                )}
                            </g>
                        );
                    }
                    const members = [
                        ['S', c.s.sun, 'sun'],
                        ['C', c.s.carrier, 'carrier'],
                        ['R', c.s.ring, 'ring'],
                    ] as const;
                    const ys = members.map((m) => y(m[1]));
                    const live = members.some((m) => carries(gear.setTorque[c.s.id]?.[m[2]]));
                    return (
                        <g key={c.s.id}>
                            <title>{`${c.s.id}: ${c.s.kind === 'double' ? 'meshed planet pair' : 'simple set'}, sun ${c.s.sunTeeth}, ring ${c.s.ringTeeth}`}</title>
                            <line
                                x1={x}
                                x2={x}
                                y1={Math.min(...ys)}
                                y2={Math.max(...ys)}
                                stroke={live ? 'var(--hand)' : 'var(--frame)'}
                                strokeWidth={live ? 6 : 2}
                            />
                            <text x={x} y={height - 1} fontSize={13} textAnchor="middle" fill="currentColor">
                                {c.s.id}
                                {c.s.kind === 'double' && '″'}
                            </text>
                            {members.map(([letter, node, key]) => (
                                <g key={letter}>
                                    <circle
                                        cx={x}
                                        cy={y(node)}
                                        r={10}
                                        fill="var(--sheet)"
                                        stroke="var(--edge)"
                                        strokeWidth={2}
                                    />
                                    <text
                                        x={x}
                                        y={y(node) + 5}
                                        fontSize={13}
                                        fontWeight={600}
                                        textAnchor="middle"
                                        fill="currentColor"
                                    >
                                        {letter}
                                    </text>
                                    {carries(gear.setTorque[c.s.id]?.[key]) && (
                                        <text
                                            x={x + 13}
                                            y={y(node) - 7}
                                            fontSize={11}
                                            className="num"
                                            fill="currentColor"
                                        >
                                            {gear.setTorque[c.s.id]![key].toFixed(2)}
                                        </text>
                                    )}
                                </g>
                            ))}
                        </g>
                    );
                })}
            </svg>
            <figcaption className="text-sm text-faint">
                S sun, C carrier, R ring (″ meshed planet pair). Right: speed for an input of 1, ▶ with the input, ◀
                backwards. Small numbers: torque for an input torque of 1. Thick: carries torque. Filled: applied.
            </figcaption>
        </figure>
    );
}

/** Speeds of all members against the gears. */
export function SpeedDiagram({ train, gears }: { train: Train; gears: SolvedGear[] }) {
    const driven = gears.filter((g) => g.state === 'driven');
    const nodes = shafts(train);
    const all = driven.flatMap((g) => Object.values(g.speeds));
    const [low, high] = [Math.min(0, ...all), Math.max(1, ...all)];
    const [w, h, l, t] = [620, 300, 44, 14];
    const x = (i: number) => l + (driven.length > 1 ? (i * (w - l - 120)) / (driven.length - 1) : 0);
    const y = (s: number) => t + ((high - s) / (high - low)) * (h - t - 30);
    const dash = ['', '8 4', '2 4', '10 3 2 3', '5 5', '1 6', '12 4', '6 2 2 2'];
    const ends = nodes
        .map((n) => ({ n, y: y(driven.at(-1)?.speeds[n] ?? 0), known: driven.at(-1)?.speeds[n] !== undefined }))
        .filter((e) => e.known)
        .sort((a, b) => a.y - b.y);
    ends.forEach((e, i) => {
        if (i > 0) e.y = Math.max(e.y, ends[i - 1]!.y + 15);
    });
    return (
        <svg
            viewBox={`0 0 ${w} ${h}`}
            role="img"
            aria-label="Speeds of all members by gear, for an input speed of 1"
            className="w-full"
        >
            {[...new Set([Math.ceil(low), 0, 1, Math.floor(high)])].map((v) => (
                <g key={v}>
                    <line x1={l} x2={w - 112} y1={y(v)} y2={y(v)} stroke="var(--rule)" strokeWidth={v === 0 ? 2 : 1} />
                    <text x={l - 8} y={y(v) + 5} fontSize={13} textAnchor="end" fill="var(--faint)">
                        {v}
                    </text>
                </g>
            ))}
            {driven.map((g, i) => (
                <text key={g.name} x={x(i)} y={h - 6} fontSize={14} textAnchor="middle" fill="currentColor">
                    {g.name}
                </text>
            ))}
            {nodes.map((n, k) => (
                <polyline
                    key={n}
                    fill="none"
                    stroke={n === train.output ? 'var(--hand)' : n === train.input ? 'var(--good)' : 'var(--edge)'}
                    strokeWidth={n === train.output || n === train.input ? 4 : 2}
                    strokeDasharray={dash[k % dash.length]}
                    points={driven
                        .map((g, i) => (g.speeds[n] === undefined || g.ratio! < 0 ? '' : `${x(i)},${y(g.speeds[n]!)}`))
                        .filter(Boolean)
                        .join(' ')}
                />
            ))}
            {driven.map(
                (g, i) =>
                    g.ratio! < 0 &&
                    nodes.map(
                        (n) =>
                            g.speeds[n] !== undefined && (
                                <circle
                                    key={g.name + n}
                                    cx={x(i)}
                                    cy={y(g.speeds[n]!)}
                                    r={5}
                                    fill={
                                        n === train.output
                                            ? 'var(--hand)'
                                            : n === train.input
                                              ? 'var(--good)'
                                              : 'var(--edge)'
                                    }
                                />
                            ),
                    ),
            )}
            {ends.map((e) => (
                <text key={e.n} x={x(driven.length - 1) + 10} y={e.y + 4} fontSize={13} fill="currentColor">
                    {e.n}
                </text>
            ))}
        </svg>
    );
}
