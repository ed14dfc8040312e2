import type { Schemas } from '../../api/client';

type Step = Schemas['TestStep'];

/** Channels of a live row, the time first, as docs/formats/rig.md has them. */
const [TIME, TURBINE, OUTPUT, LINE, TEMPERATURE] = [0, 2, 3, 6, 10];

/** What a step asks for, in words. */
export function stepText({ gear, throttle, load, lockup, hold }: Step) {
    return [
        gear && `gear ${gear}`,
        throttle != null && `throttle ${Math.round(throttle * 100)} %`,
        load != null && `load ${Math.round(load * 100)} %`,
        lockup && `lock-up ${lockup}`,
        hold && (hold === 'on' ? 'output held' : 'output let go'),
    ]
        .filter(Boolean)
        .join(', ');
}

/** The gear that was asked for last. */
const gearAt = (steps: Step[], t: number) => steps.filter((s) => s.gear && s.t <= t).at(-1)?.gear ?? '–';

/** The cell while it runs: what one reads from the door, and what comes next. */
export function Now({ row, steps }: { row: number[] | undefined; steps: Step[] }) {
    if (!row) return null;
    const t = row[TIME] ?? 0;
    const next = steps.find((s) => s.t > t);
    const shown: [string, string, string][] = [
        ['Gear asked', gearAt(steps, t), ''],
        ['Turbine', (row[TURBINE] ?? 0).toFixed(0), 'rev/min'],
        ['Output', (row[OUTPUT] ?? 0).toFixed(0), 'rev/min'],
        ['Line', (row[LINE] ?? 0).toFixed(0), 'kPa'],
        ['Oil', (row[TEMPERATURE] ?? 0).toFixed(0), '°C'],
    ];
    return (
        <div className="mb-3">
            <dl className="grid grid-cols-5 gap-3">
                {shown.map(([name, value, unit]) => (
                    <div key={name}>
                        <dt className="text-sm">{name}</dt>
                        <dd className="num text-5xl leading-tight font-semibold">
                            {value} <span className="text-base font-normal">{unit}</span>
                        </dd>
                    </div>
                ))}
            </dl>
            <p className="mt-2 text-lg">
                {next ? (
                    <>
                        Next in <span className="num">{(next.t - t).toFixed(0)} s</span>:{' '}
                        <strong>{stepText(next)}</strong>
                    </>
                ) : (
                    'The last step of the program.'
                )}
            </p>
        </div>
    );
}
