import type { Schemas } from '../../api/client';
import { HeadRow, Mark, Panel } from '../../kit/basics';
import { More } from '../../kit/More';
import { HeldConverter } from '../../work/HeldConverter';

type Spec = Schemas['Spec'];
type Match = NonNullable<Spec['converterMatch']>;
type Shift = NonNullable<NonNullable<Spec['margins']>['shifts']>[number];

/** The converter behind this engine, how it pulls the mass away, and what each shift asks of the pack that comes on. */
export function Drive({ spec }: { spec: Spec }) {
    const m = spec.converterMatch;
    const shifts = spec.margins?.shifts ?? [];
    if (!m && shifts.length === 0) return null;
    return (
        <Panel title="Pulling away and shifting" aside={m && `${m.stallClass} stall, hub ${m.hub}, ${m.confidence}`}>
            {m && <Stall match={m} />}
            {m && <PullAway match={m} duty={spec.duty} litres={spec.fluid.litres} />}
            {spec.held && <HeldConverter held={spec.held} />}
            {shifts.length > 0 && <Shifts spec={spec} shifts={shifts} />}
            <More className="mt-1" title="What is assumed">
                <ul className="list-disc pl-5 text-sm">
                    {assumedIn(spec).map((a) => (
                        <li key={a}>{a}</li>
                    ))}
                </ul>
            </More>
        </Panel>
    );
}

const assumedIn = ({ converterMatch, margins }: Spec) => [
    ...(converterMatch?.launch?.assumptions ?? []),
    ...(margins?.assumptions ?? []),
];

function Stall({ match: m }: { match: Match }) {
    return (
        <p className="flex flex-wrap items-baseline gap-x-4">
            <span className="font-head text-5xl num">{m.stall_rpm.toFixed(0)}</span>
            <span>
                rev/min at stall{' '}
                {m.fits !== undefined && (
                    <Mark kind={m.fits ? 'good' : 'bad'}>{m.fits ? 'matches' : 'does not match'}</Mark>
                )}
                <span className="block text-sm">
                    {m.name}: ×{m.stallTorqueRatio.toFixed(2)} there, {m.highestTurbineTorque_nm.toFixed(0)} N.m into
                    the train. {m.fits === false && m.message}
                </span>
            </span>
        </p>
    );
}

function PullAway({ match: m, duty, litres }: { match: Match; duty: Spec['duty']; litres: number }) {
    if (m.launch && duty) return <Launch launch={m.launch} duty={duty} litres={litres} gear={m.gear ?? '1'} />;
    return <p className="mt-1 text-sm text-faint">With mass, axle and tyre it says how it pulls away.</p>;
}

const SHIFT_COLUMNS = ['Shift', 'At', 'Comes on', 'Takes', 'Heat', 'On its lining', 'Torque at the output'];

function Shifts({ spec, shifts }: { spec: Spec; shifts: Shift[] }) {
    return (
        <div className="overflow-x-auto">
            <table className="mt-2 w-full text-sm">
                <HeadRow of={SHIFT_COLUMNS} />
                <tbody>
                    {shifts.map((s) => (
                        <ShiftRow key={s.from} spec={spec} shift={s} />
                    ))}
                </tbody>
            </table>
        </div>
    );
}

function ShiftRow({ spec, shift: s }: { spec: Spec; shift: Shift }) {
    const on = s.on.map((id) => spec.elements?.[id] ?? id).join(', ') || 'nothing';
    const heat = s.elements.map((e) => `${(e.energy_j / 1000).toFixed(1)} kJ`).join(', ') || 'not determined';
    return (
        <tr>
            <th scope="row" className="td text-left font-head text-xl whitespace-nowrap">
                {s.from} to {s.to}
            </th>
            <td className="td num whitespace-nowrap">{roadSpeed(spec, s.from)}</td>
            <td className="td">{on}</td>
            <td className="td num">
                {s.elements.map((e) => (
                    <Takes key={e.element} element={e} />
                ))}
            </td>
            <td className="td num whitespace-nowrap">{heat}</td>
            <td className="td num whitespace-nowrap">
                {s.elements.map((e) => (
                    <LiningHeat key={e.element} element={e} />
                ))}
            </td>
            <td className="td num">{torqueSaid(s)}</td>
        </tr>
    );
}

/** The torque at the output before, in and after the shift: with the feel its peak, else what the shift holds. */
function torqueSaid({ elements, outputTorque_nm: torque }: Shift): string {
    const felt = elements.find((e) => e.feel?.outputTorque_nm)?.feel?.outputTorque_nm;
    const during = felt?.peak ?? torque.during;
    return `${torque.before.toFixed(0)}, ${during.toFixed(0)}, then ${torque.after.toFixed(0)} N.m`;
}

function LiningHeat({ element: { perArea_j_mm2: heat, limit_j_mm2: limit, over } }: { element: ShiftElement }) {
    if (heat === undefined) return <span className="block">–</span>;
    const text = `${heat.toFixed(2)}${limit ? ` of ${limit.toFixed(1)}` : ''} J/mm²`;
    return over ? <Mark kind="bad">{text}, too hot</Mark> : <span className="block">{text}</span>;
}

type ShiftElement = Shift['elements'][number];

/** How long the accumulator lets the shift take, and whether it cushions all of it; else the time that was assumed. */
function Takes({ element: { feel, energy_j, meanPower_kw } }: { element: ShiftElement }) {
    if (!feel)
        return (
            <span className="block text-faint">
                {meanPower_kw ? `${(energy_j / 1000 / meanPower_kw).toFixed(2)} s assumed` : 'assumed'}
            </span>
        );
    if (!feel.completes) return <Mark kind="bad">does not take over</Mark>;
    return (
        <span className="block">
            <strong>{((feel.takeOver_s ?? 0) + (feel.duration_s ?? 0)).toFixed(2)} s</strong>, carries after{' '}
            {(feel.takeOver_s ?? 0).toFixed(2)} s{feel.endsInStroke ? '' : '; ends at line pressure'}
        </span>
    );
}

const roadSpeed = (spec: Spec, gear: string) => {
    const v = spec.margins?.gears.find((g) => g.name === gear)?.roadSpeed_kmh;
    return v === undefined ? '–' : `${v.toFixed(0)} km/h`;
};

type LaunchOf = NonNullable<NonNullable<Schemas['Spec']['converterMatch']>['launch']>;

function Launch({
    launch,
    duty,
    litres,
    gear,
}: {
    launch: LaunchOf;
    duty: NonNullable<Schemas['Spec']['duty']>;
    litres: number;
    gear: string;
}) {
    const what = `${duty.mass_kg?.toFixed(0)} kg on a grade of ${duty.grade_pct} %`;
    return (
        <p className="mt-1">
            {launch.reaches && launch.heat_kj !== undefined ? (
                <>
                    Gear {gear} pulls {what} away to {launch.speed_kmh?.toFixed(0)} km/h in{' '}
                    <strong className="num">{launch.time_s?.toFixed(1)} s</strong>;{' '}
                    <strong className="num">{launch.heat_kj.toFixed(0)} kJ</strong> stay in {litres} L of fluid,{' '}
                    <strong className="num">{launch.fluidRise_k?.toFixed(1)} °C</strong> warmer each time.{' '}
                </>
            ) : (
                <>
                    <Mark kind="bad">Hangs</Mark> with {what}: it stays at {launch.hangs?.speed_kmh.toFixed(0)} km/h and
                    puts <strong className="num">{launch.hangs?.heat_kw.toFixed(0)} kW</strong> into the fluid.{' '}
                </>
            )}
            It holds this mass at stall up to {launch.gradeLimit_pct.toFixed(0)} %.
        </p>
    );
}
