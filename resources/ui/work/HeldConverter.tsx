import type { Schemas } from '../api/client';
import { Caution } from '../kit/basics';

type Held = NonNullable<Schemas['HeldConverter']>;

export const duration = (s: number) => (s < 90 ? `${s.toFixed(1)} s` : `${(s / 60).toFixed(1)} min`);

/** Seconds until something is too hot, how long it cools, how often in an hour. */
export function HowLong({ of: { secondsTo, heat_w: heat, coolDown_s: cool, perHour } }: { of: Held['clock'] }) {
    return (
        <div aria-live="polite" className="mt-2">
            {secondsTo.map((l) => (
                <p key={l.name}>
                    <span className="font-head text-3xl num">
                        {l.seconds === undefined ? 'never' : duration(l.seconds)}
                    </span>{' '}
                    until {l.name}
                </p>
            ))}
            <p className="num">
                {(heat / 1000).toFixed(0)} kW of heat
                {cool !== undefined && `; ${duration(cool)} to cool for the next one`}
                {perHour !== undefined && `; at most ${Math.floor(perHour)} in an hour`}
            </p>
        </div>
    );
}

/** On the papers of an order that holds its converter: the launch clock, and what presses on the crankshaft. */
export function HeldConverter({ held: h }: { held: Held }) {
    const a = h.assumed;
    return (
        <div>
            <h3 className="text-lg">
                Launch clock: held at stall, {h.speed_rpm.toFixed(0)} rev/min and {h.torque_nm.toFixed(0)} N.m
            </h3>
            <HowLong of={h.clock} />
            <p className="text-sm">
                From {a.start_degc} °C, {a.fluid_l} L and {a.metal_kg} kg in the converter itself, air {a.air_degc} °C,
                cooler {a.coolerUa_w_per_k} W/K, next one from {a.coolTo_degc} °C. {h.source}.
            </p>
            <ul className="mt-1 flex flex-wrap gap-x-6">
                {h.thrust.map((t) => (
                    <li key={t.name}>
                        <strong className="num">{t.force_n.toFixed(0)} N</strong>{' '}
                        {`on the crankshaft’s thrust bearing: ${t.name}, ${t.charge_kpa.toFixed(0)} kPa`}
                    </li>
                ))}
            </ul>
            <Caution>
                Seconds only, and only where the shop and the vehicle’s maker allow it: wheels chocked, the brake proven
                first, nobody before or under the vehicle.
            </Caution>
        </div>
    );
}
