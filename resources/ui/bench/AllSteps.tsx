import { Tab, TabGroup, TabList, TabPanel, TabPanels } from '@headlessui/react';
import { Mark } from '../kit/basics';
import { moment } from '../kit/format';
import { Graph } from './Graph';
import { Reach } from './Reach';
import type { BenchName, Operation, Work } from './types';

const MARKS = { done: 'good', open: 'next', waits: 'idle', jammed: 'bad' } as const;

type Props = { bench: BenchName; number: string; work: Work; at: string | null; onChoose: (code: string) => void };

/** All operations: as a list, as the graph of what comes before what, or as far as one part needs them. */
export function AllSteps(props: Props) {
    return (
        <TabGroup>
            <TabList className="flex gap-2 border-b border-rule p-1">
                {['List', 'Graph', ...(props.bench === 'teardown' ? ['Come to a part'] : [])].map((t) => (
                    <Tab key={t} className="btn data-selected:bg-enamel data-selected:text-enamel-ink">
                        {t}
                    </Tab>
                ))}
            </TabList>
            <TabPanels>
                <TabPanel>
                    <ol className="divide-y divide-rule">
                        {props.work.operations.map((o) => (
                            <Row key={o.code} operation={o} {...props} />
                        ))}
                    </ol>
                </TabPanel>
                <TabPanel>
                    <Graph {...props} />
                </TabPanel>
                {props.bench === 'teardown' && (
                    <TabPanel>
                        <Reach {...props} />
                    </TabPanel>
                )}
            </TabPanels>
        </TabGroup>
    );
}

function Row({ operation: o, work, at, onChoose }: Omit<Props, 'bench' | 'number'> & { operation: Operation }) {
    const name = (code: string) => work.operations.find((p) => p.code === code)?.name ?? code;
    const why =
        o.barredBy.length > 0
            ? `out of reach while these jam: ${o.barredBy.map(name).join(', ')}`
            : o.waitsFor.length > 0
              ? `after ${o.waitsFor.map(name).join(', ')}`
              : o.reason;
    return (
        <li className={`flex min-h-11 flex-wrap items-center gap-x-3 px-2 ${o.code === at ? 'bg-sheet' : ''}`}>
            <Mark kind={MARKS[o.state]}>{o.state === 'open' ? 'now' : o.state}</Mark>
            {o.state === 'waits' ? (
                <span>{o.name}</span>
            ) : (
                <button
                    type="button"
                    className="min-h-11 text-left font-semibold underline"
                    onClick={() => onChoose(o.code)}
                >
                    {o.name}
                </button>
            )}
            {o.alternative && <span className="text-sm text-faint">another way</span>}
            <span className="text-sm text-faint">
                {o.state === 'done' ? `${o.by}, ${o.at ? moment(o.at) : ''}` : why}
            </span>
        </li>
    );
}
