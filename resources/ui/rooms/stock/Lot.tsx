import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { answer, api } from '../../api/client';
import { placeName } from '../../card/stations';
import { Pending } from '../../kit/Fetched';

/** Which units carry this lot, and where they are. */
export function Lot() {
    const { lot = '' } = useParams();
    const query = useQuery({
        queryKey: ['lot', lot],
        queryFn: () => answer(api.GET('/lots/{lot}', { params: { path: { lot } } })),
    });
    if (!query.data) return <Pending of={[query]} what={`lot ${lot}`} />;
    return (
        <>
            <h1 className="mb-2 text-3xl">Lot {lot}</h1>
            <p className="mb-2">{query.data.units.length} places in built units carry it.</p>
            <div className="sheet overflow-x-auto">
                <table className="w-full">
                    <thead>
                        <tr>
                            {['Unit', 'Part', 'Place', 'Pieces', 'Where it is', 'Customer'].map((h) => (
                                <th key={h} scope="col" className="th">
                                    {h}
                                </th>
                            ))}
                        </tr>
                    </thead>
                    <tbody>
                        {query.data.units.map((u, i) => (
                            <tr key={i}>
                                <td className="td">
                                    <Link className="font-semibold underline num" to={`/units/${u.coreTag}`}>
                                        {u.serial}
                                    </Link>
                                </td>
                                <td className="td">
                                    {u.part} {u.partName}
                                </td>
                                <td className="td">{u.place}</td>
                                <td className="td num">{u.count}</td>
                                <td className="td">{placeName(u.station)}</td>
                                <td className="td">{u.customer}</td>
                            </tr>
                        ))}
                    </tbody>
                </table>
            </div>
        </>
    );
}
