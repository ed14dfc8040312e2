import type { Schemas } from '../../api/client';
import { HeadRow, Mark, Panel } from '../../kit/basics';
import { More } from '../../kit/More';

/** The converter behind this engine, how it pulls the mass away, and what each shift asks of the pack that comes on. */
export function Drive({ spec }: { spec: Schemas['Spec'] }) {
    const m = spec.converterMatch;
    const shifts = spec.margins?.shifts ?? [];
    if (!m && shifts.length === 0) return null;
    const heat = (e: NonNullable<typeof shifts>[number]['elements'][number]) =>
        e.perArea_j_mm2 === undefined
            ? '–'
            : `${e.perArea_j_mm2.toFixed(2)}${e.limit_j_mm2 ? ` of ${e.limit_j_mm2.toFixed(1)}` : ''} J/mm²`;
    return (
        <Panel
            title="Pulling away and shifting"
            aside={m ? `${m.stallClass} stall, hub ${m.hub}, ${m.confidence}` : undefined}
        >
            {m && (
                <p className="flex flex-wrap items-baseline gap-x-4">
                    <span className="font-head text-5xl num">{m.stall_rpm.toFixed(0)}</span>
                    <span>
                        rev/min at stall{' '}
                        {m.fits !== undefined && (
                            <Mark kind={m.fits ? 'good' : 'bad'}>{m.fits ? 'matches' : 'does not match'}</Mark>
                        )}
                        <span className="block text-sm">
                            {m.name}: ×{m.stallTorqueRatio.toFixed(2)} there, {m.highestTurbineTorque_nm.toFixed(0)} N.m
                            into the train. {m.fits === false && m.message}
                        </span>
                    </span>
                </p>
            )}
            {m?.launch && (
                <Launch launch={m.launch} duty={spec.duty!} litres={spec.fluid.litres} gear={m.gear ?? '1'} />
            )}
            {m && !m.launch && (
                <p className="mt-1 text-sm text-faint">With mass, axle and tyre it says how it pulls away.</p>
            )}
            {shifts.length > 0 && (
                <div className="overflow-x-auto">
                    <table className="mt-2 w-full text-sm">
                        <HeadRow
                            of={['Shift', 'At', 'Comes on', 'Takes', 'Heat', 'On its lining', 'Torque at the output']}
                        />
                        <tbody>
                            {shifts.map((s) => (
                                <tr key={s.from}>
                                    <th scope="row" className="td text-left font-head text-xl whitespace-nowrap">
                                        {s.from} to {s.to}
                                    </th>
                                    <td className="td num whitespace-nowrap">{roadSpeed(spec, s.from)}</td>
                                    <td className="td">
                                        {s.on.map((id) => spec.elements?.[id] ?? id).join(', ') || 'nothing'}
                                    </td>
                                    <td className="td num">
                                        {s.elements.map((e) => (
                                            <Takes key={e.element} element={e} />
                                        ))}
                                    </td>
                                    <td className="td num whitespace-nowrap">
                                        {s.elements.map((e) => `${(e.energy_j / 1000).toFixed(1)} kJ`).join(', ') ||
                                            'not determined'}
                                    </td>
                                    <td className="td num whitespace-nowrap">
                                        {s.elements.map((e) =>
                                            e.over ? (
                                                <Mark key={e.element} kind="bad">
                                                    {heat(e)}, too hot
                                                </Mark>
                                            ) : (
                                                <span key={e.element} className="block">
                                                    {heat(e)}
                                                </span>
                                            ),
                                        )}
                                    </td>
                                    <td className="td num">
                                        {s.outputTorque_nm.before.toFixed(0)},{' '}
                                        {(
                                            s.elements.find((e) => e.feel?.outputTorque_nm)?.feel?.outputTorque_nm
                                                ?.peak ?? s.outputTorque_nm.during
                                        ).toFixed(0)}
                                        , then {s.outputTorque_nm.after.toFixed(0)} N.m
                                    </td>
                                </tr>
                            ))}
                        </tbody>
                    </table>
                </div>
            )}
            <More className="mt-1" title="What is assumed">
                <ul className="list-disc pl-5 text-sm">
                    {[...(m?.launch?.assumptions ?? []), ...(spec.margins?.assumptions ?? [])].map((a) => (
                        <li key={a}>{a}</li>
                    ))}
                </ul>
            </More>
        </Panel>
    );
}

type ShiftElement = NonNullable<NonNullable<Schemas['Spec']['margins']>['shifts']>[number]['elements'][number];

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

const roadSpeed = (spec: Schemas['Spec'], gear: string) => {
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
