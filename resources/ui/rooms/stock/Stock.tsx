import { useInfiniteQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import { answer, api, type Schemas } from '../../api/client';
import { formatMoney } from '../../kit/format';
import { Mark } from '../../kit/basics';
import type { Column } from '../../kit/DataTable';
import { PagedTable, SearchLine, useOrder } from '../../kit/PagedTable';

export function Stock() {
    const [params, setParams] = useSearchParams();
    const q = params.get('q') ?? '';
    const order = useOrder();
    const list = useInfiniteQuery({
        queryKey: ['stock', q, order.by],
        initialPageParam: undefined as string | undefined,
        getNextPageParam: (p: Schemas['StockPage']) => p.after ?? undefined,
        queryFn: ({ pageParam }) =>
            answer(api.GET('/stock', { params: { query: { q: q || undefined, after: pageParam, ...order.asked } } })),
    });
    return (
        <>
            <h1 className="mb-2 text-3xl">Stock</h1>
            <SearchLine label="Number, name or trade name" asked={q} ask={(v) => setParams(v ? { q: v } : {})} />
            <PagedTable
                query={list}
                what="the shelf"
                columns={COLUMNS}
                rows={(p) => p.parts}
                rowId={(p) => p.number}
                total={(p) => p.total}
                empty="No part is called that."
                order={{ ...order, by: order.by ?? 'number' }}
                more="More parts"
            />
        </>
    );
}

const COLUMNS: Column<Schemas['StockPage']['parts'][number]>[] = [
    {
        id: 'number',
        title: 'Part',
        sorted: true,
        cell: (p) => (
            <Link
                className="font-semibold underline num"
                to={`/interchange?desk=part&q=${encodeURIComponent(p.number)}`}
            >
                {p.number}
            </Link>
        ),
    },
    {
        id: 'name',
        title: 'Name',
        sorted: true,
        cell: (p) => (
            <>
                {p.name}
                {p.aliases.length > 0 && <span className="text-sm text-faint"> also {p.aliases.join(', ')}</span>}
            </>
        ),
    },
    { id: 'kind', title: 'Kind', cell: (p) => p.kind },
    {
        id: 'thickness',
        title: 'Thickness',
        cell: (p) => p.thickness != null && `${p.thickness} ${p.thicknessUnit}`,
    },
    { id: 'price', title: 'Price', right: true, sorted: true, cell: (p) => formatMoney(p.price) },
    {
        id: 'pieces',
        title: 'On the shelf',
        right: true,
        cell: (p) => (p.pieces > 0 ? p.pieces : <Mark kind={p.kind === 'selective' ? 'warn' : 'idle'}>none</Mark>),
    },
];
