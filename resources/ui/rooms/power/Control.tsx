import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { HeadRow, Mark, Panel, ProblemNote, Select } from '../../kit/basics';
import { percent } from '../../kit/format';
import { useAnswer } from './useAnswer';

type Map = NonNullable<Schemas['Family']['control']>;
type Fault = { solenoid: string; state: string; obtained: Record<string, string>; posterior: number };
type Mapped = { faults: Fault[]; next: { test: string; kind: string; effort: number; gainBits: number }[] };

const NONE = 'none';
const SHOWN = 5;
const STATES: Record<string, string> = { 'stuck-on': 'stays on', 'stuck-off': 'never comes on' };

/** Which solenoids are on in which gear, what a failed one makes of them, and which one explains what was driven. */
export function Control({ control }: { control: Map | null }) {
    const [observed, setObserved] = useState<Record<string, string>>({});
    const effort = Object.fromEntries((control?.solenoids ?? []).map((s) => [s.id, s.effort ?? 1]));
    const { answered, problem } = useAnswer<Mapped>('control.map', control && { ...control, observed, effort });
    if (!control)
        return (
            <Panel title="Solenoids">
                <p>Nothing electric chooses the gears of this family: governor and throttle pressure do.</p>
            </Panel>
        );
    const set = (gear: string) => (obtained: string) => {
        const all = Object.entries({ ...observed, [gear]: obtained });
        setObserved(Object.fromEntries(all.filter(([, got]) => got !== '')));
    };
    return (
        <Panel title="Solenoids" aside="which are on in which gear, and what was driven">
            <div className="grid items-start gap-4 lg:grid-cols-2">
                <Driven {...{ control, observed, set }} />
                <div aria-live="polite">
                    {problem && <ProblemNote problem={problem} />}
                    {answered && <Ranked of={answered} {...{ control, observed }} />}
                </div>
            </div>
        </Panel>
    );
}

type DrivenProps = {
    control: Map;
    observed: Record<string, string>;
    set: (gear: string) => (obtained: string) => void;
};

function Driven({ control, observed, set }: DrivenProps) {
    const came = [
        { value: '', text: 'not said' },
        ...control.states.map((s) => ({ value: s.gear, text: s.gear })),
        { value: NONE, text: 'no gear' },
    ];
    return (
        <table className="w-full">
            <HeadRow of={['Commanded', ...control.solenoids.map((s) => s.id), 'What came']} />
            <tbody>
                {control.states.map((s) => (
                    <tr key={s.gear}>
                        <th scope="row" className="td text-left font-head text-xl">
                            {s.gear}
                        </th>
                        {control.solenoids.map((c) => (
                            <td key={c.id} className="td" title={c.name}>
                                {s.on.includes(c.id) ? '● on' : '○ off'}
                            </td>
                        ))}
                        <td className="td">
                            <Select
                                label={`Came for ${s.gear}`}
                                value={observed[s.gear] ?? ''}
                                onChange={set(s.gear)}
                                options={came}
                            />
                        </td>
                    </tr>
                ))}
            </tbody>
        </table>
    );
}

function nameOf(f: Fault, control: Map): string {
    if (f.solenoid === NONE) return 'Every solenoid works';
    if (f.solenoid === 'limp') return 'Limp: no current, or the controller gave up';
    const name = control.solenoids.find((s) => s.id === f.solenoid)?.name ?? f.solenoid;
    return `${name} ${STATES[f.state] ?? f.state}`;
}

const inWords = (f: Fault) =>
    Object.entries(f.obtained)
        .map(([gear, got]) => `${gear} → ${got === NONE ? 'none' : got}`)
        .join(', ');

function Ranked({ of, control, observed }: { of: Mapped; control: Map; observed: Record<string, string> }) {
    const said = Object.keys(observed).length > 0;
    const [next] = of.next;
    return (
        <>
            <ol>
                {of.faults.slice(0, said ? SHOWN : of.faults.length).map((f, n) => (
                    <li key={`${f.solenoid} ${f.state}`} className="border-b border-rule py-1">
                        <span className="flex justify-between gap-3">
                            <strong className={said && n === 0 ? 'font-head text-2xl' : ''}>
                                {nameOf(f, control)}
                            </strong>
                            {said && <span className="num">{percent(f.posterior)}</span>}
                        </span>
                        <span className="text-sm num">{inWords(f)}</span>
                        {said && n === 0 && <Valves fault={f} control={control} />}
                    </li>
                ))}
            </ol>
            {said && next && next.gainBits > 0 && <Next look={next} control={control} />}
        </>
    );
}

/** A valve that hangs looks like the solenoid that moves it; the solenoid's own test tells them apart. */
function Valves({ fault, control }: { fault: Fault; control: Map }) {
    const moves = control.solenoids.find((s) => s.id === fault.solenoid)?.moves ?? [];
    const hangs = fault.state === 'stuck-off' ? 'hangs at rest' : 'hangs pushed over';
    return moves.length === 0 ? null : (
        <span className="block text-sm">
            Or {moves.join(' or ')} {hangs}: the solenoid then clicks and takes its current.
        </span>
    );
}

function Next({ look, control }: { look: Mapped['next'][number]; control: Map }) {
    const solenoid = control.solenoids.find((s) => s.id === look.test)?.name ?? look.test;
    return (
        <p className="mt-2">
            <Mark kind="next">
                {look.kind === 'gear' ? `next: drive ${look.test}` : `next: test ${solenoid} by itself`}
            </Mark>
        </p>
    );
}
