import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { HeadRow, Mark, Panel, ProblemNote, Select } from '../../kit/basics';
import { percent } from '../../kit/format';
import { LOOK, suspectSaid } from '../../work/suspect';
import type { Train } from './trains';
import { useAnswer } from './useAnswer';

type Suspect = {
    element?: string;
    elements?: string[];
    fault: string;
    posterior: number;
    because: string;
    class: number;
    foretells?: { kind: string; what: string; state: string }[];
};
type Look = { kind: string; what: string; gainBits: number };
type Diagnosed = { suspects: Suspect[]; next: Look[] };
type Said = Record<string, string>;

const GEAR = ['ok', 'slips', 'missing', 'neutral', 'locks', 'wrong-ratio', 'delayed', 'harsh'];
const SHIFT = ['ok', 'flare', 'tie-up', 'delayed', 'harsh'];
const LOCKUP = ['ok', 'none', 'hunts', 'shudder', 'stays-on'];
const PRESSURE = ['low', 'normal', 'high'];
const AIR = ['tight', 'leaks'];
const FOUND = ['sound', 'worn', 'burnt', 'fused', 'broken'];

/** What is looked at once in a unit: field, its words, what may be seen. */
const ONCE: [string, string, string[]][] = [
    ['lockup', 'Lock-up', LOCKUP],
    ['launch', 'Pulls away', ['ok', 'weak']],
    ['idle', 'Idle in gear', ['ok', 'stalls']],
    ['road', 'On the road', ['ok', 'hot', 'slow']],
    ['noise', 'Noise', ['quiet', 'whine', 'growl', 'rattle']],
    ['pan', 'In the pan', ['clean', 'lining', 'metal', 'varnish']],
    ['code', 'Code stored for', ['ratio', 'solenoid', 'pressure', 'lockup']],
];
const SHOWN = 6;
const LOOKS = 3;

const shiftsOf = (train: Train) => {
    const forward = train.gears.map((g) => g.name).filter((g) => /^\d+$/.test(g));
    return forward.slice(1).map((gear, n) => `${forward[n]}-${gear}`);
};

/** From what was driven and gauged to what is wrong: single faults and pairs, and the look that tells most next. */
export function Complaint({ train, causes }: { train: Train; causes: Causes | null }) {
    const [said, setSaid] = useState<Answers>(NOTHING);
    const anything = Object.values(said).some((of) => Object.keys(of).length > 0);
    const { once: seen, ...of } = said;
    const { code, ...once } = seen;
    const codes = code ? { codes: [{ code: 'stored', means: code }] } : {};
    const weak = causes ? { weak: causes.weights } : {};
    const question = { ...train, ...of, ...once, ...codes, ...weak, pairs: true, looks: LOOKS };
    const { answered, problem } = useAnswer<Diagnosed>('diagnose.gears', anything ? question : null);
    return (
        <Panel
            title="From the complaint backwards"
            aside="single faults and pairs, weighed by what the train does with each"
        >
            <div className="grid items-start gap-4 lg:grid-cols-2">
                <div>
                    <WhatIsSaid train={train} said={said} onSay={setSaid} />
                    {causes && <Learned from={causes} />}
                </div>
                <div aria-live="polite">
                    {problem && <ProblemNote problem={problem} />}
                    {answered ? <Found of={answered} /> : <p className="text-faint">Say what it does.</p>}
                </div>
            </div>
        </Panel>
    );
}

type Causes = Schemas['Family']['causes'];

/** What the shop's own teardowns add to the catalog's weak points. */
function Learned({ from: { learns, counts, shipped, weights } }: { from: Causes }) {
    const counted = Object.entries(counts).sort(([, a], [, b]) => b - a);
    const total = counted.reduce((sum, [, n]) => sum + n, 0);
    const cases = `${total} confirmed ${total === 1 ? 'cause' : 'causes'} of this family`;
    if (!learns || total === 0)
        return (
            <p className="text-sm text-faint">
                {learns ? `${cases} yet: ` : 'By the house rule '}as the catalog has it.
            </p>
        );
    return (
        <details className="text-sm">
            <summary className="min-h-11 cursor-pointer py-2">Weighed with {cases}</summary>
            <table className="w-full">
                <HeadRow of={['Element', 'Was the cause', 'As shipped', 'Weighs now']} />
                <tbody>
                    {counted.map(([element, n]) => (
                        <tr key={element}>
                            <th scope="row" className="td text-left">
                                {element}
                            </th>
                            <td className="td num">{n}</td>
                            <td className="td num">×{(shipped[element] ?? 1).toFixed(2)}</td>
                            <td className="td num">×{(weights[element] ?? 1).toFixed(2)}</td>
                        </tr>
                    ))}
                </tbody>
            </table>
            A finding that is no cause any more, or the house rule, takes it back.
        </details>
    );
}

type Answers = Record<'observed' | 'pressures' | 'air' | 'findings' | 'once', Said>;

const NOTHING: Answers = { observed: {}, pressures: {}, air: {}, findings: {}, once: {} };

type SaidProps = { train: Train; said: Answers; onSay: (said: Answers) => void };

/** First what is driven, then what takes the pan, the valve body or the unit apart. */
function WhatIsSaid({ train, said, onSay }: SaidProps) {
    const hydraulic = train.elements.filter((e) => e.kind !== 'one-way').map((e) => e.id);
    const asked = (kind: keyof Answers, title: string, of: string[], states: string[]) => (
        <Asked title={title} of={of} states={states} said={said[kind]} onSay={(s) => onSay({ ...said, [kind]: s })} />
    );
    return (
        <div className="flex flex-col gap-1">
            {asked(
                'observed',
                'Gear',
                train.gears.map((g) => g.name),
                GEAR,
            )}
            {asked('observed', 'Shift', shiftsOf(train), SHIFT)}
            <SeenOnce said={said.once} onSay={(once) => onSay({ ...said, once })} />
            {asked('pressures', 'Pressure', hydraulic, PRESSURE)}
            <details>
                <summary className="min-h-11 cursor-pointer py-2 font-semibold">Air checks, and what was found</summary>
                {asked('air', 'Air into', hydraulic, AIR)}
                {asked(
                    'findings',
                    'Parts of',
                    train.elements.map((e) => e.id),
                    FOUND,
                )}
            </details>
        </div>
    );
}

const SeenOnce = ({ said, onSay }: { said: Said; onSay: (said: Said) => void }) => (
    <div className="flex flex-wrap gap-x-3">
        {ONCE.map(([field, title, states]) => (
            <Asked key={field} title={title} of={[field]} alone states={states} said={said} onSay={onSay} />
        ))}
    </div>
);

type AskedProps = {
    title: string;
    of: string[];
    states: string[];
    said: Said;
    /** The title names it already. */
    alone?: boolean;
    onSay: (said: Said) => void;
};

/** A row of things to say something of; each may be left open. */
function Asked({ title, of, states, said, alone, onSay }: AskedProps) {
    const options = [{ value: '', text: '–' }, ...states.map((s) => ({ value: s, text: s }))];
    const say = (what: string) => (state: string) =>
        onSay(Object.fromEntries(Object.entries({ ...said, [what]: state }).filter(([, s]) => s !== '')));
    return (
        <div className="flex flex-wrap gap-x-3">
            {of.map((what) => (
                <Select
                    key={what}
                    label={alone ? title : `${title} ${what}`}
                    value={said[what] ?? ''}
                    onChange={say(what)}
                    options={options}
                />
            ))}
        </div>
    );
}

const nameOf = (s: Suspect) =>
    s.elements
        ? `${s.elements.join(' and ')} weak together`
        : suspectSaid({ element: s.element ?? '', fault: s.fault });

const SEEN_AT: Record<string, (what: string) => string> = {
    gear: (what) => `gear ${what}`,
    shift: (what) => `shift ${what}`,
    pressure: (what) => `pressure of ${what}`,
    air: (what) => `air into ${what}`,
    finding: (what) => `parts of ${what}`,
    pan: () => 'pan',
    launch: () => 'pulling away',
    idle: () => 'idle in gear',
    road: () => 'on the road',
    noise: () => 'noise',
    lockup: () => 'lock-up',
};

const foretold = ({ kind, what, state }: { kind: string; what: string; state: string }) =>
    `${SEEN_AT[kind]?.(what) ?? what} ${state}`;

function Found({ of: { suspects, next } }: { of: Diagnosed }) {
    return (
        <>
            <ol>
                {suspects.slice(0, SHOWN).map((s, n) => (
                    <li key={nameOf(s)} className="border-b border-rule py-1">
                        <span className="flex items-baseline justify-between gap-3">
                            <strong className={n === 0 ? 'font-head text-2xl' : ''}>{nameOf(s)}</strong>
                            <span className={n === 0 ? 'font-head text-2xl num' : 'num'}>{percent(s.posterior)}</span>
                        </span>
                        <span className="text-sm">{s.because}</span>
                        {s.foretells && s.foretells.length > 0 && (
                            <span className="block text-sm text-faint">
                                Then also: {s.foretells.map(foretold).join(', ')}.
                            </span>
                        )}
                    </li>
                ))}
            </ol>
            {next.map((look, n) => (
                <p key={`${look.kind} ${look.what}`} className={n === 0 ? 'mt-2' : 'text-sm'}>
                    {n === 0 ? (
                        <Mark kind="next">next: {LOOK[look.kind]?.(look.what)}</Mark>
                    ) : (
                        `or ${LOOK[look.kind]?.(look.what) ?? look.what}`
                    )}
                </p>
            ))}
        </>
    );
}
