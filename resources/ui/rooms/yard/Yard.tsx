import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { answer, api, type Schemas } from '../../api/client';
import { age, STATIONS } from '../../kit/format';
import { Loading, Mark, ProblemNote } from '../../kit/basics';

/** Where every unit is, oldest first, station by station. */
export function Yard() {
    const board = useQuery({ queryKey: ['yard'], queryFn: () => answer(api.GET('/yard')), refetchInterval: 30_000 });
    if (board.isError) return <ProblemNote problem={board.error as never} />;
    if (!board.data) return <Loading what="the yard" />;
    const all = board.data.stations.reduce((n, s) => n + s.units, 0);
    const late = board.data.stations.reduce((n, s) => n + s.late, 0);
    const held = board.data.stations.reduce((n, s) => n + s.held, 0);
    return (
        <>
            <div className="mb-3 flex flex-wrap items-baseline gap-x-6">
                <h1 className="text-3xl">The yard</h1>
                <p className="text-lg">
                    <strong className="num">{all}</strong> units in the house
                </p>
                {late > 0 && (
                    <Link to="/units?late=1">
                        <Mark kind="bad">{late} late</Mark>
                    </Link>
                )}
                {held > 0 && <Mark kind="warn">{held} on hold</Mark>}
            </div>
            <div className="grid gap-3 md:grid-cols-2 xl:grid-cols-4">
                {board.data.stations.map((s) => (
                    <section key={s.station} aria-label={STATIONS[s.station]} className="sheet flex flex-col">
                        <header className="flex items-baseline justify-between bg-enamel px-3 py-1.5 text-enamel-ink">
                            <h2 className="text-xl">
                                <Link to={`/units?station=${s.station}`}>{STATIONS[s.station]}</Link>
                            </h2>
                            <span className="font-head text-3xl num">{s.units}</span>
                        </header>
                        <ul className="flex-1 divide-y divide-rule">
                            {s.oldest.map((u) => (
                                <Row key={u.coreTag} unit={u} />
                            ))}
                        </ul>
                        {s.units === 0 && <p className="px-3 py-4 text-faint">Nothing waits here.</p>}
                        {s.units > s.oldest.length && (
                            <Link className="px-3 py-2 underline" to={`/units?station=${s.station}`}>
                                all {s.units}
                            </Link>
                        )}
                    </section>
                ))}
            </div>
        </>
    );
}

function Row({ unit: u }: { unit: Schemas['UnitSummary'] }) {
    return (
        <li>
            <Link to={`/units/${u.coreTag}`} className="block min-h-11 px-3 py-1.5 hover:bg-sheet">
                <span className="flex justify-between gap-2">
                    <strong className="num">{u.serial ?? u.coreTag}</strong>
                    <span className="text-sm text-faint">{age(u.stationSince)}</span>
                </span>
                <span className="block truncate text-sm">
                    {u.variant?.code ?? 'not identified'}
                    {u.package && ` · ${u.package}`} · {u.vehicle}
                </span>
                {u.late && <Mark kind="bad">late, promised {u.promisedOn}</Mark>}
            </Link>
        </li>
    );
}
