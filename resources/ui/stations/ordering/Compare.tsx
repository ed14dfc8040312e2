import { useQueries, useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { answer, api, isProblem, type Schemas } from '../../api/client';
import { formatMoney } from '../../kit/format';
import { Loading, Panel, ProblemNote } from '../../kit/basics';
import { Pending } from '../../kit/Fetched';
import { dutyOf, type DutyTyped } from './DutyFields';

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
    const { coreTag, customer, ordering: build } = card.data;
    const duty = build.order?.spec.duty;
    const vehicle = build.order?.vehicle;
    return (
        <>
            <div className="no-print mb-3 flex items-center gap-3">
                <Link className="underline" to={`/units/${coreTag}/ordering`}>
                    back to the order
                </Link>
                {build.packages.length > 0 && (
                    <button type="button" className="btn btn-main" onClick={() => print()}>
                        Print the comparison
                    </button>
                )}
            </div>
            <article className="sheet p-6">
                <header className="mb-3 flex justify-between">
                    <div>
                        <h1 className="text-3xl">Packages compared</h1>
                        <p>
                            {customer?.name ?? 'for the shelf'}
                            {vehicle && `, ${vehicle.name}`}
                        </p>
                    </div>
                    <p className="text-right">
                        Vast Yard
                        <br />
                        {coreTag}
                        <br />
                        {card.data.variant?.name}
                    </p>
                </header>
                {duty && (
                    <p className="mb-2 num">
                        For {duty.engineTorque_nm.toFixed(0)} N.m{duty.mass_kg && `, ${duty.mass_kg.toFixed(0)} kg`}
                        {duty.axleRatio && `, axle ${duty.axleRatio}`}
                        {duty.tyre && `, ${duty.tyre}`}; shifts at {duty.shiftSpeed_rpm.toFixed(0)} rev/min; pulls away
                        on {duty.grade_pct} %.
                    </p>
                )}
                {build.packages.length > 0 ? (
                    <>
                        <Table
                            number={coreTag}
                            packages={build.packages}
                            vehicle={vehicle?.code ?? null}
                            duty={dutyOf(build.order?.lines)}
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

function Table({ number, packages, vehicle, duty }: Asked) {
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
    const got = specs.map((s) => s.data).filter((s): s is Schemas['Spec'] => !!s);
    if (got.length < packages.length) return <Loading what="the packages" />;
    const names = <T,>(rows: (s: Schemas['Spec']) => (readonly [string, T])[]) => [
        ...new Map(got.flatMap(rows)).entries(),
    ];
    const differs = (values: (string | number)[]) => new Set(values).size > 1;
    const row = (label: string, values: (string | number)[]) => (
        <tr key={label}>
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
    const only = (title: string, rows: (readonly [string, (string | number)[]])[]) => {
        const differing = rows.filter(([, v]) => differs(v));
        return (
            differing.length > 0 && (
                <tbody>
                    <tr>
                        <th scope="rowgroup" colSpan={packages.length + 1} className="th pt-4">
                            {title}
                        </th>
                    </tr>
                    {differing.map(([label, v]) => row(label, v))}
                </tbody>
            )
        );
    };
    const launch = (s: Schemas['Spec']) => {
        const l = s.converterMatch?.launch;
        return !l ? '–' : l.reaches ? `${l.heat_kj!.toFixed(0)} kJ, +${l.fluidRise_k!.toFixed(1)} °C` : 'hangs';
    };
    const hottest = (s: Schemas['Spec']) =>
        (s.margins?.shifts ?? [])
            .flatMap((x) => x.elements.map((e) => ({ at: `${x.from} to ${x.to}`, heat: e.perArea_j_mm2 ?? 0 })))
            .sort((a, b) => b.heat - a.heat)[0];
    const firmest = (s: Schemas['Spec']) =>
        (s.margins?.shifts ?? [])
            .flatMap((x) => x.elements.map((e) => ({ at: `${x.from} to ${x.to}`, bump: e.feel?.bump })))
            .filter((f) => f.bump !== undefined)
            .sort((a, b) => b.bump! - a.bump!)[0];
    return (
        <table className="w-full text-sm">
            <thead>
                <tr>
                    <th scope="col" className="th">
                        For this duty
                    </th>
                    {packages.map((p) => (
                        <th key={p.code} scope="col" className="th">
                            {p.name}
                        </th>
                    ))}
                </tr>
            </thead>
            <tbody>
                {row(
                    'Price',
                    got.map((s) => formatMoney(s.price)),
                )}
                {row(
                    'Hours',
                    got.map((s) => s.hours),
                )}
                {row(
                    'Weakest margin',
                    got.map((s) =>
                        s.margins?.weakest
                            ? `${s.margins.weakest.margin.toFixed(2)}, ${s.margins.weakest.element} in ${s.margins.weakest.gear}`
                            : s.status === 'ok'
                              ? '–'
                              : 'does not hold',
                    ),
                )}
                {row(
                    'Good for engine torque',
                    got.map((s) =>
                        s.margins?.largestInputTorque_nm ? `${s.margins.largestInputTorque_nm.toFixed(0)} N.m` : '–',
                    ),
                )}
                {row(
                    'Stalls at',
                    got.map((s) => (s.converterMatch ? `${s.converterMatch.stall_rpm.toFixed(0)} rev/min` : '–')),
                )}
                {row('Heat of pulling away', got.map(launch))}
                {row(
                    'Hottest shift',
                    got.map((s) => {
                        const h = hottest(s);
                        return h ? `${h.heat.toFixed(2)} J/mm², ${h.at}` : '–';
                    }),
                )}
                {row(
                    'Firmest shift',
                    got.map((s) => {
                        const f = firmest(s);
                        return f ? `${f.bump!.toFixed(2)} times the torque after it, ${f.at}` : '–';
                    }),
                )}
                {row(
                    'Fluid',
                    got.map((s) => `${s.fluid.litres} L`),
                )}
            </tbody>
            {only(
                'Options',
                names((s) => s.options.map((o) => [o.code, o.name] as const)).map(
                    ([code, name]) =>
                        [name, got.map((s) => (s.options.some((o) => o.code === code) ? '✓ in' : '–'))] as const,
                ),
            )}
            {only(
                'Work and checks',
                names((s) => s.work.map((w) => [w.text, w.kind] as const)).map(
                    ([text, kind]) =>
                        [
                            `${kind === 'work' ? 'Do' : 'Check'}: ${text}`,
                            got.map((s) => (s.work.some((w) => w.text === text) ? '✓' : '–')),
                        ] as const,
                ),
            )}
            {only(
                'Parts, pieces',
                names((s) => s.bom.map((l) => [l.part, l.name] as const))
                    .sort(([a], [b]) => a.localeCompare(b))
                    .map(
                        ([part, name]) =>
                            [
                                `${part} ${name}`,
                                got.map((s) => s.bom.find((l) => l.part === part)?.count ?? '–'),
                            ] as const,
                    ),
            )}
        </table>
    );
}
