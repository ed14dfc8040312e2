import { useQuery } from '@tanstack/react-query';
import { answer, api } from '../../api/client';
import { HeadRow, Mark, Panel } from '../../kit/basics';

const mm = (v: number) => `${v.toFixed(3)} mm`;

/** Air checks by numbers: the hole each circuit leaks through, beside good builds of the same family. */
export function AirLeaks({ number, read }: { number: string; read: number }) {
    const leaks = useQuery({
        queryKey: ['air', number, read],
        queryFn: () => answer(api.GET('/units/{number}/assembly/air', { params: { path: { number } } })),
        enabled: read > 0,
    });
    const checks = leaks.data?.checks ?? [];
    if (checks.length === 0) return null;
    return (
        <Panel title="Air checks by numbers" aside="as one round hole, less what is meant to bleed">
            <table className="w-full text-sm">
                <HeadRow of={['Circuit', 'Leaks', 'Good builds', '']} />
                <tbody>
                    {checks.map((c) => (
                        <tr key={c.code} className="border-b border-rule">
                            <th scope="row" className="py-1 text-left font-normal">
                                {c.name}
                                {c.bleeds.length > 0 && (
                                    <span className="block text-faint">bleeds {c.bleeds.map(mm).join(', ')}</span>
                                )}
                            </th>
                            <td className="num font-semibold">{c.mm === null ? '–' : mm(c.mm)}</td>
                            <td className="num">{c.good ? `${mm(c.good.median)}, ${c.good.n} builds` : c.why}</td>
                            <td>
                                {c.good && (
                                    <Mark kind={c.unlike ? 'bad' : 'good'}>
                                        {c.unlike ? 'unlike good ones' : 'like good ones'}
                                    </Mark>
                                )}
                            </td>
                        </tr>
                    ))}
                </tbody>
            </table>
        </Panel>
    );
}
