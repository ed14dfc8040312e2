import { useState } from 'react';
import { Mark, Panel, ProblemNote, Select } from '../../kit/basics';
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
};
type Look = { kind: string; what: string; gainBits: number };
type Diagnosed = { suspects: Suspect[]; next: Look[] };
type Said = Record<string, string>;

const GEAR = ['ok', 'slips', 'missing', 'neutral', 'locks', 'wrong-ratio', 'delayed', 'harsh'];
const SHIFT = ['ok', 'flare', 'tie-up', 'delayed', 'harsh'];
const LOCKUP = ['ok', 'none', 'hunts', 'shudder', 'stays-on'];
const PRESSURE = ['low', 'normal', 'high'];
const SHOWN = 6;
const LOOKS = 3;

const shiftsOf = (train: Train) => {
    const forward = train.gears.map((g) => g.name).filter((g) => /^\d+$/.test(g));
    return forward.slice(1).map((gear, n) => `${forward[n]}-${gear}`);
};

/** From what was driven and gauged to what is wrong: single faults and pairs, and the look that tells most next. */
export function Complaint({ train }: { train: Train }) {
    const [observed, setObserved] = useState<Said>({});
    const [pressures, setPressures] = useState<Said>({});
    const { lockup, ...gears } = observed;
    const said = Object.keys(observed).length + Object.keys(pressures).length > 0;
    const question = { ...train, observed: gears, pressures, pairs: true, looks: LOOKS, ...(lockup ? { lockup } : {}) };
    const { answered, problem } = useAnswer<Diagnosed>('diagnose.gears', said ? question : null);
    return (
        <Panel
            title="From the complaint backwards"
            aside="single faults and pairs, weighed by what the train does with each"
        >
            <div className="grid items-start gap-4 lg:grid-cols-2">
                <div>
                    <Asked
                        title="Gear"
                        of={train.gears.map((g) => g.name)}
                        states={GEAR}
                        said={observed}
                        onSay={setObserved}
                    />
                    <Asked title="Shift" of={shiftsOf(train)} states={SHIFT} said={observed} onSay={setObserved} />
                    <Asked title="Lock-up" of={['lockup']} states={LOCKUP} said={observed} onSay={setObserved} />
                    <Asked
                        title="Pressure"
                        of={train.elements.filter((e) => e.kind !== 'one-way').map((e) => e.id)}
                        states={PRESSURE}
                        said={pressures}
                        onSay={setPressures}
                    />
                </div>
                <div aria-live="polite">
                    {problem && <ProblemNote problem={problem} />}
                    {answered ? <Found of={answered} /> : <p className="text-faint">Say what it does.</p>}
                </div>
            </div>
        </Panel>
    );
}

type AskedProps = {
    title: string;
    of: string[];
    states: string[];
    said: Said;
    onSay: (said: Said) => void;
};

/** A row of things to say something of; each may be left open. */
function Asked({ title, of, states, said, onSay }: AskedProps) {
    const options = [{ value: '', text: '–' }, ...states.map((s) => ({ value: s, text: s }))];
    const say = (what: string) => (state: string) =>
        onSay(Object.fromEntries(Object.entries({ ...said, [what]: state }).filter(([, s]) => s !== '')));
    return (
        <div className="flex flex-wrap gap-x-3">
            {of.map((what) => (
                <Select
                    key={what}
                    label={what === 'lockup' ? title : `${title} ${what}`}
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
