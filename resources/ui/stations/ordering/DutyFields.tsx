import { fieldProblem, type Problem, type Schemas } from '../../api/client';
import { Field, Panel, TextArea } from '../../kit/basics';
import { More } from '../../kit/More';

const TYPED = ['engineTorque', 'engineCurve', 'shiftSpeed', 'mass', 'axle', 'tyre', 'grade'] as const;
export type DutyTyped = Record<(typeof TYPED)[number], string> & { hold: boolean };

/** The duty typed on a saved draft. */
export function dutyOf(lines: unknown): DutyTyped {
    const duty = (lines as { duty?: Partial<DutyTyped> | null } | undefined)?.duty;
    return {
        ...(Object.fromEntries(TYPED.map((k) => [k, duty?.[k] ?? ''])) as Record<(typeof TYPED)[number], string>),
        hold: duty?.hold ?? true,
    };
}

type Known = NonNullable<Schemas['Spec']['duty']>;
type Quantity = Exclude<(typeof TYPED)[number], 'engineCurve'>;

/** The fields with what may be typed, and what stands there when the field stays empty and the vehicle knows. */
const QUANTITIES: { key: Quantity; label: string; hint: string; known: (duty: Known) => string | null }[] = [
    {
        key: 'engineTorque',
        label: 'Engine torque',
        hint: 'N.m, or type lbf.ft',
        known: (d) => `${d.engineTorque_nm} N.m`,
    },
    { key: 'shiftSpeed', label: 'Shift speed', hint: 'rev/min', known: (d) => `${d.shiftSpeed_rpm} rev/min` },
    {
        key: 'mass',
        label: 'Mass with trailer',
        hint: 'kg, or type lb',
        known: (d) => (d.mass_kg ? `${d.mass_kg} kg, no trailer` : null),
    },
    {
        key: 'axle',
        label: 'Axle ratio',
        hint: 'such as 3.73',
        known: (d) => (d.axleRatio ? String(d.axleRatio) : null),
    },
    { key: 'tyre', label: 'Tyre', hint: 'such as 235/60R16', known: (d) => d.tyre ?? null },
    { key: 'grade', label: 'Pulls away on (%)', hint: 'grade', known: (d) => `grade of ${d.grade_pct} %` },
];

type DutyFieldsProps = {
    duty: DutyTyped;
    spec: Schemas['Spec'] | null;
    problem: Problem | null;
    onChange: (change: Partial<DutyTyped>) => void;
};

/** What the unit will have to hold. What stays empty comes from the vehicle, and says so. */
export function DutyFields({ duty, spec, problem, onChange }: DutyFieldsProps) {
    const known = spec?.duty ?? null;
    return (
        <Panel title="Duty" aside="left empty: from the vehicle">
            <div className="grid grid-cols-2 gap-3">
                {QUANTITIES.map((q) => (
                    <Field
                        key={q.key}
                        label={q.label}
                        value={duty[q.key]}
                        onChange={(v) => onChange({ [q.key]: v })}
                        hint={hintOf(q, duty, known)}
                        problem={fieldProblem(problem, `/duty/${q.key}`)}
                    />
                ))}
            </div>
            <EngineCurve
                typed={duty.engineCurve}
                known={known}
                problem={fieldProblem(problem, '/duty/engineCurve')}
                onChange={(engineCurve) => onChange({ engineCurve })}
            />
            <label className="mt-1 flex min-h-11 items-center gap-2">
                <input
                    type="checkbox"
                    className="size-5 accent-[var(--hand)]"
                    checked={duty.hold}
                    onChange={() => onChange({ hold: !duty.hold })}
                />
                Bring every margin over the house limit, and the stall into its window
            </label>
        </Panel>
    );
}

function hintOf(q: (typeof QUANTITIES)[number], duty: DutyTyped, known: Known | null): string {
    const from = known && !duty[q.key] ? q.known(known) : null;
    const rolls = q.key === 'tyre' && known?.tyreRadius_mm ? `rolls on ${known.tyreRadius_mm.toFixed(0)} mm` : null;
    return [from, rolls].filter(Boolean).join(', ') || q.hint;
}

type EngineCurveProps = {
    typed: string;
    known: Known | null;
    problem: string | undefined;
    onChange: (typed: string) => void;
};

function EngineCurve({ typed, known, problem, onChange }: EngineCurveProps) {
    const points = known?.curve ?? [];
    const from = points.length
        ? `${points.length} points of the ${known?.curveFrom}`
        : 'not known, the peak counts at every speed';
    return (
        <More className="mt-2" open={typed !== '' || !!problem} title={`Engine curve: ${from}`}>
            <CurveLine points={points} />
            <TextArea label="rev/min and N.m, point by point" value={typed} onChange={onChange} problem={problem} />
            <p className="text-sm text-faint">
                Such as 1500 220, 3000 305, 5200 260. A torque given above scales the curve to that peak.
            </p>
        </More>
    );
}

function CurveLine({ points }: { points: { speed_rpm: number; torque_nm: number }[] }) {
    const [first, last] = [points[0], points.at(-1)];
    if (!first || !last) return null;
    const [w, h, l, b] = [380, 110, 34, 20];
    const x = (n: number) => l + (n / last.speed_rpm) * (w - l - 30);
    const peak = Math.max(...points.map((p) => p.torque_nm));
    const y = (t: number) => h - b - (t / peak) * (h - b - 12);
    const faint = { fontSize: 12, fill: 'var(--faint)' };
    return (
        <svg
            viewBox={`0 0 ${w} ${h}`}
            role="img"
            aria-label={`Torque over speed, peak ${peak.toFixed(0)} N.m`}
            className="w-full"
        >
            <path d={`M${l} 6V${h - b}H${w - 20}`} fill="none" stroke="var(--frame)" />
            <text x={l - 5} y={16} textAnchor="end" {...faint}>
                {peak.toFixed(0)}
            </text>
            {points.map((p) => (
                <circle key={p.speed_rpm} cx={x(p.speed_rpm)} cy={y(p.torque_nm)} r={3} fill="var(--edge)" />
            ))}
            {[first, last].map((p) => (
                <text key={p.speed_rpm} x={x(p.speed_rpm)} y={h - 5} textAnchor="middle" {...faint}>
                    {p.speed_rpm}
                </text>
            ))}
            <polyline
                fill="none"
                stroke="var(--edge)"
                strokeWidth={2.5}
                points={points.map((p) => `${x(p.speed_rpm)},${y(p.torque_nm)}`).join(' ')}
            />
        </svg>
    );
}
