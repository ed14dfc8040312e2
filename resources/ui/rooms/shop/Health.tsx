import { useQuery } from '@tanstack/react-query';
import { answer, api, type Schemas } from '../../api/client';
import { Mark, Panel } from '../../kit/basics';
import { Pending } from '../../kit/Fetched';
import { moment } from '../../kit/format';

type Vital = Schemas['Health']['vitals'][number];

const LOOK_AGAIN_MS = 10_000;

const STATES = {
    good: { kind: 'good', word: 'Good' },
    weak: { kind: 'warn', word: 'Look at it' },
    bad: { kind: 'bad', word: 'Wrong' },
} as const;

/** What the shop needs to work, the worst first, and what to do about it. */
export function Health() {
    const health = useQuery({
        queryKey: ['health'],
        queryFn: () => answer(api.GET('/health')),
        refetchInterval: LOOK_AGAIN_MS,
    });
    if (!health.data) return <Pending of={[health]} what="the health of the shop" />;
    const wrong = health.data.vitals.filter((v) => v.state !== 'good');
    const well = health.data.vitals.filter((v) => v.state === 'good');
    return (
        <>
            <div className="mb-2 flex items-baseline gap-4">
                <h1 className="flex-1 text-3xl">Health</h1>
                <span className="text-faint">looked at {moment(health.data.at)}, again every 10 s</span>
            </div>
            <div className="grid items-start gap-3 lg:grid-cols-[3fr_2fr]">
                <Panel title={wrong.length === 0 ? 'Nothing needs you' : 'Needs somebody'}>
                    <div aria-live="polite">
                        {wrong.length === 0 ? (
                            <Mark kind="good">Everything the shop stands on works.</Mark>
                        ) : (
                            <ul className="grid gap-3">
                                {wrong.map((v) => (
                                    <Ailing key={v.name} vital={v} />
                                ))}
                            </ul>
                        )}
                    </div>
                </Panel>
                <Panel title="Works">
                    <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
                        {well.map((v) => (
                            <Well key={v.name} vital={v} />
                        ))}
                    </dl>
                </Panel>
            </div>
        </>
    );
}

function Ailing({ vital }: { vital: Vital }) {
    const { kind, word } = STATES[vital.state];
    return (
        <li className="border-b border-rule pb-2 last:border-0">
            <p className="flex items-baseline gap-3 text-xl">
                <strong className="flex-1">{vital.name}</strong>
                <Mark kind={kind}>{word}</Mark>
            </p>
            <p>{vital.says}</p>
            <p className="text-faint">{vital.mend}</p>
        </li>
    );
}

function Well({ vital }: { vital: Vital }) {
    return (
        <>
            <dt>
                <Mark kind="good">{vital.name}</Mark>
            </dt>
            <dd className="text-faint">{vital.says}</dd>
        </>
    );
}
