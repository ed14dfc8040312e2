import { useQuery } from '@tanstack/react-query';
import { answer, api, type Schemas } from '../../api/client';
import { percent } from '../../kit/format';
import { HeadRow, Panel } from '../../kit/basics';
import { Pending } from '../../kit/Fetched';

/** What keeps coming back, each rate with the interval that belongs to so few units. */
export function Insight() {
    const rates = useQuery({ queryKey: ['return-rates'], queryFn: () => answer(api.GET('/insight/return-rates')) });
    if (!rates.data) return <Pending of={[rates]} what="the rates" />;
    return (
        <>
            <h1 className="mb-2 text-3xl">What comes back</h1>
            <p className="mb-2 text-faint">
                Share of shipped units that were returned; bar: {percent(rates.data.confidence)} interval (
                {rates.data.method}, exact). With few units the bar is long: that is the honest answer.
            </p>
            <div className="grid items-start gap-3 lg:grid-cols-2">
                {rates.data.groups.map((g) => (
                    <Rates key={g.by} group={g} />
                ))}
                <Panel title="Causes">
                    <ul>
                        {rates.data.causes.map((c) => (
                            <li key={c.verdict} className="flex justify-between border-b border-rule py-1">
                                <span>{c.verdict}</span>
                                <strong className="num">{c.n}</strong>
                            </li>
                        ))}
                    </ul>
                </Panel>
            </div>
        </>
    );
}

type Group = Schemas['ReturnRates']['groups'][number];

function Rates({ group: g }: { group: Group }) {
    return (
        <Panel title={`By ${g.title.toLowerCase()}`}>
            <table className="w-full">
                <HeadRow of={[g.title, 'Returned', 'Rate', 'Interval']} />
                <tbody>
                    {g.rows.map((r) => (
                        <tr key={r.name}>
                            <th scope="row" className="td text-left font-semibold">
                                {r.name}
                            </th>
                            <td className="td num">
                                {r.failures} of {r.units}
                            </td>
                            <td className="td font-head text-2xl num whitespace-nowrap">{percent(r.rate)}</td>
                            <td className="td">
                                <Interval {...r} />
                                <span className="num text-sm">
                                    {percent(r.lower, 1)} to {percent(r.upper, 1)}
                                </span>
                            </td>
                        </tr>
                    ))}
                </tbody>
            </table>
        </Panel>
    );
}

/** The interval as a bar from 0 to 1, the rate as a diamond in it. */
function Interval({ lower, upper, rate }: { lower: number; upper: number; rate: number }) {
    return (
        <svg
            viewBox="0 0 200 26"
            className="w-48"
            role="img"
            aria-label={`between ${percent(lower, 1)} and ${percent(upper, 1)}`}
        >
            <line x1="0" x2="200" y1="13" y2="13" stroke="var(--rule)" />
            <line
                x1={200 * lower}
                x2={200 * upper}
                y1="13"
                y2="13"
                stroke="var(--enamel)"
                strokeWidth="8"
                opacity="0.5"
            />
            <path d={`M ${200 * rate} 3 l 6 10 l -6 10 l -6 -10 z`} fill="var(--hand)" />
        </svg>
    );
}
