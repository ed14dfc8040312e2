import { useInfiniteQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { answer, api, type Schemas } from '../../api/client';
import { placeName } from '../../card/stations';
import type { Column } from '../../kit/DataTable';
import { formatCount } from '../../kit/format';
import { PagedTable, useOrder } from '../../kit/PagedTable';

/** Which units carry this lot, and where they are. */
export function Lot() {
    const { lot = '' } = useParams();
    const order = useOrder();
    const list = useInfiniteQuery({
        queryKey: ['lot', lot, order.by],
        initialPageParam: undefined as string | undefined,
        getNextPageParam: (p: Schemas['Lot']) => p.after ?? undefined,
        queryFn: ({ pageParam }) =>
            answer(api.GET('/lots/{lot}', { params: { path: { lot }, query: { after: pageParam, ...order.asked } } })),
    });
    return (
        <>
            <h1 className="mb-2 text-3xl">Lot {lot}</h1>
            <PagedTable
                query={list}
                what={`lot ${lot}`}
                columns={COLUMNS}
                rows={(p) => p.units}
                rowId={(u) => `${u.serial} ${u.part} ${u.place}`}
                total={(p) => p.total.places}
                empty="No built unit carries it."
                order={order}
                more="More units"
                above={(p) => <Carried lot={lot} total={p.total} />}
            />
        </>
    );
}

function Carried({ lot, total }: { lot: string; total: Schemas['Lot']['total'] }) {
    return (
        <p className="mb-2 flex flex-wrap items-center gap-4">
            <span>
                <strong className="font-head text-3xl num">{formatCount(total.units)}</strong> built{' '}
                {total.units === 1 ? 'unit carries' : 'units carry'} it, {formatCount(total.pieces)}{' '}
                {total.pieces === 1 ? 'piece' : 'pieces'} in all.
            </span>
            {total.units > 0 && (
                <a className="btn" href={`/api/lots/${encodeURIComponent(lot)}/units.csv`} download>
                    The whole list as a file
                </a>
            )}
        </p>
    );
}

const COLUMNS: Column<Schemas['Lot']['units'][number]>[] = [
    {
        id: 'unit',
        title: 'Unit',
        sorted: true,
        cell: (u) => (
            <Link className="font-semibold underline num" to={`/units/${u.coreTag}`}>
                {u.serial}
            </Link>
        ),
    },
    {
        id: 'part',
        title: 'Part',
        cell: (u) => (
            <>
                {u.part} {u.partName}
            </>
        ),
    },
    { id: 'place', title: 'Place', sorted: true, cell: (u) => u.place },
    { id: 'count', title: 'Pieces', right: true, cell: (u) => u.count },
    { id: 'station', title: 'Where it is', cell: (u) => placeName(u.station) },
    { id: 'customer', title: 'Customer', cell: (u) => u.customer },
];
