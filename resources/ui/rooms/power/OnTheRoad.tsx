import { HeadRow, Mark, Panel, ProblemNote } from '../../kit/basics';
import { duration } from '../../work/HeldConverter';
import type { SolvedGear, Train } from './trains';
import { useAnswer } from './useAnswer';
import { useFields } from './useFields';

type Lossy = SolvedGear & { efficiency?: number; losses?: Record<string, number> };

const TEETH = {
    mesh: ['One mesh passes on (%)', '98.5'],
    drag: ['Each open pack drags (N·m)', '1.5'],
    torque: ['Torque in (N·m)', '200'],
} satisfies Record<string, [string, string]>;

const percent = (share: number) => `${(100 * share).toFixed(1)} %`;

/** What teeth and open packs take in each gear: an option of the solver, off everywhere else. */
export function LossesDesk({ train }: { train: Train }) {
    const f = useFields<keyof typeof TEETH>(TEETH);
    const mesh = f.of('mesh');
    const open = train.elements.filter((e) => e.kind !== 'one-way').map((e) => [e.id, f.of('drag')] as const);
    const { answered, problem } = useAnswer<{ gears: Lossy[] }>('geartrain.solve', {
        ...train,
        losses: {
            mesh: typeof mesh === 'number' ? mesh / 100 : mesh,
            drag_nm: Object.fromEntries(open),
            inputTorque_nm: f.of('torque'),
        },
    });
    return (
        <Panel title="Losses" aside="power that rolls against the carriers, drag by slip; everything else is loss-free">
            <div className="flex flex-wrap items-end gap-3">{f.fields}</div>
            {problem && <ProblemNote problem={problem} />}
            {answered && (
                <table aria-live="polite" className="mt-2 w-full">
                    <HeadRow of={['Gear', 'Comes out', 'Taken most by']} />
                    <tbody>
                        {answered.gears.map((g) => (
                            <Gear key={g.name} gear={g} />
                        ))}
                    </tbody>
                </table>
            )}
        </Panel>
    );
}

function Gear({ gear: g }: { gear: Lossy }) {
    const most = Object.entries(g.losses ?? {})
        .filter(([, share]) => share > 0)
        .sort(([, a], [, b]) => b - a)
        .slice(0, 3);
    return (
        <tr>
            <th scope="row" className="td text-left font-head text-xl">
                {g.name}
            </th>
            <td className="td num font-semibold">{g.efficiency === undefined ? '–' : percent(g.efficiency)}</td>
            <td className="td num">{most.map(([what, share]) => `${what} ${percent(share)}`).join(', ')}</td>
        </tr>
    );
}

type Balance = {
    road_kw: number;
    engine_kw: number;
    gearing_kw: number;
    converter_kw: number;
    heat_kw: number;
    steady_degc: number;
    holds: boolean;
    neededUa_w_per_k: number;
    secondsTo?: number;
};

const GRADE = {
    mass: ['Mass with trailer (kg)', '4200'],
    grade: ['Grade (%)', '6'],
    speed: ['Speed (km/h)', '70'],
    efficiency: ['Gearing passes on (%)', '93'],
    ratio: ['Converter, out over in', '0.94'],
    cooler: ['Cooler takes (W/K)', '90'],
    air: ['Air (°C)', '30'],
    start: ['Oil starts at (°C)', '85'],
    limit: ['Oil at most (°C)', '120'],
    fluid: ['Whole fill (L)', '10.4'],
    metal: ['Metal warmed with it (kg)', '60'],
} satisfies Record<string, [string, string]>;

/** Where the oil settles on a long grade, and which cooler would do. */
export function CoolerDesk() {
    const f = useFields<keyof typeof GRADE>(GRADE);
    const passes = f.of('efficiency');
    const { answered, problem } = useAnswer<Balance>('cooler.balance', {
        mass_kg: f.of('mass'),
        grade_pct: f.of('grade'),
        speed_kmh: f.of('speed'),
        efficiency: typeof passes === 'number' ? passes / 100 : passes,
        speedRatio: f.of('ratio'),
        coolerUa_w_per_k: f.of('cooler'),
        air_degc: f.of('air'),
        start_degc: f.of('start'),
        limit_degc: f.of('limit'),
        fluid_l: f.of('fluid'),
        metal_kg: f.of('metal'),
    });
    return (
        <Panel title="Cooler on a grade" aside="steady speed; the whole fill and its metal as one lump">
            <div className="flex flex-wrap items-end gap-3">{f.fields}</div>
            {problem && <ProblemNote problem={problem} />}
            {answered && <Settles of={answered} />}
        </Panel>
    );
}

const Settles = ({ of }: { of: Balance }) => (
    <div aria-live="polite" className="mt-2">
        <p>
            <span className="font-head text-3xl num">{of.steady_degc.toFixed(0)} °C</span>{' '}
            <Mark kind={of.holds ? 'good' : 'bad'}>{of.holds ? 'it settles below the limit' : 'too hot'}</Mark>
            {of.secondsTo !== undefined && ` after ${duration(of.secondsTo)}`}
        </p>
        <p className="num">
            {of.engine_kw.toFixed(0)} kW in, {of.road_kw.toFixed(0)} on the road: {of.gearing_kw.toFixed(1)} kW stay in
            teeth and drag, {of.converter_kw.toFixed(1)} in the converter. A cooler of{' '}
            <strong>{of.neededUa_w_per_k.toFixed(0)} W/K</strong> would just do.
        </p>
    </div>
);
