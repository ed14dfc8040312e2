import { useQueries, useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { answer, api, isProblem, type Card, type Schemas } from '../../api/client';
import { formatMoney } from '../../kit/format';
import { HeadRow, Loading, Panel, ProblemNote } from '../../kit/basics';
import { Pending } from '../../kit/Fetched';
import { dutyOf, type DutyTyped } from './DutyFields';
import { Letterhead } from './Letterhead';

type Spec = Schemas['Spec'];
type ShiftElement = NonNullable<NonNullable<Spec['margins']>['shifts']>[number]['elements'][number];

type Asked = { number: string; packages: { code: string; name: string }[]; vehicle: string | null; duty: DutyTyped };

/** Packages side by side, part by part: two names may hide the same parts, or one spring that matters. */
export function Compare(asked: Asked) {
    return (
        <Panel title="Packages side by side" aside="part by part, not by name; what is alike is left out">
            <div className="overflow-x-auto">
                <Table {...asked} />
            </div>
        </Panel>
    );
}

/** The same on a sheet to print, for the duty of the saved draft. */
export function ComparePage() {
    const { number = '' } = useParams();
    const card = useQuery({
        queryKey: ['card', number, 'ordering'],
        queryFn: () =>
            answer(api.GET('/units/{number}', { params: { path: { number }, query: { sections: 'ordering' } } })),
    });
    if (card.isError)
        return (
            <div className="sheet p-4">
                <ProblemNote problem={isProblem(card.error) ? card.error : null} />
            </div>
        );
    if (!card.data?.ordering) return <Pending of={[card]} what="the comparison" />;
    return <Printed card={card.data} section={card.data.ordering} />;
}

type PrintedProps = { card: Card; section: NonNullable<Card['ordering']> };

function Printed({ card, section: { packages, order } }: PrintedProps) {
    const vehicle = order?.vehicle;
    return (
        <>
            <div className="no-print mb-3 flex items-center gap-3">
                <Link className="underline" to={`/units/${card.coreTag}/ordering`}>
                    back to the order
                </Link>
                {packages.length > 0 && (
                    <button type="button" className="btn btn-main" onClick={() => print()}>
                        Print the comparison
                    </button>
                )}
            </div>
            <article className="sheet p-6">
                <Head card={card} vehicle={vehicle?.name} />
                {order?.spec.duty && <p className="mb-2 num">{dutySaid(order.spec.duty)}</p>}
                {packages.length > 0 ? (
                    <>
                        <Table
                            number={card.coreTag}
                            packages={packages}
                            vehicle={vehicle?.code ?? null}
                            duty={dutyOf(order?.lines)}
                        />
                        <p className="mt-3 text-sm text-faint">What is alike in all packages is left out.</p>
                    </>
                ) : (
                    <p>This build is released: its package is frozen, and there is nothing left to choose.</p>
                )}
            </article>
        </>
    );
}

function Head({ card, vehicle }: { card: Card; vehicle: string | undefined }) {
    return (
        <Letterhead
            title="Packages compared"
            to={[card.customer?.name ?? 'for the shelf', vehicle]}
            about={[card.coreTag, card.variant?.name]}
        />
    );
}

function dutySaid(duty: NonNullable<Spec['duty']>): string {
    const what = [
        `${duty.engineTorque_nm.toFixed(0)} N.m`,
        duty.mass_kg && `${duty.mass_kg.toFixed(0)} kg`,
        duty.axleRatio && `axle ${duty.axleRatio}`,
        duty.tyre,
    ].filter(Boolean);
    return `For ${what.join(', ')}; shifts at ${duty.shiftSpeed_rpm.toFixed(0)} rev/min; pulls away on ${duty.grade_pct} %.`;
}

function useSpecs({ number, packages, vehicle, duty }: Asked): Spec[] {
    const specs = useQueries({
        queries: packages.map((p) => ({
            queryKey: ['compare', number, p.code, vehicle, JSON.stringify(duty)],
            queryFn: () =>
                answer(
                    api.POST('/units/{number}/ordering/preview', {
                        params: { path: { number } },
                        body: { package: p.code, add: [], drop: [], vehicle, duty },
                    }),
                ),
        })),
    });
    return specs.map((s) => s.data).filter((s) => s !== undefined);
}

function Table(asked: Asked) {
    const got = useSpecs(asked);
    const { packages } = asked;
    if (got.length < packages.length) return <Loading what="the packages" />;
    return (
        <table className="w-full text-sm">
            <HeadRow of={['For this duty', ...packages.map((p) => p.name)]} />
            <tbody>
                {COMPARED.map(([label, value]) => (
                    <CompareRow key={label} label={label} values={got.map(value)} />
                ))}
            </tbody>
            <Differing title="Options" rows={optionRows(got)} />
            <Differing title="Work and checks" rows={workRows(got)} />
            <Differing title="Parts, pieces" rows={partRows(got)} />
        </table>
    );
}

type Value = string | number;

const differs = (values: Value[]) => new Set(values).size > 1;

function CompareRow({ label, values }: { label: string; values: Value[] }) {
    return (
        <tr>
            <th scope="row" className="td text-left font-normal">
                {label}
            </th>
            {values.map((v, i) => (
                <td key={i} className={`td num ${differs(values) ? 'font-semibold' : 'text-faint'}`}>
                    {v}
                </td>
            ))}
        </tr>
    );
}

type Row = { label: string; values: Value[] };

/** Only what is not alike in all packages. */
function Differing({ title, rows }: { title: string; rows: Row[] }) {
    const differing = rows.filter((r) => differs(r.values));
    if (differing.length === 0) return null;
    return (
        <tbody>
            <tr>
                <th scope="rowgroup" colSpan={(differing[0]?.values.length ?? 0) + 1} className="th pt-4">
                    {title}
                </th>
            </tr>
            {differing.map((r) => (
                <CompareRow key={r.label} {...r} />
            ))}
        </tbody>
    );
}

/** Every name that one of the specifications has, once. */
const union = <T,>(got: Spec[], rows: (s: Spec) => (readonly [string, T])[]) => [...new Map(got.flatMap(rows))];

const optionRows = (got: Spec[]): Row[] =>
    union(got, (s) => s.options.map((o) => [o.code, o.name])).map(([code, name]) => ({
        label: name,
        values: got.map((s) => (s.options.some((o) => o.code === code) ? '✓ in' : '–')),
    }));

const workRows = (got: Spec[]): Row[] =>
    union(got, (s) => s.work.map((w) => [w.text, w.kind])).map(([text, kind]) => ({
        label: `${kind === 'work' ? 'Do' : 'Check'}: ${text}`,
        values: got.map((s) => (s.work.some((w) => w.text === text) ? '✓' : '–')),
    }));

const partRows = (got: Spec[]): Row[] =>
    union(got, (s) => s.bom.map((l) => [l.part, l.name]))
        .sort(([a], [b]) => a.localeCompare(b))
        .map(([part, name]) => ({
            label: `${part} ${name}`,
            values: got.map((s) => s.bom.find((l) => l.part === part)?.count ?? '–'),
        }));

function launchSaid({ converterMatch }: Spec): string {
    const launch = converterMatch?.launch;
    if (!launch) return '–';
    return launch.reaches ? `${launch.heat_kj?.toFixed(0)} kJ, +${launch.fluidRise_k?.toFixed(1)} °C` : 'hangs';
}

function weakestSaid({ margins, status }: Spec): string {
    const w = margins?.weakest;
    if (w) return `${w.margin.toFixed(2)}, ${w.element} in ${w.gear}`;
    return status === 'ok' ? '–' : 'does not hold';
}

/** The shift that has the most of something, and how much; shifts that do not say are left out. */
function worst({ margins }: Spec, of: (e: ShiftElement) => number | undefined) {
    return (margins?.shifts ?? [])
        .flatMap((x) => x.elements.map((e) => ({ at: `${x.from} to ${x.to}`, value: of(e) ?? -Infinity })))
        .filter((x) => x.value > -Infinity)
        .sort((a, b) => b.value - a.value)[0];
}

const COMPARED: [string, (s: Spec) => Value][] = [
    ['Price', (s) => formatMoney(s.price)],
    ['Hours', (s) => s.hours],
    ['Weakest margin', weakestSaid],
    [
        'Good for engine torque',
        (s) => (s.margins?.largestInputTorque_nm ? `${s.margins.largestInputTorque_nm.toFixed(0)} N.m` : '–'),
    ],
    ['Stalls at', (s) => (s.converterMatch ? `${s.converterMatch.stall_rpm.toFixed(0)} rev/min` : '–')],
    ['Heat of pulling away', launchSaid],
    [
        'Hottest shift',
        (s) => {
            const hottest = worst(s, (e) => e.perArea_j_mm2 ?? 0);
            return hottest ? `${hottest.value.toFixed(2)} J/mm², ${hottest.at}` : '–';
        },
    ],
    [
        'Firmest shift',
        (s) => {
            const firmest = worst(s, (e) => e.feel?.bump);
            return firmest ? `${firmest.value.toFixed(2)} times the torque after it, ${firmest.at}` : '–';
        },
    ],
    ['Fluid', (s) => `${s.fluid.litres} L`],
];
