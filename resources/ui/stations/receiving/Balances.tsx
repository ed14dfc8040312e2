import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { Link, useParams, useSearchParams } from 'react-router';
import { answer, api, isProblem, type Schemas } from '../../api/client';
import { day, formatCount, formatMoney } from '../../kit/format';
import { Field, HeadRow, Mark, ProblemNote } from '../../kit/basics';
import type { Column } from '../../kit/DataTable';
import { PagedTable, SearchLine, useOrder } from '../../kit/PagedTable';
import { CreditLines } from './CreditLines';

/** Who owes how many cores, and what came in. */
export function Balances() {
    const [params, setParams] = useSearchParams();
    const q = params.get('q') ?? '';
    const order = useOrder();
    const list = useInfiniteQuery({
        queryKey: ['core-balances', q, order.by],
        initialPageParam: undefined as number | undefined,
        getNextPageParam: (p: Schemas['CoreBalances']) => p.after ?? undefined,
        queryFn: ({ pageParam }) =>
            answer(
                api.GET('/money/core-balances', {
                    params: { query: { q: q || undefined, after: pageParam, ...order.asked } },
                }),
            ),
    });
    return (
        <>
            <h1 className="mb-2 text-3xl">Core accounts</h1>
            <SearchLine label="Customer, as the name begins" asked={q} ask={(v) => setParams(v ? { q: v } : {})} />
            <PagedTable
                query={list}
                what="the core accounts"
                columns={COLUMNS}
                rows={(p) => p.balances}
                rowId={(b) => b.customer.code}
                total={(p) => p.total}
                empty={
                    q ? 'No customer with cores is called that.' : 'No core has come from or is owed by anybody yet.'
                }
                order={{ ...order, by: order.by ?? '-overdue' }}
                more="More customers"
            />
        </>
    );
}

/** Says what the paper leaves out; its totals are of all. */
function LeftOut({ shown, of, what }: { shown: number; of: number; what: string }) {
    return shown < of ? (
        <p className="my-2 font-semibold">
            The first {formatCount(shown)} of {formatCount(of)} {what}; the totals below are of all. Narrow the dates
            for the rest.
        </p>
    ) : null;
}

type Balance = Schemas['CoreBalances']['balances'][number];

function Due({ b }: { b: Balance }) {
    if (b.overdue > 0)
        return (
            <Mark kind="bad">
                {b.overdue}, oldest due {b.oldestDue}
            </Mark>
        );
    return b.owed > 0 ? <Mark kind="idle">due {b.oldestDue}</Mark> : <Mark kind="good">even</Mark>;
}

const COLUMNS: Column<Balance>[] = [
    {
        id: 'customer',
        title: 'Customer',
        head: true,
        sorted: true,
        cell: (b) => b.customer.name,
    },
    {
        id: 'owed',
        title: 'Owes',
        sorted: true,
        cell: (b) => <span className="font-head text-2xl num">{b.owed}</span>,
    },
    {
        id: 'charged',
        title: 'Charged for them',
        right: true,
        sorted: true,
        cell: (b) => formatMoney(b.charged),
    },
    { id: 'overdue', title: 'Overdue', sorted: true, cell: (b) => <Due b={b} /> },
    { id: 'received', title: 'Cores received', right: true, cell: (b) => b.received },
    { id: 'credited', title: 'Credited', right: true, cell: (b) => formatMoney(b.credited) },
    {
        id: 'statement',
        title: 'Statement',
        cell: (b) => (
            <Link className="underline" to={`/core-accounts/${b.customer.code}`}>
                statement
            </Link>
        ),
    },
];

type Asked = { from: string; to: string };

const filled = (asked: Asked): Partial<Asked> => Object.fromEntries(Object.entries(asked).filter(([, v]) => v !== ''));

const askedIn = (params: URLSearchParams): Asked => ({ from: params.get('from') ?? '', to: params.get('to') ?? '' });

/** The statement a customer gets: every core with its credit line by line, and the cores still owed. */
export function Statement() {
    const { code = '' } = useParams();
    const [params, setParams] = useSearchParams();
    const asked = askedIn(params);
    const s = useQuery({
        queryKey: ['statement', code, asked.from, asked.to],
        queryFn: () =>
            answer(api.GET('/money/customers/{code}/statement', { params: { path: { code }, query: filled(asked) } })),
    });
    const set = (change: Partial<Asked>) => setParams(filled({ ...asked, ...change }));
    const { from = '', to = '' } = { ...s.data, ...filled(asked) };
    return (
        <>
            <div className="no-print mb-3 flex flex-wrap items-end gap-3">
                <Field label="From" type="date" value={from} onChange={(v) => set({ from: v })} />
                <Field label="To" type="date" value={to} onChange={(v) => set({ to: v })} />
                <button type="button" className="btn btn-main" onClick={() => print()}>
                    Print the statement
                </button>
            </div>
            {s.isError && <ProblemNote problem={isProblem(s.error) ? s.error : null} />}
            {s.data && <Paper statement={s.data} />}
        </>
    );
}

type Stated = Schemas['CoreStatement'];

function Paper({ statement: s }: { statement: Stated }) {
    const { totals } = s;
    return (
        <article className="sheet p-6">
            <header className="mb-4 flex justify-between">
                <div>
                    <h1 className="text-3xl">Core statement</h1>
                    <p>
                        {s.customer.name}, {s.customer.city}
                    </p>
                </div>
                <p className="text-right">
                    Vast Yard
                    <br />
                    {s.from} to {s.to}
                </p>
            </header>
            <h2 className="text-xl">Cores received</h2>
            {s.cores.map((c) => (
                <Credited key={c.coreTag} core={c} />
            ))}
            {s.cores.length === 0 && <p className="text-faint">None in this time.</p>}
            <LeftOut shown={s.cores.length} of={totals.cores} what="cores" />
            <h2 className="mt-4 text-xl">Exchange units and the cores owed for them</h2>
            <Debts debts={s.debts} />
            <LeftOut shown={s.debts.length} of={totals.units} what="exchange units" />
            <p className="mt-4 text-xl">
                Credited <strong className="num">{formatMoney(totals.credited)}</strong>; still owed {totals.owed}{' '}
                {totals.owed === 1 ? 'core' : 'cores'} at <strong className="num">{formatMoney(totals.charged)}</strong>
                {totals.overdue > 0 && <>, {totals.overdue} overdue</>}.
            </p>
        </article>
    );
}

function Credited({ core: c }: { core: Stated['cores'][number] }) {
    return (
        <section className="mb-3 border-b border-rule pb-2">
            <p className="flex flex-wrap gap-x-4">
                <strong className="num">{c.coreTag}</strong> {c.unit} <span>{c.receivedOn}</span>{' '}
                <span>
                    grade {c.grade}: {c.reason}
                </span>
                <span className="flex-1" />
                {c.settles && <Mark kind="good">settles a core owed</Mark>}
                <strong className="num">{formatMoney(c.credit)}</strong>
            </p>
            <CreditLines lines={c.lines} />
            {c.revision && (
                <p className="text-sm">
                    Revised after teardown on {day(c.revision.at)}, before {formatMoney(c.revision.before)}:{' '}
                    {c.revision.reason}
                </p>
            )}
        </section>
    );
}

type Debt = Stated['debts'][number];

function DebtState({ debt }: { debt: Debt }) {
    if (debt.settledBy) return <Mark kind="good">{debt.settledBy}</Mark>;
    return debt.overdue ? <Mark kind="bad">overdue</Mark> : <Mark kind="idle">owed</Mark>;
}

function Debts({ debts }: { debts: Debt[] }) {
    return (
        <table className="w-full">
            <HeadRow of={['Unit', 'Family', 'Core charge', 'Charged', 'Due', 'Core']} />
            <tbody>
                {debts.map((d) => (
                    <tr key={d.serial}>
                        <td className="td num">{d.serial}</td>
                        <td className="td">{d.family}</td>
                        <td className="td num">{formatMoney(d.charge)}</td>
                        <td className="td">{d.chargedOn}</td>
                        <td className="td">{d.dueOn}</td>
                        <td className="td">
                            <DebtState debt={d} />
                        </td>
                    </tr>
                ))}
            </tbody>
        </table>
    );
}
