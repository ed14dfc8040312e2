import { useQuery } from '@tanstack/react-query';
import { answer, api, isProblem, type Schemas } from '../../api/client';
import { Mark } from '../../kit/basics';

type Plan = Schemas['ProgramPlan'];
type Props = { family: string; body: Record<string, unknown> };

/** A program of the cell gone through as it is typed: what is in force when, what is read, what it lacks. */
export function DryRun({ family, body }: Props) {
    const plan = useQuery({
        queryKey: ['program-plan', family, body],
        queryFn: () => answer(api.POST('/catalog/program-plan', { body: { family, body } })),
        placeholderData: (before) => before,
        retry: false,
    });
    if (plan.error) {
        const detail = isProblem(plan.error) ? plan.error.detail : 'The program could not be gone through.';
        return (
            <p role="alert">
                <Mark kind="bad">{detail}</Mark>
            </p>
        );
    }
    return plan.data ? <Gone plan={plan.data} /> : null;
}

function Gone({ plan }: { plan: Plan }) {
    const read = plan.steps.filter((s) => s.read).length;
    return (
        <section aria-label="Dry run" className="my-2 border-y border-rule py-2">
            <p className="flex flex-wrap items-baseline gap-x-4">
                <strong className="num text-xl">{plan.seconds} s</strong>
                {read} of {plan.steps.length} steps last long enough to be read
                {plan.missing.length === 0 && <Mark kind="good">nothing is missing</Mark>}
            </p>
            <Course plan={plan} />
            <p className="text-sm text-faint">
                Height: throttle, pale where a step is too short to be read. Bars below: lock-up on, output held, line
                at full command.
            </p>
            {plan.steps.map(
                (s, n) =>
                    s.waits && (
                        <p key={s.t}>
                            Step {n + 1} waits for {s.waits.for}, {s.waits.within_s} s at most.
                        </p>
                    ),
            )}
            <Said kind="warn" lines={plan.missing} />
            <Said kind="warn" lines={plan.cautions} />
            {plan.windowsWithout.length > 0 && (
                <Said
                    kind="bad"
                    lines={[
                        `No reading for the windows ${plan.windowsWithout.slice(0, 8).join(', ')}: such a run fails.`,
                    ]}
                />
            )}
            <p className="text-sm">
                {plan.shifts.map((s) => `${s.from}-${s.to} at ${s.loads.map(percent).join(', ')}`).join(' · ')}
            </p>
        </section>
    );
}

const percent = (share: number) => `${Math.round(100 * share)} %`;

function Said({ kind, lines }: { kind: 'warn' | 'bad'; lines: string[] }) {
    return lines.map((line) => (
        <p key={line}>
            <Mark kind={kind}>{line}</Mark>
        </p>
    ));
}

const WIDTH = 960;
const HEIGHT = 120;

/** The course of the program: throttle above, the gear below it, what is too short to be read left pale. */
function Course({ plan }: { plan: Plan }) {
    const x = (t: number) => (t / plan.seconds) * WIDTH;
    const gears = plan.steps.filter((s, n) => s.gear !== plan.steps[n - 1]?.gear);
    return (
        <svg
            viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
            className="my-2 w-full"
            role="img"
            aria-label={`Course of the program: ${gears.map((s) => s.gear).join(', ')}`}
        >
            {plan.steps.map((s) => (
                <g key={s.t}>
                    <rect
                        x={x(s.t)}
                        y={80 - 74 * s.throttle}
                        width={Math.max(1, x(s.seconds) - 1)}
                        height={1 + 74 * s.throttle}
                        className={s.read ? 'fill-edge' : 'fill-rule'}
                    >
                        <title>{`${s.t} s, ${s.gear}, throttle ${percent(s.throttle)}, load ${percent(s.load)}`}</title>
                    </rect>
                    {s.lockup && <rect x={x(s.t)} y={84} width={x(s.seconds)} height={4} className="fill-warn" />}
                    {s.held && <rect x={x(s.t)} y={90} width={x(s.seconds)} height={4} className="fill-bad" />}
                    {s.full && <rect x={x(s.t)} y={96} width={x(s.seconds)} height={2} className="fill-ink" />}
                </g>
            ))}
            {gears.map((s) => (
                <text key={s.t} x={x(s.t) + 2} y={112} className="fill-ink text-[16px]">
                    {s.gear}
                </text>
            ))}
        </svg>
    );
}
