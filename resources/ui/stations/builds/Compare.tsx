import { useQueries } from '@tanstack/react-query';
import { answer, api, type Schemas } from '../../lib/api';
import { formatMoney } from '../../lib/format';
import { Panel } from '../../parts/basics';

type Asked = { number: string; packages: { code: string; name: string }[]; vehicle: string | null; duty: object };

/** Packages side by side, part by part: two names may hide the same parts, or one spring that matters. */
export function Compare({ number, packages, vehicle, duty }: Asked) {
    const specs = useQueries({ queries: packages.map((p) => ({ queryKey: ['compare', number, p.code, vehicle, JSON.stringify(duty)], queryFn: () => answer(api.POST('/units/{number}/order/preview', { params: { path: { number } }, body: { package: p.code, add: [], drop: [], vehicle, duty } })) })) });
    const got = specs.map((s) => s.data).filter((s): s is Schemas['Spec'] => !!s);
    if (got.length < packages.length) return null;
    const parts = [...new Map(got.flatMap((s) => s.bom.map((l) => [l.part, l.name] as const))).entries()].sort(([a], [b]) => a.localeCompare(b));
    const options = [...new Map(got.flatMap((s) => s.options.map((o) => [o.code, o.name] as const))).entries()];
    const differs = (values: (string | number)[]) => new Set(values).size > 1;
    const row = (label: string, values: (string | number)[]) => <tr key={label}><th scope="row" className="td text-left font-normal">{label}</th>{values.map((v, i) => <td key={i} className={`td num ${differs(values) ? 'font-semibold' : 'text-faint'}`}>{v}</td>)}</tr>;
    const partRows = parts.map(([part, name]) => [`${part} ${name}`, got.map((s) => s.bom.find((l) => l.part === part)?.count ?? '–')] as const).filter(([, v]) => differs(v));
    return (
        <Panel title="Packages side by side" aside="part by part, not by name; what is alike is left out">
            <div className="overflow-x-auto">
                <table className="w-full text-sm">
                    <thead><tr><th scope="col" className="th">For this duty</th>{packages.map((p) => <th key={p.code} scope="col" className="th">{p.name}</th>)}</tr></thead>
                    <tbody>
                        {row('Price', got.map((s) => formatMoney(s.price)))}
                        {row('Hours', got.map((s) => s.hours))}
                        {row('Weakest margin', got.map((s) => (s.margins?.weakest ? `${s.margins.weakest.margin.toFixed(2)}, ${s.margins.weakest.element} in ${s.margins.weakest.gear}` : s.status === 'ok' ? '–' : 'does not hold')))}
                        {row('Good for engine torque', got.map((s) => (s.margins?.largestInputTorque_nm ? `${s.margins.largestInputTorque_nm.toFixed(0)} N.m` : '–')))}
                        {row('Fluid', got.map((s) => `${s.fluid.litres} L`))}
                        {options.map(([code, name]) => [name, got.map((s) => (s.options.some((o) => o.code === code) ? '✓ in' : '–'))] as const).filter(([, v]) => differs(v)).map(([n, v]) => row(n, v))}
                        {partRows.map(([n, v]) => row(n, v))}
                    </tbody>
                </table>
            </div>
        </Panel>
    );
}
