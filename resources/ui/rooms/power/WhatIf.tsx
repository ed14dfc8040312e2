import { useState } from 'react';
import { HeadRow, Mark, Panel, ProblemNote, Select } from '../../kit/basics';
import { elementName, type Element, type Train } from './trains';
import { useAnswer } from './useAnswer';

type Fault = { element: string; state: string };
type Does = { state: string; ratio?: number };
type Faulted = {
    gears: (Does & { name: string; sound: Does; changed: boolean; sentence: string })[];
    neutral: Does & { creeps: boolean };
};
type Coasting = {
    gears: { name: string; engineBraking: boolean; overruns: string[] }[];
    coastOnly: string[];
};

const MOST = 4;
const NOBODY = { element: '', times: 0 };
const OF_ONE_WAYS = { free: 'free both ways', locked: 'locked both ways', reversed: 'built in the wrong way round' };
const OF_OTHERS = { 'stuck-off': 'dead, never comes on', 'stuck-on': 'stuck on' };

const statesOf = (element: Element | undefined): Record<string, string> =>
    element?.kind === 'one-way' ? OF_ONE_WAYS : OF_OTHERS;

/** Tapped on the picture: each tap opens the choice anew. */
type Picked = { element: string; times: number };

/** What the train does with elements that fail, and on the coast. */
export function WhatIf({ train, picked = NOBODY }: { train: Train; picked?: Picked }) {
    return (
        <div className="grid items-start gap-3 lg:grid-cols-[3fr_2fr]">
            <Failing train={train} picked={picked} />
            <Coast train={train} />
        </div>
    );
}

function Failing({ train, picked }: { train: Train; picked: Picked }) {
    const [faults, setFaults] = useState<Fault[]>([]);
    const known = faults.filter((f) => train.elements.some((e) => e.id === f.element));
    const { answered, problem } = useAnswer<Faulted>(
        'fault.simulate',
        known.length ? { ...train, faults: known } : null,
    );
    return (
        <Panel title="What if an element fails" aside="solved with what is stuck, dead or turned round">
            {known.length < MOST && (
                <Choose
                    key={picked.times}
                    train={train}
                    picked={picked}
                    taken={known}
                    onAdd={(fault) => setFaults([...known, fault])}
                />
            )}
            <ul className="mt-2 flex flex-wrap gap-2">
                {known.map((f) => (
                    <li key={f.element}>
                        <button
                            type="button"
                            className="btn btn-chosen px-3"
                            onClick={() => setFaults(known.filter((k) => k !== f))}
                        >
                            {f.element} {statesOf(train.elements.find((e) => e.id === f.element))[f.state]}
                            <span aria-hidden="true"> ×</span>
                            <span className="sr-only">, take back</span>
                        </button>
                    </li>
                ))}
            </ul>
            {problem && <ProblemNote problem={problem} />}
            {answered && <Consequences of={answered} />}
        </Panel>
    );
}

type ChooseProps = { train: Train; picked: Picked; taken: Fault[]; onAdd: (fault: Fault) => void };

/** One fault chosen: the element first, then what is wrong with it adds it. */
function Choose({ train, picked, taken, onAdd }: ChooseProps) {
    const [element, setElement] = useState(picked.element);
    const open = train.elements.filter((e) => !taken.some((f) => f.element === e.id));
    const chosen = open.find((e) => e.id === element);
    const add = (state: string) => {
        onAdd({ element, state });
        setElement('');
    };
    return (
        <div className="flex flex-wrap items-end gap-3">
            <div className="w-64">
                <Select
                    label="Element"
                    value={element}
                    onChange={setElement}
                    options={[
                        { value: '', text: 'choose' },
                        ...open.map((e) => ({ value: e.id, text: elementName(e) })),
                    ]}
                />
            </div>
            {chosen &&
                Object.entries(statesOf(chosen))
                    .filter(([state]) => state !== 'reversed' || chosen.locks)
                    .map(([state, text]) => (
                        <button key={state} type="button" className="btn" onClick={() => add(state)}>
                            {text}
                        </button>
                    ))}
        </div>
    );
}

const MARK: Record<string, 'bad' | 'warn'> = { locked: 'bad', held: 'bad' };
const WORD: Record<string, string> = { locked: 'ties up', held: 'holds still', neutral: 'does not drive' };

const does = ({ state, ratio }: Does) => (state === 'driven' && ratio !== undefined ? ratio.toFixed(3) : WORD[state]);

function Consequences({ of: { gears, neutral } }: { of: Faulted }) {
    return (
        <div aria-live="polite">
            <table className="mt-2 w-full">
                <HeadRow of={['Gear', 'As it should be', 'Now', 'What is felt']} />
                <tbody>
                    {gears.map((g) => (
                        <tr key={g.name}>
                            <th scope="row" className="td text-left font-head text-xl">
                                {g.name}
                            </th>
                            <td className="td num">{does(g.sound)}</td>
                            <td className="td num">
                                {g.changed ? <Mark kind={MARK[g.state] ?? 'warn'}>{does(g)}</Mark> : does(g)}
                            </td>
                            <td className={`td ${g.changed ? '' : 'text-faint'}`}>{g.sentence}</td>
                        </tr>
                    ))}
                </tbody>
            </table>
            <p className="mt-1">
                {neutral.creeps ? (
                    <>
                        <Mark kind="bad">Creeps in neutral</Mark> at {does(neutral)}.
                    </>
                ) : (
                    `In neutral it ${neutral.state === 'neutral' ? 'stays free' : (WORD[neutral.state] ?? '')}.`
                )}
            </p>
        </div>
    );
}

function Coast({ train }: { train: Train }) {
    const { answered, problem } = useAnswer<Coasting>('geartrain.coast', train);
    return (
        <Panel title="On the coast" aside="the wheels drive the engine">
            {problem && <ProblemNote problem={problem} />}
            {answered && (
                <>
                    <table className="w-full">
                        <HeadRow of={['Gear', 'Engine braking', 'Overruns']} />
                        <tbody>
                            {answered.gears.map((g) => (
                                <tr key={g.name}>
                                    <th scope="row" className="td text-left font-head text-xl">
                                        {g.name}
                                    </th>
                                    <td className="td">{g.engineBraking ? 'holds back' : 'rolls free'}</td>
                                    <td className="td">{g.overruns.join(', ') || '–'}</td>
                                </tr>
                            ))}
                        </tbody>
                    </table>
                    {answered.coastOnly.length > 0 && (
                        <p className="mt-1">
                            Carries on the coast only: <strong>{answered.coastOnly.join(', ')}</strong>
                        </p>
                    )}
                </>
            )}
        </Panel>
    );
}
