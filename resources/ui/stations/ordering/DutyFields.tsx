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

/** What the unit will have to hold. What stays empty comes from the vehicle, and says so. */
export function DutyFields({
    duty,
    spec,
    problem,
    onChange,
}: {
    duty: DutyTyped;
    spec: Schemas['Spec'] | null;
    problem: Problem | null;
    onChange: (change: Partial<DutyTyped>) => void;
}) {
    const known = spec?.duty;
    const own = (field: keyof DutyTyped, text: string | null | undefined, else_: string) =>
        known && !duty[field] && text ? text : else_;
    const field = (key: (typeof TYPED)[number], label: string, hint: string) => (
        <Field
            label={label}
            value={duty[key]}
            onChange={(v) => onChange({ [key]: v })}
            hint={hint}
            problem={fieldProblem(problem, `/duty/${key}`)}
        />
    );
    return (
        <Panel title="Duty" aside="left empty: from the vehicle">
            <div className="grid grid-cols-2 gap-3">
                {field(
                    'engineTorque',
                    'Engine torque',
                    own('engineTorque', known && `${known.engineTorque_nm} N.m`, 'N.m, or type lbf.ft'),
                )}
                {field(
                    'shiftSpeed',
                    'Shift speed',
                    own('shiftSpeed', known && `${known.shiftSpeed_rpm} rev/min`, 'rev/min'),
                )}
                {field(
                    'mass',
                    'Mass with trailer',
                    own('mass', known?.mass_kg ? `${known.mass_kg} kg, no trailer` : null, 'kg, or type lb'),
                )}
                {field(
                    'axle',
                    'Axle ratio',
                    own('axle', known?.axleRatio ? String(known.axleRatio) : null, 'such as 3.73'),
                )}
                {field(
                    'tyre',
                    'Tyre',
                    known?.tyreRadius_mm
                        ? `${duty.tyre ? '' : `${known.tyre}, `}rolls on ${known.tyreRadius_mm.toFixed(0)} mm`
                        : 'such as 235/60R16',
                )}
                {field('grade', 'Pulls away on (%)', known ? `grade of ${known.grade_pct} %` : 'grade')}
            </div>
            <More
                className="mt-2"
                open={duty.engineCurve !== '' || !!fieldProblem(problem, '/duty/engineCurve')}
                title={
                    <>
                        Engine curve:{' '}
                        {known?.curve.length
                            ? `${known.curve.length} points of the ${known.curveFrom}`
                            : 'not known, the peak counts at every speed'}
                    </>
                }
            >
                {known && known.curve.length > 0 && <CurveLine points={known.curve} />}
                <TextArea
                    label="rev/min and N.m, point by point"
                    value={duty.engineCurve}
                    onChange={(engineCurve) => onChange({ engineCurve })}
                    problem={fieldProblem(problem, '/duty/engineCurve')}
                />
                <p className="text-sm text-faint">
                    Such as 1500 220, 3000 305, 5200 260. A torque given above scales the curve to that peak.
                </p>
            </More>
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

function CurveLine({ points }: { points: { speed_rpm: number; torque_nm: number }[] }) {
    const [w, h, l, b] = [380, 110, 34, 20];
    const x = (n: number) => l + (n / points.at(-1)!.speed_rpm) * (w - l - 30);
    const peak = Math.max(...points.map((p) => p.torque_nm));
    const y = (t: number) => h - b - (t / peak) * (h - b - 12);
    return (
        <svg
            viewBox={`0 0 ${w} ${h}`}
            role="img"
            aria-label={`Torque over speed, peak ${peak.toFixed(0)} N.m`}
            className="w-full"
        >
            <line x1={l} x2={l} y1={6} y2={h - b} stroke="var(--frame)" />
            <line x1={l} x2={w - 20} y1={h - b} y2={h - b} stroke="var(--frame)" />
            <text x={l - 5} y={16} fontSize={12} textAnchor="end" fill="var(--faint)">
                {peak.toFixed(0)}
            </text>
            {points.map((p) => (
                <g key={p.speed_rpm}>
                    <circle cx={x(p.speed_rpm)} cy={y(p.torque_nm)} r={3} fill="var(--edge)" />
                </g>
            ))}
            <text x={x(points[0]!.speed_rpm)} y={h - 5} fontSize={12} textAnchor="middle" fill="var(--faint)">
                {points[0]!.speed_rpm}
            </text>
            <text x={x(points.at(-1)!.speed_rpm)} y={h - 5} fontSize={12} textAnchor="middle" fill="var(--faint)">
                {points.at(-1)!.speed_rpm}
            </text>
            <polyline
                fill="none"
                stroke="var(--edge)"
                strokeWidth={2.5}
                points={points.map((p) => `${x(p.speed_rpm)},${y(p.torque_nm)}`).join(' ')}
            />
        </svg>
    );
}
