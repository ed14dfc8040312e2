import { useQuery } from '@tanstack/react-query';
import { useNavigate, useParams } from 'react-router';
import { answer, api, type Schemas } from '../../api/client';
import { Mark, Panel, Select } from '../../kit/basics';
import { Fetched, Pending } from '../../kit/Fetched';
import { moment } from '../../kit/format';

type Chart = Schemas['Process'];

/** What the bench reaches, place by place: whether a process runs by itself, and whether that fits its window. */
export function Processes() {
    const { family, kind, code } = useParams();
    const go = useNavigate();
    const choices = useQuery({ queryKey: ['processes'], queryFn: () => answer(api.GET('/processes')) });
    if (!choices.data) return <Pending of={[choices]} what="the places" />;
    const chosen = choices.data.families.find((f) => f.family === family);
    return (
        <>
            <h1 className="mb-2 text-3xl">What the bench reaches</h1>
            <div className="mb-3 flex flex-wrap gap-3">
                <Select
                    label="Family"
                    value={family ?? ''}
                    empty="which family?"
                    options={choices.data.families.map((f) => ({ value: f.family, text: f.name }))}
                    onChange={(f) => void go(`/processes/${f}`)}
                />
                {chosen && (
                    <Select
                        label="Place"
                        value={kind && code ? `${kind}/${code}` : ''}
                        empty="which place?"
                        options={chosen.places.map((p) => ({ value: `${p.kind}/${p.code}`, text: p.name }))}
                        onChange={(p) => void go(`/processes/${family}/${p}`)}
                    />
                )}
            </div>
            {family && kind && code ? (
                <OneProcess key={`${family} ${kind} ${code}`} {...{ family, kind, code }} />
            ) : (
                <p className="sheet p-4 text-faint">Choose a family and a place of it.</p>
            )}
        </>
    );
}

function OneProcess(path: { family: string; kind: string; code: string }) {
    const process = useQuery({
        queryKey: ['process', path],
        queryFn: () => answer(api.GET('/processes/{family}/{kind}/{code}', { params: { path } })),
    });
    return (
        <Fetched query={process} what="the chart">
            {(c) => (
                <Panel title={c.name} aside={`${c.points.length} builds, the newest at the right`}>
                    <Figures chart={c} />
                    {c.points.length > 1 && <Drawn chart={c} />}
                    <Signals chart={c} />
                </Panel>
            )}
        </Fetched>
    );
}

/** What a Cpk comes to; below 1 the process is wider than its window. */
function verdict(cpk: number, goal: number): ['good' | 'warn' | 'bad', string] {
    if (cpk >= goal) return ['good', 'fits its window'];
    return cpk >= 1 ? ['warn', 'just fits'] : ['bad', 'does not fit its window'];
}

const digits = (v: number | null) => v?.toPrecision(4) ?? '–';

function Figures({ chart: c }: { chart: Chart }) {
    if (c.why) return <p className="text-lg">{c.why}</p>;
    const [kind, words] = verdict(c.Cpk ?? 0, c.goal);
    return (
        <p className="flex flex-wrap items-baseline gap-x-6">
            <span className="font-head text-5xl num">{c.Cpk?.toFixed(2)}</span>
            <Mark kind={kind}>Cpk: {words}</Mark>
            {c.Cp !== null && <span className="num">Cp {c.Cp.toFixed(2)}</span>}
            <span className="num">
                centre {digits(c.centre)} {c.unit}, by itself {digits(c.lower)} to {digits(c.upper)}
            </span>
        </p>
    );
}

const WIDTH = 960;
const HEIGHT = 320;
const LEFT = 70;

type Scale = { x: (n: number) => number; y: (v: number) => number };

function scaleOf(c: Chart): Scale {
    const values = c.points.map((p) => p.value);
    const all = [...values, c.lower, c.upper, c.window.min, c.window.max].filter((v) => typeof v === 'number');
    const [least, most] = [Math.min(...all), Math.max(...all)];
    const pad = (most - least || 1) * 0.06;
    return {
        x: (n) => LEFT + 10 + (n * (WIDTH - LEFT - 30)) / Math.max(1, values.length - 1),
        y: (v) => HEIGHT - 20 - ((v - least + pad) / (most - least + 2 * pad)) * (HEIGHT - 40),
    };
}

/** The points with centre, three-sigma limits and the window. */
function Drawn({ chart: c }: { chart: Chart }) {
    const scale = scaleOf(c);
    const label = `${c.name} build by build`;
    return (
        <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="my-2 w-full" role="img" aria-label={label}>
            <Levels chart={c} scale={scale} />
            <polyline
                points={c.points.map((p, n) => `${scale.x(n)},${scale.y(p.value)}`).join(' ')}
                fill="none"
                className="stroke-faint"
                strokeWidth="1"
            />
            <Points chart={c} scale={scale} />
        </svg>
    );
}

function Levels({ chart: c, scale }: { chart: Chart; scale: Scale }) {
    const lines: [number | null | undefined, string, string | undefined][] = [
        [c.window.max, 'stroke-bad', undefined],
        [c.window.min, 'stroke-bad', undefined],
        [c.upper, 'stroke-warn', '6 4'],
        [c.lower, 'stroke-warn', '6 4'],
        [c.centre, 'stroke-edge', undefined],
    ];
    return lines.map(([v, stroke, dash], n) =>
        typeof v === 'number' ? (
            <g key={n}>
                <line
                    x1={LEFT}
                    x2={WIDTH - 10}
                    y1={scale.y(v)}
                    y2={scale.y(v)}
                    className={stroke}
                    strokeWidth="1.5"
                    strokeDasharray={dash}
                />
                <text x={LEFT - 6} y={scale.y(v) + 4} textAnchor="end" className="fill-ink num text-[13px]">
                    {v.toPrecision(4)}
                </text>
            </g>
        ) : null,
    );
}

/** What ends a pattern is square and red, the rest round. */
function Points({ chart: c, scale }: { chart: Chart; scale: Scale }) {
    const flagged = new Set(c.signals.map((s) => s.index - 1));
    return c.points.map((p, n) => {
        const [x, y] = [scale.x(n), scale.y(p.value)];
        const title = <title>{`${p.serial}: ${p.value} ${c.unit}`}</title>;
        return flagged.has(n) ? (
            <rect key={n} x={x - 6} y={y - 6} width="12" height="12" className="fill-bad">
                {title}
            </rect>
        ) : (
            <circle key={n} cx={x} cy={y} r="4" className="fill-ink">
                {title}
            </circle>
        );
    });
}

function Signals({ chart: c }: { chart: Chart }) {
    if (c.why) return null;
    if (c.signals.length === 0) return <p>Nothing but chance shows in these builds.</p>;
    return (
        <ul>
            {c.signals.map((s, n) => {
                const point = c.points[s.index - 1];
                return (
                    <li key={n} className="border-b border-rule py-1">
                        <Mark kind="bad">{c.rules[String(s.rule)] ?? `rule ${s.rule}`}</Mark> ends at{' '}
                        <strong className="num">{point?.serial}</strong>, {point?.value} {c.unit}
                        {point && <span className="text-sm text-faint"> {moment(point.at)}</span>}
                    </li>
                );
            })}
        </ul>
    );
}
