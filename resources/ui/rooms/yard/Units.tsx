import { useInfiniteQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import { answer, api, type Schemas } from '../../api/client';
import { placeName, STATIONS_IN_ORDER } from '../../card/stations';
import { age } from '../../kit/format';
import { Choice, Mark } from '../../kit/basics';
import type { Column } from '../../kit/DataTable';
import { PagedTable, useOrder } from '../../kit/PagedTable';

const STATION_CHOICES = [...STATIONS_IN_ORDER.slice(1).map((s) => s.id), 'field', 'closed'];

function useUnits(asked: { station?: string; late?: number; customer?: string; sort?: string }) {
    return useInfiniteQuery({
        queryKey: ['units', asked],
        initialPageParam: undefined as string | undefined,
        getNextPageParam: (p: Schemas['UnitPage']) => p.after ?? undefined,
        queryFn: ({ pageParam }) => answer(api.GET('/units', { params: { query: { ...asked, after: pageParam } } })),
    });
}

export function Units() {
    const [params, setParams] = useSearchParams();
    const [station, customer] = [params.get('station'), params.get('customer')];
    const late = params.get('late') === '1';
    const order = useOrder();
    const list = useUnits({
        ...(station && { station }),
        ...(customer && { customer }),
        ...(late && { late: 1 }),
        ...order.asked,
    });
    return (
        <>
            <Title late={late} customer={customer} name={list.data?.pages[0]?.customer?.name} />
            <Choice
                label="Station"
                value={station ?? 'all'}
                values={['all', ...STATION_CHOICES]}
                text={(v) => (v === 'all' ? 'All' : placeName(v))}
                onChange={(v) => setParams({ ...(customer && { customer }), ...(v !== 'all' && { station: v }) })}
            />
            <PagedTable
                query={list}
                what="the list"
                columns={COLUMNS}
                rows={(p) => p.units}
                rowId={(u) => u.coreTag}
                total={(p) => p.total}
                empty="No unit is there."
                order={{ ...order, by: order.by ?? '-coreTag' }}
                more="Show more"
            />
        </>
    );
}

function Title({ late, customer, name }: { late: boolean; customer: string | null; name: string | undefined }) {
    return (
        <>
            <h1 className="mb-2 text-3xl">
                Units{late ? ', late' : ''}
                {customer && ` of ${name ?? customer}`}
            </h1>
            {customer && (
                <p className="mb-2 flex gap-4">
                    <Link className="underline" to={`/core-accounts/${encodeURIComponent(customer)}`}>
                        Their core statement
                    </Link>
                    <Link className="underline" to="/units">
                        Units of everybody
                    </Link>
                </p>
            )}
        </>
    );
}

const COLUMNS: Column<Schemas['UnitSummary']>[] = [
    {
        id: 'coreTag',
        title: 'Core tag',
        sorted: true,
        cell: (u) => (
            <Link className="inline-flex min-h-8 items-center font-semibold underline num" to={`/units/${u.coreTag}`}>
                {u.coreTag}
            </Link>
        ),
    },
    { id: 'serial', title: 'Serial', cell: (u) => <span className="num">{u.serial}</span> },
    {
        id: 'station',
        title: 'Station, since',
        sorted: true,
        cell: (u) => (
            <>
                {placeName(u.station)} <span className="text-sm text-faint">{age(u.stationSince)}</span>
            </>
        ),
    },
    { id: 'variant', title: 'Variant', cell: (u) => u.variant?.code ?? '–' },
    { id: 'package', title: 'Package', cell: (u) => u.package ?? '–' },
    { id: 'vehicle', title: 'Vehicle', cell: (u) => u.vehicle },
    { id: 'grade', title: 'Grade', sorted: true, cell: (u) => u.grade },
    {
        id: 'promisedOn',
        title: 'Promised',
        sorted: true,
        cell: (u) =>
            u.late ? <Mark kind="bad">late {u.promisedOn}</Mark> : <span className="num">{u.promisedOn ?? '–'}</span>,
    },
];
