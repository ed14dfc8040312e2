import { useInfiniteQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import { answer, api, type Schemas } from '../../api/client';
import { placeName, STATIONS_IN_ORDER } from '../../card/stations';
import { age } from '../../kit/format';
import { Choice, Mark } from '../../kit/basics';
import { Fetched } from '../../kit/Fetched';

const STATION_CHOICES = [...STATIONS_IN_ORDER.slice(1).map((s) => s.id), 'field', 'closed'];

export function Units() {
    const [params, setParams] = useSearchParams();
    const station = params.get('station') ?? undefined;
    const late = params.get('late') === '1' ? 1 : undefined;
    const list = useInfiniteQuery({
        queryKey: ['units', station, late],
        initialPageParam: undefined as number | undefined,
        getNextPageParam: (p: Schemas['UnitPage']) => p.before ?? undefined,
        queryFn: ({ pageParam }) =>
            answer(api.GET('/units', { params: { query: { station, late, before: pageParam } } })),
    });
    return (
        <>
            <h1 className="mb-2 text-3xl">Units{late ? ', late' : ''}</h1>
            <Choice
                label="Station"
                value={station ?? 'all'}
                values={['all', ...STATION_CHOICES]}
                text={(v) => (v === 'all' ? 'All' : placeName(v))}
                onChange={(v) => setParams(v === 'all' ? {} : { station: v })}
            />
            <Fetched query={list} what="the list">
                {(data) => (
                    <UnitTable
                        rows={data.pages.flatMap((p) => p.units)}
                        more={list.hasNextPage ? () => void list.fetchNextPage() : null}
                        busy={list.isFetchingNextPage}
                    />
                )}
            </Fetched>
        </>
    );
}

const COLUMNS = ['Core tag', 'Serial', 'Station', 'Variant', 'Package', 'Vehicle', 'Grade', 'Promised'];

function UnitTable({ rows, more, busy }: { rows: Schemas['UnitSummary'][]; more: (() => void) | null; busy: boolean }) {
    return (
        <div className="sheet mt-3 overflow-x-auto">
            <table className="w-full">
                <thead>
                    <tr>
                        {COLUMNS.map((h) => (
                            <th key={h} scope="col" className="th">
                                {h}
                            </th>
                        ))}
                    </tr>
                </thead>
                <tbody>
                    {rows.map((u) => (
                        <tr key={u.coreTag}>
                            <td className="td">
                                <Link
                                    className="inline-flex min-h-8 items-center font-semibold underline num"
                                    to={`/units/${u.coreTag}`}
                                >
                                    {u.coreTag}
                                </Link>
                            </td>
                            <td className="td num">{u.serial}</td>
                            <td className="td">
                                {placeName(u.station)} <span className="text-sm text-faint">{age(u.stationSince)}</span>
                            </td>
                            <td className="td">{u.variant?.code ?? '–'}</td>
                            <td className="td">{u.package ?? '–'}</td>
                            <td className="td">{u.vehicle}</td>
                            <td className="td">{u.grade}</td>
                            <td className="td num">
                                {u.late ? <Mark kind="bad">late {u.promisedOn}</Mark> : (u.promisedOn ?? '–')}
                            </td>
                        </tr>
                    ))}
                </tbody>
            </table>
            {rows.length === 0 && <p className="p-4 text-faint">No unit is there.</p>}
            {more && (
                <button type="button" className="btn m-3" onClick={more} disabled={busy}>
                    Show older ones
                </button>
            )}
        </div>
    );
}
