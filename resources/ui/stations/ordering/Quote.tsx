import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { answer, api, isProblem } from '../../api/client';
import { formatMoney, percent } from '../../kit/format';
import { HeadRow, Mark, ProblemNote } from '../../kit/basics';
import { Pending } from '../../kit/Fetched';

/** The quote to print, and for the desk alone what else could be done for this customer. */
export function Quote() {
    const { number = '' } = useParams();
    const quote = useQuery({
        queryKey: ['quote', number],
        queryFn: () => answer(api.GET('/units/{number}/ordering/quote', { params: { path: { number } } })),
    });
    if (quote.isError)
        return (
            <div className="sheet p-4">
                <ProblemNote problem={isProblem(quote.error) ? quote.error : null} />
            </div>
        );
    if (!quote.data) return <Pending of={[quote]} what="the quote" />;
    const q = quote.data;
    return (
        <>
            <div className="no-print mb-3 flex items-center gap-3">
                <Link className="underline" to={`/units/${q.coreTag}/ordering`}>
                    back to the order
                </Link>
                <button type="button" className="btn btn-main" onClick={() => print()}>
                    Print the quote
                </button>
            </div>
            <article className="sheet p-6">
                <header className="mb-3 flex justify-between">
                    <div>
                        <h1 className="text-3xl">Quote</h1>
                        <p>
                            {q.customer ?? 'for the shelf'}
                            {q.vehicle && `, ${q.vehicle}`}
                        </p>
                    </div>
                    <p className="text-right">
                        Vast Yard
                        <br />
                        {q.serial ?? q.coreTag}
                        <br />
                        {q.variant}, {q.package}
                    </p>
                </header>
                <table className="w-full">
                    <tbody>
                        {[...q.lines, ...q.core].map((l) => (
                            <tr key={l.label}>
                                <td className="td">{l.label}</td>
                                <td className="td num text-right">{formatMoney(l.amount)}</td>
                            </tr>
                        ))}
                        <tr>
                            <th scope="row" className="td text-left text-xl">
                                Together
                            </th>
                            <td className="td text-right font-head text-4xl num">{formatMoney(q.total)}</td>
                        </tr>
                    </tbody>
                </table>
                <p className="mt-2">
                    In this price: {q.made.pieces} new parts, {q.made.hours} hours of work
                    {q.made.converter &&
                        `, ${q.made.converter.charAt(0).toLowerCase()}${q.made.converter.slice(1)}`}, {q.fluid.litres} L{' '}
                    {q.fluid.name}.{q.promisedOn && ` Promised for ${q.promisedOn}.`}
                    {q.holds?.largestInputTorque_nm !== undefined &&
                        ` Good for ${q.holds.largestInputTorque_nm.toFixed(0)} N.m of engine torque at the house limit of ${q.holds.limit.toFixed(2)}.`}
                </p>
                {q.made.work.length > 0 && (
                    <>
                        <h2 className="mt-3 text-xl">Done and checked for this order</h2>
                        <ul className="list-disc pl-5">
                            {q.made.work.map((w) => (
                                <li key={w}>{w}</li>
                            ))}
                        </ul>
                    </>
                )}
                {q.surprises.length > 0 && (
                    <>
                        <h2 className="mt-3 text-xl">It will feel different</h2>
                        <ul className="list-disc pl-5">
                            {q.surprises.map((s) => (
                                <li key={s.option}>
                                    {s.text} ({s.option})
                                </li>
                            ))}
                        </ul>
                        <p className="mt-4">Read and understood: ______________________________</p>
                    </>
                )}
            </article>
            <section className="no-print sheet mt-3 px-4 py-3" aria-label="What else could be done">
                <h2 className="text-xl">What else could be done</h2>
                <table className="w-full">
                    <HeadRow of={['', 'Price', 'Cost', 'Left', 'Days', 'Came back so far', '']} />
                    <tbody>
                        {q.alternatives.map((a, i) => (
                            <tr key={a.what}>
                                <th scope="row" className="td text-left">
                                    {i === 0 ? <Mark kind="next">{a.what}</Mark> : a.what}
                                </th>
                                <td className="td num">{formatMoney(a.price)}</td>
                                <td className="td num">{formatMoney(a.cost)}</td>
                                <td className="td font-head text-xl num">{formatMoney(a.left)}</td>
                                <td className="td num">{a.days}</td>
                                <td className="td">
                                    {a.risk
                                        ? a.risk.shipped === 0
                                            ? 'none shipped yet'
                                            : `${a.risk.returned} of ${a.risk.shipped}; up to ${percent(a.risk.upper)} not excluded`
                                        : '–'}
                                </td>
                                <td className="td text-sm">{a.note}</td>
                            </tr>
                        ))}
                    </tbody>
                </table>
            </section>
        </>
    );
}
