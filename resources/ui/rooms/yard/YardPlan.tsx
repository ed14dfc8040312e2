import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { answer, api, type Schemas } from '../../api/client';
import { placeName, stationOf, STATIONS_IN_ORDER } from '../../card/stations';
import { Mark } from '../../kit/basics';
import { Fetched } from '../../kit/Fetched';
import { age } from '../../kit/format';

type Plan = Schemas['YardPlan'];
type Unit = Schemas['UnitSummary'];

/** The number a unit carries on the plan: which station it waits for, readable without colour. */
const numberOf = (station: string) => stationOf(station)?.order ?? '';

/** Our yard as one walks it: the racks with their bays, and in each bay the units that stand there. */
export function YardPlan() {
    const plan = useQuery({
        queryKey: ['yard', 'plan'],
        queryFn: () => answer(api.GET('/yard/plan')),
        refetchInterval: 30_000,
    });
    const board = useQuery({
        queryKey: ['yard', 'board'],
        queryFn: () => answer(api.GET('/yard')),
        refetchInterval: 30_000,
    });
    return (
        <>
            <Fetched query={board} what="the stations">
                {(b) => <Line stations={b.stations} />}
            </Fetched>
            <Fetched query={plan} what="the yard">
                {(p) => <Racks plan={p} />}
            </Fetched>
        </>
    );
}

/** The stations as the units pass them, each with how many wait, are late, are held. */
function Line({ stations }: { stations: Schemas['Board']['stations'] }) {
    const order = STATIONS_IN_ORDER.map((s) => s.id as string);
    const sorted = [...stations].sort((a, b) => order.indexOf(a.station) - order.indexOf(b.station));
    return (
        <ol aria-label="Stations" className="sheet mb-3 flex flex-wrap">
            {sorted.map((s, i) => (
                <li key={s.station} className="min-w-36 flex-1 border-r border-rule last:border-r-0">
                    <Link to={`/units?station=${s.station}`} className="block px-3 py-2 hover:bg-sheet">
                        <span className="flex items-baseline justify-between gap-2">
                            <span className="font-semibold">
                                {i > 0 && <span aria-hidden="true">→ </span>}
                                {placeName(s.station)}
                            </span>
                            <strong className="font-head text-3xl num">{s.units}</strong>
                        </span>
                        <span className="flex gap-3 text-sm">
                            {s.late > 0 && <Mark kind="bad">{s.late} late</Mark>}
                            {s.held > 0 && <Mark kind="warn">{s.held} held</Mark>}
                            {s.late === 0 && s.held === 0 && <span className="text-faint">all in time</span>}
                        </span>
                    </Link>
                </li>
            ))}
        </ol>
    );
}

function Racks({ plan }: { plan: Plan }) {
    const shown = plan.racks.reduce((n, r) => n + r.bays.reduce((m, b) => m + b.units.length, 0), 0);
    const bays = [...new Set(plan.racks.flatMap((r) => r.bays.map((b) => b.bay)))].sort((a, b) =>
        a.localeCompare(b, undefined, { numeric: true }),
    );
    return (
        <section aria-label="Racks" className="flex flex-col gap-2">
            {plan.racks.map((rack) => (
                <div key={rack.rack} className="grid grid-cols-[4.5rem_1fr] items-stretch">
                    <h2 className="flex items-center justify-center bg-enamel text-2xl text-enamel-ink">
                        {rack.rack === 'floor' ? 'Floor' : rack.rack}
                    </h2>
                    <ul
                        className="sheet grid border-b-4 border-b-frame"
                        style={{ gridTemplateColumns: `repeat(${bays.length}, minmax(9rem, 1fr))` }}
                    >
                        {bays.map((bay) => (
                            <li key={bay} className="border-r border-rule px-1.5 pt-0.5 pb-1 last:border-r-0">
                                <span className="text-sm text-faint">bay {bay || 'open'}</span>
                                <ul className="flex flex-col gap-1">
                                    {(rack.bays.find((b) => b.bay === bay)?.units ?? []).map((u) => (
                                        <Standing key={u.coreTag} unit={u} />
                                    ))}
                                </ul>
                            </li>
                        ))}
                    </ul>
                </div>
            ))}
            <p className="text-sm text-faint">
                {plan.total} units in the house{shown < plan.total && `, ${shown} of them drawn`}. The number says which
                station a unit waits for:{' '}
                {STATIONS_IN_ORDER.slice(1)
                    .map((s) => `${s.order} ${s.label}`)
                    .join(', ')}
                .
            </p>
        </section>
    );
}

function Standing({ unit: u }: { unit: Unit }) {
    return (
        <li>
            <Link
                to={`/units/${u.coreTag}`}
                className={`flex min-h-11 items-center gap-2 border-2 bg-sheet px-1.5 leading-tight ${u.late ? 'border-bad' : 'border-frame'}`}
                title={`${placeName(u.station)}, ${age(u.stationSince)}, ${u.vehicle}`}
            >
                <span aria-hidden="true" className="font-head text-2xl">
                    {numberOf(u.station)}
                </span>
                <span className="min-w-0">
                    <strong className="block truncate num">{u.serial ?? u.coreTag}</strong>
                    <span className="block truncate text-sm">
                        <span className="sr-only">{placeName(u.station)}, </span>
                        {u.variant?.code ?? 'not identified'}
                    </span>
                    {u.late && <Mark kind="bad">late</Mark>}
                </span>
            </Link>
        </li>
    );
}
