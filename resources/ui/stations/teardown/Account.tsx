import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, type Schemas } from '../../api/client';
import { HeadRow, Mark } from '../../kit/basics';
import { Fetched } from '../../kit/Fetched';
import { More } from '../../kit/More';
import { ExtraWork } from './ExtraWork';
import { accountKey, money, type Of } from './known';
import { Loans } from './Loans';
import { VehicleCauses } from './VehicleCauses';

type Costs = Schemas['KnownCosts'];

/** What follows from a teardown beyond the bench; each opens when it is wanted. */
export function Account({ number, can }: Of) {
    const account = useQuery({
        queryKey: accountKey(number),
        queryFn: () => answer(api.GET('/units/{number}/teardown/account', { params: { path: { number } } })),
    });
    return (
        <section className="sheet px-4 py-1" aria-label="What follows from the teardown">
            <KnownCosts number={number} />
            <Fetched query={account} what="what follows from the teardown">
                {(a) => (
                    <>
                        <ExtraWork {...{ number, can }} all={a.extraWork} />
                        <VehicleCauses {...{ number, can }} all={a.vehicleCauses} known={a.knownCauses} />
                        <Loans {...{ number, can }} all={a.loans} />
                    </>
                )}
            </Fetched>
        </section>
    );
}

/** Reckoned when somebody wants to know: it takes the whole order into account. */
function KnownCosts({ number }: { number: string }) {
    const [open, setOpen] = useState(false);
    const costs = useQuery({
        queryKey: ['teardown-costs', number],
        queryFn: () => answer(api.GET('/units/{number}/teardown/costs', { params: { path: { number } } })),
        enabled: open,
        staleTime: 0,
    });
    return (
        <>
            <button
                type="button"
                className="flex min-h-11 w-full items-center gap-2 py-2 text-left font-semibold"
                aria-expanded={open}
                onClick={() => setOpen(!open)}
            >
                <span aria-hidden="true" className={open ? 'rotate-90' : ''}>
                    ▸
                </span>
                <span className="flex-1">What it costs now</span>
                {costs.data && (
                    <span className="num text-sm font-normal">
                        {costs.data.costAdded > 0 ? `${money(costs.data.costAdded)} more than ordered` : 'as ordered'}
                    </span>
                )}
            </button>
            {open && (
                <Fetched query={costs} what="what it costs">
                    {(c) => <CostsNow costs={c} />}
                </Fetched>
            )}
        </>
    );
}

function CostsNow({ costs: c }: { costs: Costs }) {
    return (
        <div className="flex flex-col gap-3 pb-2">
            <table className="w-full text-sm">
                <HeadRow of={['Choice', 'Price', 'Cost', 'Left', 'Days']} numbersFrom={1} />
                <tbody>
                    {c.choices.map((o) => (
                        <tr key={o.what} className="border-b border-rule align-top">
                            <th scope="row" className="py-1 pr-2 text-left">
                                {o.what} <span className="block font-normal text-faint">{o.note}</span>
                            </th>
                            {[money(o.price), money(o.cost), money(o.left), o.days].map((n, i) => (
                                <td key={i} className="num px-2 text-right">
                                    {n}
                                </td>
                            ))}
                        </tr>
                    ))}
                </tbody>
            </table>
            {c.choices.length === 0 && <p className="text-faint">Nothing is ordered yet to hold against.</p>}
            <p>
                Credit of the core <strong className="num">{money(c.credit)}</strong>
                {c.creditBefore !== null && (
                    <>
                        , revised from <span className="num">{money(c.creditBefore)}</span>: {c.creditReason}
                    </>
                )}
            </p>
            <Parts costs={c} />
            <Hours costs={c} />
        </div>
    );
}

function Parts({ costs: c }: { costs: Costs }) {
    if (c.parts.length === 0) return <p className="text-faint">No part is to be renewed so far.</p>;
    return (
        <More
            title={
                <>
                    <span className="flex-1">{c.parts.length} parts to renew</span>
                    {c.short.length > 0 && <Mark kind="bad">{c.short.length} not on the shelf</Mark>}
                </>
            }
        >
            <ul className="text-sm">
                {c.parts.map((p) => (
                    <li key={p.part} className="flex flex-wrap justify-between gap-x-3 border-b border-rule py-1">
                        <span>
                            <strong>{p.name}</strong> <span className="num text-faint">{p.part}</span>
                            <span className="block">{p.why}</span>
                        </span>
                        <span className="num">
                            {p.inOrder ? 'in the order' : money(p.price)} · {p.shelf} on the shelf
                        </span>
                    </li>
                ))}
            </ul>
        </More>
    );
}

function Hours({ costs: c }: { costs: Costs }) {
    return (
        <More
            title={
                <span className="flex-1">
                    {c.hoursOrdered ?? '–'} h ordered
                    {c.hoursAdded > 0 && `, ${c.hoursAdded} h more came to light`}
                </span>
            }
        >
            <ul className="text-sm">
                {c.hours.map((h) => (
                    <li key={h.what} className="flex justify-between gap-3">
                        {h.what} <span className="num">{h.hours} h</span>
                    </li>
                ))}
            </ul>
            {c.learned.length > 0 && (
                <table className="w-full text-sm">
                    <HeadRow of={['Operation', 'List, h', 'Last times, h', 'Times']} numbersFrom={1} />
                    <tbody>
                        {c.learned.map((l) => (
                            <tr key={l.operation} className="border-b border-rule">
                                <th scope="row" className="text-left font-normal">
                                    {l.name}
                                </th>
                                <td className="num text-right">{l.book}</td>
                                <td className="num text-right">{l.hours}</td>
                                <td className="num text-right">{l.n}</td>
                            </tr>
                        ))}
                    </tbody>
                </table>
            )}
        </More>
    );
}
