import { useState } from 'react';
import { Caution, Field, Panel, ProblemNote } from '../../kit/basics';
import { useAnswer } from './useAnswer';

/** An empty field goes as it is, so that the answer says which one is missing. */
const number = (s: string) => (s.trim() === '' ? s : Number(s));

type Fields<K extends string> = Record<K, [label: string, value: string]>;

function useFields<K extends string>(first: Fields<K>) {
    const [typed, setTyped] = useState(first);
    const fields = (Object.entries(typed) as [K, [string, string]][]).map(([key, [label, value]]) => (
        <Field
            key={key}
            className="w-40"
            label={label}
            value={value}
            onChange={(v) => setTyped({ ...typed, [key]: [label, v] })}
        />
    ));
    return { fields, of: (key: K) => number(typed[key][1]) };
}

const clock = (s: number) => (s < 90 ? `${s.toFixed(1)} s` : `${(s / 60).toFixed(1)} min`);

type Held = { heat_w: number; secondsTo: { name: string; seconds?: number }[]; coolDown_s?: number };

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
    const { answered, problem } = useAnswer<Held>('launch.hold', {
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

function HowLong({ of: { secondsTo, heat_w: heat, coolDown_s: cool } }: { of: Held }) {
    return (
        <div aria-live="polite" className="mt-2">
            {secondsTo.map((l) => (
                <p key={l.name}>
                    <span className="font-head text-3xl num">
                        {l.seconds === undefined ? 'never' : clock(l.seconds)}
                    </span>{' '}
                    until {l.name}
                </p>
            ))}
            <p className="num">
                {(heat / 1000).toFixed(0)} kW of heat
                {cool !== undefined && `; ${clock(cool)} to cool for the next one`}
            </p>
        </div>
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
