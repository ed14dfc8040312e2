import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { answer, api, isProblem, type Schemas } from '../../api/client';
import { formatMoney, percent } from '../../kit/format';
import { HeadRow, Mark, ProblemNote } from '../../kit/basics';
import { Pending } from '../../kit/Fetched';
import { Letterhead } from './Letterhead';

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
            <Paper q={q} />
            <Alternatives rows={q.alternatives} />
        </>
    );
}

type QuoteData = Schemas['Quote'];

function Paper({ q }: { q: QuoteData }) {
    return (
        <article className="sheet p-6">
            <Letterhead
                title="Quote"
                to={[q.customer ?? 'for the shelf', q.vehicle]}
                about={[q.serial ?? q.coreTag, `${q.variant}, ${q.package}`]}
            />
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
            <p className="mt-2">{included(q)}</p>
            <WorkDone work={q.made.work} />
            <Surprises surprises={q.surprises} />
        </article>
    );
}

function included({ made, fluid, promisedOn, holds }: QuoteData): string {
    const { pieces, hours, converter } = made;
    const parts = [
        `${pieces} new parts`,
        `${hours} hours of work`,
        converter && `${converter.charAt(0).toLowerCase()}${converter.slice(1)}`,
        `${fluid.litres} L ${fluid.name}`,
    ].filter(Boolean);
    const torque = holds?.largestInputTorque_nm;
    return [
        `In this price: ${parts.join(', ')}.`,
        promisedOn && `Promised for ${promisedOn}.`,
        holds &&
            torque !== undefined &&
            `Good for ${torque.toFixed(0)} N.m of engine torque at the house limit of ${holds.limit.toFixed(2)}.`,
    ]
        .filter(Boolean)
        .join(' ');
}

function WorkDone({ work }: { work: string[] }) {
    if (work.length === 0) return null;
    return (
        <>
            <h2 className="mt-3 text-xl">Done and checked for this order</h2>
            <ul className="list-disc pl-5">
                {work.map((w) => (
                    <li key={w}>{w}</li>
                ))}
            </ul>
        </>
    );
}

function Surprises({ surprises }: { surprises: QuoteData['surprises'] }) {
    if (surprises.length === 0) return null;
    return (
        <>
            <h2 className="mt-3 text-xl">It will feel different</h2>
            <ul className="list-disc pl-5">
                {surprises.map((s) => (
                    <li key={s.option}>
                        {s.text} ({s.option})
                    </li>
                ))}
            </ul>
            <p className="mt-4">Read and understood: ______________________________</p>
        </>
    );
}

type Alternative = QuoteData['alternatives'][number];

function riskSaid(risk: Alternative['risk']): string {
    if (!risk) return '–';
    if (risk.shipped === 0) return 'none shipped yet';
    return `${risk.returned} of ${risk.shipped}; up to ${percent(risk.upper)} not excluded`;
}

function Alternatives({ rows }: { rows: Alternative[] }) {
    return (
        <section className="no-print sheet mt-3 px-4 py-3" aria-label="What else could be done">
            <h2 className="text-xl">What else could be done</h2>
            <table className="w-full">
                <HeadRow of={['', 'Price', 'Cost', 'Left', 'Days', 'Came back so far', '']} />
                <tbody>
                    {rows.map((a, i) => (
                        <tr key={a.what}>
                            <th scope="row" className="td text-left">
                                {i === 0 ? <Mark kind="next">{a.what}</Mark> : a.what}
                            </th>
                            <td className="td num">{formatMoney(a.price)}</td>
                            <td className="td num">{formatMoney(a.cost)}</td>
                            <td className="td font-head text-xl num">{formatMoney(a.left)}</td>
                            <td className="td num">{a.days}</td>
                            <td className="td">{riskSaid(a.risk)}</td>
                            <td className="td text-sm">{a.note}</td>
                        </tr>
                    ))}
                </tbody>
            </table>
        </section>
    );
}
