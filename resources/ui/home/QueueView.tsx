import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { answer, api, type Schemas } from '../api/client';
import { Mark } from '../kit/basics';
import { Fetched } from '../kit/Fetched';
import { age } from '../kit/format';

type Queued = Schemas['QueuedUnit'];

/** What waits at one station: what I have begun, what comes next, what is held and by whom. */
export function QueueView({ station, title }: { station: string; title: string }) {
    const query = useQuery({
        queryKey: ['yard', 'queue', station],
        queryFn: () => answer(api.GET('/yard/queue/{station}', { params: { path: { station } } })),
        refetchInterval: 30_000,
    });
    return (
        <Fetched query={query} what={title.toLowerCase()}>
            {(queue) => {
                const held = queue.units.filter((u) => u.hold);
                const mine = queue.units.filter((u) => !u.hold && u.mine);
                const next = queue.units.filter((u) => !u.hold && !u.mine);
                const [first, ...rest] = [...mine, ...next];
                return (
                    <section aria-label={title}>
                        <header className="mb-2 flex items-baseline gap-4">
                            <h1 className="text-3xl">{title}</h1>
                            <p className="text-lg num">{queue.total}</p>
                        </header>
                        {first ? <First unit={first} station={station} /> : <Empty held={held.length} />}
                        <div className="mt-3 grid gap-3 lg:grid-cols-2">
                            <Rest title="Then" units={rest} station={station} />
                            <Rest title="Held back" units={held} station={station} />
                        </div>
                        {queue.total > queue.units.length && (
                            <Link className="mt-2 inline-block py-2 underline" to={`/units?station=${station}`}>
                                all {queue.total}
                            </Link>
                        )}
                    </section>
                );
            }}
        </Fetched>
    );
}

function Empty({ held }: { held: number }) {
    return (
        <p className="sheet p-6 text-lg">
            {held > 0
                ? 'Everything that stands here is held back.'
                : 'Nothing waits here. The scan line finds any unit.'}
        </p>
    );
}

/** The unit to take now, large enough to be read across the bench. */
function First({ unit: u, station }: { unit: Queued; station: string }) {
    return (
        <Link
            to={`/units/${u.coreTag}/${station}`}
            className="sheet block border-l-8 border-l-hand px-5 py-4 hover:bg-sheet"
        >
            <span className="flex flex-wrap items-baseline gap-x-5">
                <strong className="font-head text-5xl num">{u.serial ?? u.coreTag}</strong>
                <span className="text-2xl">{u.variant?.name ?? u.family ?? 'not identified'}</span>
                <span className="flex-1" />
                <Mark kind="next">{u.mine ? 'you began it' : u.begunBy ? `begun by ${u.begunBy}` : 'next'}</Mark>
            </span>
            <Detail unit={u} />
        </Link>
    );
}

function Rest({ title, units, station }: { title: string; units: Queued[]; station: string }) {
    if (units.length === 0) return null;
    return (
        <section aria-label={title} className="sheet">
            <h2 className="border-b border-rule px-3 py-1.5 text-xl">{title}</h2>
            <ul className="divide-y divide-rule">
                {units.map((u) => (
                    <li key={u.coreTag}>
                        <Link to={`/units/${u.coreTag}/${station}`} className="block min-h-14 px-3 py-2 hover:bg-sheet">
                            <span className="flex flex-wrap items-baseline gap-x-3">
                                <strong className="text-xl num">{u.serial ?? u.coreTag}</strong>
                                <span>{u.variant?.code ?? u.family ?? 'not identified'}</span>
                                <span className="flex-1" />
                                {u.mine && <Mark kind="next">you began it</Mark>}
                                {!u.mine && u.begunBy && (
                                    <span className="text-sm text-faint">begun by {u.begunBy}</span>
                                )}
                            </span>
                            <Detail unit={u} />
                        </Link>
                    </li>
                ))}
            </ul>
        </section>
    );
}

function Detail({ unit: u }: { unit: Queued }) {
    return (
        <>
            <span className="block">
                {u.vehicle}
                {u.package && ` · ${u.package}`} · {age(u.stationSince)} here{u.rack && ` · ${u.rack}`}
            </span>
            {u.late && <Mark kind="bad">late, promised {u.promisedOn}</Mark>}
            {!u.late && u.promisedOn && <span className="text-sm text-faint">promised {u.promisedOn}</span>}
            {u.hold && (
                <span className="block">
                    <Mark kind="warn">On hold</Mark> {u.hold.reason}{' '}
                    <span className="text-sm text-faint">
                        {u.hold.by}; the {u.hold.liftRole} lifts it
                    </span>
                </span>
            )}
        </>
    );
}
