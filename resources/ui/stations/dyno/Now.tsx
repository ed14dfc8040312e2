import type { Schemas } from '../../api/client';

type Step = Schemas['TestStep'];

/** Channels of a live row, the time first, as docs/formats/rig.md has them. */
const [TIME, INPUT, TURBINE, OUTPUT, LINE, TEMPERATURE] = [0, 1, 2, 3, 6, 10];

type Limits = Record<string, { min?: number | null; max?: number | null }>;
type Program = { steps: Step[]; limits: Limits };

/** How the program goes: put off by its waits, and the number of the step that waits now. */
export type Course = { late_s: number; waits: number | null };
export const ON_TIME: Course = { late_s: 0, waits: null };

type Figure = { name: string; value: string; unit: string; read?: number; most?: number | null | undefined };

/** What a step asks for, in words. */
export function stepText({ gear, throttle, load, lockup, hold, line }: Step) {
    return [
        gear && `gear ${gear}`,
        throttle != null && `throttle ${Math.round(throttle * 100)} %`,
        load != null && `load ${Math.round(load * 100)} %`,
        lockup && `lock-up ${lockup}`,
        hold && (hold === 'on' ? 'output held' : 'output let go'),
        line && (line === 'full' ? 'line at full command' : 'line as the throttle asks'),
    ]
        .filter(Boolean)
        .join(', ');
}

const WORDS: Record<string, [string, string]> = { temp_degc: ['the oil', '°C'], line_kpa: ['the line', 'kPa'] };

/** What a step waits for, in words. */
function waitText({ until }: Step) {
    if (!until) return '';
    const [name, unit] = WORDS[until.channel] ?? [until.channel, ''];
    const bound = until.atLeast != null ? `at least ${until.atLeast}` : `at most ${until.atMost}`;
    return `until ${name} is ${bound} ${unit}`.trim();
}

/** When each step comes, its waits so far included. */
function timed(steps: Step[], late: number): Step[] {
    const first = steps.findIndex((s) => s.until);
    return steps.map((s, n) => (first >= 0 && n >= first ? { ...s, t: s.t + late } : s));
}

/** The gear that was asked for last. */
const gearAt = (steps: Step[], t: number) => steps.filter((s) => s.gear && s.t <= t).at(-1)?.gear ?? '–';

/** Lock-up as it was asked for last. */
const isLocked = (steps: Step[], t: number) => steps.filter((s) => s.lockup && s.t <= t).at(-1)?.lockup === 'on';

/** How near a figure is to the most it may be. */
function LimitBar({ read, most, unit }: { read: number; most: number; unit: string }) {
    const over = read > most;
    return (
        <div className="mt-1">
            <div className="h-2 w-full border border-current" aria-hidden="true">
                <div
                    className={`h-full ${over ? 'bg-bad' : 'bg-current'}`}
                    style={{ width: `${Math.min(100, Math.max(0, (100 * read) / most))}%` }}
                />
            </div>
            <div className="text-sm">{over ? `▲ over ${most} ${unit}` : `at most ${most} ${unit}`}</div>
        </div>
    );
}

function figuresOf(row: number[], steps: Step[], limits: Limits): Figure[] {
    const read = (channel: number) => row[channel] ?? 0;
    const t = read(TIME);
    const slip = Math.abs(read(INPUT) - read(TURBINE));
    const figure = (name: string, value: number, unit: string, limit = ''): Figure => ({
        // A hair below nothing is nothing.
        ...{ name, value: (Math.round(value) + 0).toFixed(0), unit, read: value, most: limits[limit]?.max },
    });
    return [
        { name: 'Gear asked', value: gearAt(steps, t), unit: '' },
        figure('Turbine', read(TURBINE), 'rev/min'),
        figure('Output', read(OUTPUT), 'rev/min'),
        figure('Line', read(LINE), 'kPa', 'line_kpa'),
        figure('Oil', read(TEMPERATURE), '°C'),
        ...(isLocked(steps, t) ? [figure('Lock-up slip', slip, 'rev/min', 'lockupSlip_rpm')] : []),
    ];
}

type NowProps = { row: number[] | undefined; program: Program | null; course?: Course };

/** The cell while it runs: what one reads from the door, how near it is to its limits, and what comes next. */
export function Now({ row, program, course = ON_TIME }: NowProps) {
    if (!row) return null;
    const { limits } = program ?? { limits: {} };
    const steps = timed(program?.steps ?? [], course.late_s);
    const waiting = course.waits === null ? undefined : steps[course.waits];
    return (
        <div className="mb-3">
            <dl className="grid grid-cols-6 gap-3">
                {figuresOf(row, steps, limits).map(({ name, value, unit, read = 0, most }) => (
                    <div key={name}>
                        <dt className="text-sm">{name}</dt>
                        <dd>
                            <div className="num text-5xl leading-tight font-semibold whitespace-nowrap">
                                {value} <span className="text-base font-normal">{unit}</span>
                            </div>
                            {most != null && <LimitBar read={read} most={most} unit={unit} />}
                        </dd>
                    </div>
                ))}
            </dl>
            <p className="mt-2 text-lg">
                {waiting ? (
                    <>
                        Waits <strong>{waitText(waiting)}</strong>
                    </>
                ) : (
                    <Next steps={steps} t={row[TIME] ?? 0} />
                )}
            </p>
        </div>
    );
}

function Next({ steps, t }: { steps: Step[]; t: number }) {
    const next = steps.find((s) => s.t > t);
    if (!next) return 'The last step of the program.';
    return (
        <>
            Next in <span className="num">{(next.t - t).toFixed(0)} s</span>:{' '}
            <strong>{[stepText(next), waitText(next)].filter(Boolean).join(', ')}</strong>
        </>
    );
}
