import type { Schemas } from '../../api/client';
import { Caution, Mark, Panel, ProblemNote } from '../../kit/basics';
import { HowLong } from '../../work/HeldConverter';
import { useAnswer } from './useAnswer';
import { useFields } from './useFields';

const HELD = {
    torque: ['At the impeller (N·m)', '350'],
    speed: ['Speed (rev/min)', '2400'],
    fluid: ['Fluid in the converter (L)', '5'],
    metal: ['Its metal (kg)', '14'],
    start: ['Starts at (°C)', '85'],
    air: ['Air (°C)', '25'],
    cooler: ['Cooler takes (W/K)', '60'],
    sensor: ['Sensor pulls back at (°C)', '135'],
    lining: ['Lining suffers at (°C)', '175'],
    coolTo: ['Next one from (°C)', '100'],
} satisfies Record<string, [string, string]>;

/** How long a converter may be held: on the launch brake, or in a stall test. */
export function LaunchClock() {
    const f = useFields<keyof typeof HELD>(HELD);
    const { answered, problem } = useAnswer<NonNullable<Schemas['HeldConverter']>['clock']>('launch.hold', {
        torque_nm: f.of('torque'),
        speed_rpm: f.of('speed'),
        fluid_l: f.of('fluid'),
        metal_kg: f.of('metal'),
        coolerUa_w_per_k: f.of('cooler'),
        air_degc: f.of('air'),
        start_degc: f.of('start'),
        limits: [
            { name: 'the sensor pulls back', max_degc: f.of('sensor') },
            { name: 'the lining suffers', max_degc: f.of('lining') },
        ],
        coolTo_degc: f.of('coolTo'),
    });
    return (
        <Panel title="Launch clock" aside="the converter’s own fluid and metal take the heat, not the whole fill">
            <div className="flex flex-wrap items-end gap-3">{f.fields}</div>
            {problem && <ProblemNote problem={problem} />}
            {answered && <HowLong of={answered} />}
            <Caution>Nobody stands before or under the vehicle, wheels chocked, the brake proven first.</Caution>
        </Panel>
    );
}

type Thrust = { force_n: number; pressureBehind_kpa?: number };

/** What the converter pushes on the crankshaft's thrust bearing: as it is, and with a restriction before it. */
export function ThrustDesk() {
    const f = useFields({
        charge: ['Charge pressure (kPa)', '600'],
        hub: ['Hub (mm)', '48'],
        hole: ['Restriction (mm)', '3'],
        flow: ['Flow through it (L/min)', '6'],
    });
    const bare = { charge_kpa: f.of('charge'), hubDiameter_mm: f.of('hub') };
    const open = useAnswer<Thrust>('thrust.converter', bare);
    const restricted = useAnswer<Thrust>('thrust.converter', {
        ...bare,
        restriction: {
            diameter_mm: f.of('hole'),
            dischargeCoefficient: 0.7,
            flow_l_min: f.of('flow'),
            density: 850,
        },
    });
    return (
        <Panel title="Thrust on the crankshaft" aside="charge pressure on the hub, with and without a restriction">
            <div className="flex flex-wrap items-end gap-3">{f.fields}</div>
            {(open.problem ?? restricted.problem) && <ProblemNote problem={open.problem ?? restricted.problem} />}
            <div aria-live="polite" className="mt-2 flex flex-wrap gap-x-8">
                {open.answered && (
                    <p>
                        <span className="font-head text-3xl num">{Math.round(open.answered.force_n)} N</span> as it is
                    </p>
                )}
                {restricted.answered && (
                    <p>
                        <span className="font-head text-3xl num">{Math.round(restricted.answered.force_n)} N</span>{' '}
                        behind the restriction, {Math.round(restricted.answered.pressureBehind_kpa ?? 0)} kPa there
                    </p>
                )}
            </div>
        </Panel>
    );
}

type Hot = {
    peak_degc: number;
    peakAt_s: number;
    bulkRise_k: number;
    coolsIn_s: number;
    holds?: boolean;
    repeated?: { last_degc: number; settles_degc: number };
};

const RUBBED = {
    heat: ['Heat in the element (kJ)', '20'],
    area: ['Rubbing area, all faces (cm²)', '600'],
    time: ['Shift takes (s)', '0.4'],
    plate: ['Steel plate (mm)', '1.75'],
    oil: ['Oil (°C)', '90'],
    limit: ['Lining suffers at (°C)', '250'],
    first: ['Friction at full slip', '0.13'],
    last: ['Friction at the end', '0.13'],
    every: ['Again every (s)', '20'],
    times: ['So many times', '10'],
} satisfies Record<string, [string, string]>;

const times = (typed: number | string, by: number) => (typeof typed === 'number' ? typed * by : typed);

/** How hot the steel under a lining gets in one shift, and shift after shift. */
export function LiningDesk() {
    const f = useFields<keyof typeof RUBBED>(RUBBED);
    const { answered, problem } = useAnswer<Hot>('lining.temperature', {
        heat_j: times(f.of('heat'), 1000),
        area_mm2: times(f.of('area'), 100),
        shift_s: f.of('time'),
        plate_mm: f.of('plate'),
        oil_degc: f.of('oil'),
        limit_degc: f.of('limit'),
        friction: [
            { slip: 0, mu: f.of('last') },
            { slip: 1, mu: f.of('first') },
        ],
        repeat: { every_s: f.of('every'), times: f.of('times') },
    });
    return (
        <Panel
            title="Lining and steel"
            aside="heat follows friction times slip; both faces of each steel; paper insulates"
        >
            <div className="flex flex-wrap items-end gap-3">{f.fields}</div>
            {problem && <ProblemNote problem={problem} />}
            {answered && <HowHot of={answered} />}
        </Panel>
    );
}

const HowHot = ({ of }: { of: Hot }) => (
    <div aria-live="polite" className="mt-2">
        <p className="font-head text-2xl">
            {of.peak_degc.toFixed(0)} °C {of.holds === false && <Mark kind="bad">the lining suffers</Mark>}
        </p>
        <p>
            Hottest at the face after {of.peakAt_s.toFixed(2)} s; the whole plate is {of.bulkRise_k.toFixed(0)} K warmer
            then, and loses all but a third of that in {of.coolsIn_s.toFixed(0)} s of oil.
        </p>
        {of.repeated && (
            <p>
                The last one reaches <strong>{of.repeated.last_degc.toFixed(0)} °C</strong>; without an end it would
                settle at {of.repeated.settles_degc.toFixed(0)} °C.
            </p>
        )}
    </div>
);
