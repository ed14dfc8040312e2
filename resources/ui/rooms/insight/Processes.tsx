import { useQuery } from '@tanstack/react-query';
import { useNavigate, useParams } from 'react-router';
import { answer, api, type Schemas } from '../../api/client';
import { Mark, Panel, Select } from '../../kit/basics';
import { ControlChart } from '../../kit/ControlChart';
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

/** The points with centre, three-sigma limits and the window; what ends a pattern is marked. */
function Drawn({ chart: c }: { chart: Chart }) {
    const flagged = new Set(c.signals.map((s) => s.index - 1));
    return (
        <ControlChart
            label={`${c.name} build by build`}
            points={c.points.map((p, n) => ({
                value: p.value,
                title: `${p.serial}: ${p.value} ${c.unit}`,
                flagged: flagged.has(n),
            }))}
            levels={[
                { at: c.window.max, kind: 'limit' },
                { at: c.window.min, kind: 'limit' },
                { at: c.upper, kind: 'usual' },
                { at: c.lower, kind: 'usual' },
                { at: c.centre, kind: 'centre' },
            ]}
        />
    );
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
