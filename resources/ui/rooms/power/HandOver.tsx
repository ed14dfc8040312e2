import { useState } from 'react';
import { Choice, Field, HeadRow, Mark, Panel, ProblemNote } from '../../kit/basics';
import { typedNumber, type Train } from './trains';
import { useAnswer } from './useAnswer';

type Does = { state: string; ratio?: number; as?: string };
type Led = { first: 'release' | 'apply'; seconds: number; heat_j?: number };
type Shift = {
    from: string;
    to: string;
    on: string[];
    off: string[];
    changesHands: boolean;
    neither: Does;
    both: Does;
    driving: Led;
    coasting: Led;
};
type Way = 'driving' | 'coasting';

const WAYS: Record<string, string> = { driving: 'the engine drives', coasting: 'on the overrun' };

type Props = { train: Train; drive: Record<'torque' | 'speed' | 'inertia' | 'time', string> };

/** Up- and downshifts element by element: who comes first, and what happens when nobody or both hold. */
export function HandOver({ train, drive }: Props) {
    const [way, setWay] = useState<Way>('driving');
    const [drag, setDrag] = useState('40');
    const { answered, problem } = useAnswer<{ shifts: Shift[] }>('shift.handover', {
        ...train,
        inputTorque_nm: typedNumber(drive.torque),
        coastTorque_nm: typedNumber(drag),
        inputSpeed_rpm: typedNumber(drive.speed),
        inputInertia_kgm2: typedNumber(drive.inertia),
        shiftTime_s: typedNumber(drive.time),
    });
    return (
        <Panel title="Changing hands, up and down" aside="the output keeps its speed; duty as under “Shift by shift”">
            <div className="flex flex-wrap items-end gap-3">
                <Choice
                    small
                    label="Way of the torque"
                    value={way}
                    values={Object.keys(WAYS)}
                    text={(w) => WAYS[w] ?? w}
                    onChange={(w) => setWay(w === 'coasting' ? 'coasting' : 'driving')}
                />
                <Field
                    className="w-48"
                    label="Overrun torque (N·m)"
                    inputMode="decimal"
                    value={drag}
                    onChange={setDrag}
                />
            </div>
            {problem && <ProblemNote problem={problem} />}
            {answered && <Shifts of={answered.shifts} way={way} />}
        </Panel>
    );
}

const names = (ids: string[]) => ids.join(', ') || 'nothing';

const Shifts = ({ of, way }: { of: Shift[]; way: Way }) => (
    <table className="mt-2 w-full">
        <HeadRow of={['Shift', 'Comes on', 'Lets go', 'Who first', 'Nobody holds', 'Both hold', 'Heat']} />
        <tbody>
            {of.map((s) => (
                <tr key={`${s.from} ${s.to}`}>
                    <th scope="row" className="td text-left whitespace-nowrap">
                        {s.from} to {s.to}
                    </th>
                    <td className="td">{names(s.on)}</td>
                    <td className="td">{names(s.off)}</td>
                    <td className="td">{first(s, s[way])}</td>
                    <td className="td">
                        <Without does={s.neither} shift={s} />
                    </td>
                    <td className="td">
                        <With does={s.both} shift={s} />
                    </td>
                    <td className="td num">
                        {s[way].heat_j === undefined ? '–' : `${(s[way].heat_j / 1000).toFixed(1)} kJ`}
                    </td>
                </tr>
            ))}
        </tbody>
    </table>
);

function first(s: Shift, led: Led): string {
    if (led.first === 'apply') return `${names(s.on)} comes on and does the work`;
    return `${names(s.off)} lets go, caught after ${led.seconds.toFixed(2)} s`;
}

/** While the old element has let go and the new one does not hold yet. */
function Without({ does, shift }: { does: Does; shift: Shift }) {
    if (does.state === 'neutral')
        return (
            <>
                <Mark kind="bad">neutral</Mark> the engine runs up
            </>
        );
    if (does.as === shift.from) return <>stays in {shift.from} by itself</>;
    if (does.as === shift.to) return <>is in {shift.to} already</>;
    return <Mark kind="warn">{does.as ? `falls into ${does.as}` : driven(does)}</Mark>;
}

/** While both elements hold. */
function With({ does, shift }: { does: Does; shift: Shift }) {
    if (does.state === 'locked' || does.state === 'held') return <Mark kind="bad">ties up</Mark>;
    if (does.as === shift.to || does.as === shift.from) return <>drives in {does.as}, no harm</>;
    return <Mark kind="warn">{does.as ? `drives in ${does.as}` : driven(does)}</Mark>;
}

const driven = (does: Does) => (does.ratio === undefined ? does.state : `drives at ${does.ratio.toFixed(3)}`);
