import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { answer, api, type Schemas } from '../api/client';
import { Mark } from '../kit/basics';
import { Fetched } from '../kit/Fetched';
import { age, formatMoney } from '../kit/format';
import { placeName } from '../card/stations';

type Day = Schemas['Day'];

const KINDS = { hold: 'Lift or keep', release: 'Release', verdict: 'Judge', return: 'Decide' } as const;

/** Decisions, late, back, money at risk: what only the manager can move today. */
export function ManagerDay() {
    const day = useQuery({
        queryKey: ['yard', 'day'],
        queryFn: () => answer(api.GET('/yard/day')),
        refetchInterval: 60_000,
    });
    return (
        <Fetched query={day} what="the day">
            {(d) => (
                <>
                    <Money figures={d.money} />
                    <div className="mt-3 grid items-start gap-3 lg:grid-cols-[1.25fr_1fr]">
                        <List title="Waits for your word" empty="Nothing waits for a decision." rows={d.decisions} />
                        <div className="flex flex-col gap-3">
                            <Late late={d.late} />
                            <List title="Came back" empty="No return is open." rows={d.back} />
                        </div>
                    </div>
                </>
            )}
        </Fetched>
    );
}

function Money({ figures }: { figures: Day['money'] }) {
    return (
        <section aria-label="Money at risk" className="grid grid-cols-2 gap-3 lg:grid-cols-4">
            {figures.map((f) => (
                <Link key={f.name} to={f.link} className="sheet block px-4 py-2 hover:bg-sheet">
                    <span className="block text-sm font-semibold text-faint">{f.name}</span>
                    <strong className="font-head text-4xl num">{formatMoney(f.amount)}</strong>
                    <span className="block text-sm">
                        {f.count} · {f.detail}
                    </span>
                </Link>
            ))}
        </section>
    );
}

function List({ title, rows, empty }: { title: string; rows: Day['decisions']; empty: string }) {
    return (
        <section aria-label={title} className="sheet">
            <header className="flex items-baseline justify-between border-b border-rule px-3 py-1.5">
                <h2 className="text-2xl">{title}</h2>
                <span className="font-head text-2xl num">{rows.length}</span>
            </header>
            {rows.length === 0 && <p className="px-3 py-4 text-faint">{empty}</p>}
            <ul className="divide-y divide-rule">
                {rows.map((r) => (
                    <li key={r.kind + r.coreTag + r.since}>
                        <Link
                            to={r.link}
                            className="grid min-h-12 grid-cols-[6rem_1fr_auto] items-baseline gap-x-3 px-3 py-2 hover:bg-sheet"
                        >
                            <strong className="num">{r.coreTag}</strong>
                            <span>
                                <Mark kind={r.kind === 'hold' ? 'warn' : 'next'}>{KINDS[r.kind]}</Mark> {r.sentence}
                            </span>
                            <span className="text-sm text-faint">{age(r.since)}</span>
                        </Link>
                    </li>
                ))}
            </ul>
        </section>
    );
}

function Late({ late }: { late: Day['late'] }) {
    return (
        <section aria-label="Late" className="sheet">
            <header className="flex items-baseline justify-between border-b border-rule px-3 py-1.5">
                <h2 className="text-2xl">Late</h2>
                <span className="font-head text-2xl num">{late.total}</span>
            </header>
            {late.total === 0 && <p className="px-3 py-4 text-faint">Nothing is past its promised day.</p>}
            <ul className="divide-y divide-rule">
                {late.units.map((u) => (
                    <li key={u.coreTag}>
                        <Link
                            to={`/units/${u.coreTag}`}
                            className="grid min-h-12 grid-cols-[6rem_1fr_auto] items-baseline gap-x-3 px-3 py-2 hover:bg-sheet"
                        >
                            <strong className="num">{u.serial ?? u.coreTag}</strong>
                            <span>
                                {placeName(u.station)}, {age(u.stationSince)} · {u.customer?.name ?? 'for the shelf'}
                            </span>
                            <Mark kind="bad">{u.promisedOn}</Mark>
                        </Link>
                    </li>
                ))}
            </ul>
            {late.total > late.units.length && (
                <Link className="block px-3 py-2 underline" to="/units?late=1">
                    all {late.total}
                </Link>
            )}
        </section>
    );
}
