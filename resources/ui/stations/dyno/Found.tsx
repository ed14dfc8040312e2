import { Mark, Panel } from '../../kit/basics';
import type { TraceMark } from '../../kit/TraceChart';

type Stretch = { from_s: number; to_s: number };
type Bounds = [number, number];

/** What the page reads of an analysed trace; runs analysed earlier know less. */
export type Analysis = {
    shifts?: (Omit<TraceMark, 'text'> & {
        from: string;
        to: string;
        duration_s: number;
        flare_rpm: number;
        confidence?: { flare_rpm: Bounds; duration_s: Bounds };
    })[];
    unmeasured?: (Stretch & { from: string; to: string; reason: string })[];
    slips?: (Stretch & { gear: string; slip_rpm: number; slip_pct: number })[];
    warnings?: { code: string; message: string }[];
    suspects?: { element: string; because: string; posterior: number | null }[];
};

type SuspectsProps = { of: Analysis['suspects']; names?: Record<string, string> };

/** Whom the run makes suspect, the likeliest first. */
export function Suspects({ of, names = {} }: SuspectsProps) {
    if (!of?.length) return null;
    return (
        <Panel title="Suspects by this run" aside="the likeliest first">
            <ol className="flex flex-col gap-2">
                {of.slice(0, 4).map((s) => (
                    <li key={s.element}>
                        <strong>{[s.element, names[s.element]].filter(Boolean).join(' ')}</strong>
                        {s.posterior !== null && <span className="num"> {Math.round(s.posterior * 100)} %</span>}
                        <br />
                        <span className="text-sm">{s.because}</span>
                    </li>
                ))}
            </ol>
        </Panel>
    );
}

export const marksOf = (analysis: Analysis | null | undefined): TraceMark[] => [
    ...(analysis?.shifts ?? []).map((s) => ({ text: `${s.from}-${s.to}`, start_s: s.start_s, end_s: s.end_s })),
    ...(analysis?.slips ?? []).map((s) => ({ text: `slip ${s.gear}`, start_s: s.from_s, end_s: s.to_s })),
];

/** The widest half of the bounds. */
const widest = (bounds: Bounds[]) => Math.max(0, ...bounds.map(([low, high]) => (high - low) / 2));

/** How far shift times and flares may be off. */
const openOf = (sure: { flare_rpm: Bounds; duration_s: Bounds }[]) => {
    const seconds = widest(sure.map((c) => c.duration_s)).toFixed(3);
    const speed = widest(sure.map((c) => c.flare_rpm)).toFixed(0);
    return `shift times ±${seconds} s, flares ±${speed} rev/min`;
};

/** What the trace says beside the checks: slip in gear, what could not be measured, what the noise leaves open. */
export function Found({ analysis }: { analysis: Analysis | null | undefined }) {
    const { shifts = [], slips = [], unmeasured = [], warnings = [] } = analysis ?? {};
    const sure = shifts.flatMap((s) => (s.confidence ? [s.confidence] : []));
    if (slips.length + unmeasured.length + warnings.length + sure.length === 0) return null;
    return (
        <ul className="mt-2 flex flex-col gap-1 text-sm">
            {slips.map((s) => (
                <li key={`${s.gear} ${s.from_s}`}>
                    <Mark kind="bad">slip in gear {s.gear}</Mark>{' '}
                    <span className="num">
                        {s.slip_rpm.toFixed(0)} rev/min, {s.slip_pct.toFixed(1)} %, from {s.from_s.toFixed(2)} to{' '}
                        {s.to_s.toFixed(2)} s
                    </span>
                </li>
            ))}
            {warnings.map((w) => (
                <li key={w.message}>
                    <Mark kind="warn">the recording</Mark> {w.message}
                </li>
            ))}
            {unmeasured.map((s) => (
                <li key={`${s.from}-${s.to} ${s.from_s}`}>
                    <Mark kind="warn">
                        {s.from}-{s.to} not measured
                    </Mark>{' '}
                    {s.reason}
                </li>
            ))}
            {sure.length > 0 && <li className="num text-faint">What the noise leaves open (95 %): {openOf(sure)}.</li>}
        </ul>
    );
}
