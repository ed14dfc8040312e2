import { useQuery, useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useState, type ComponentType } from 'react';
import { Link, Navigate, useNavigate, useParams } from 'react-router';
import { api, fetchCard, isProblem, type Card } from '../api/client';
import { age, moment, STATIONS } from '../kit/format';
import { useSession } from '../api/session';
import { useWrite } from '../api/useWrite';
import { Field, Loading, Mark, ProblemNote } from '../kit/basics';
import { Overview } from './Overview';

export type SectionProps = { card: Card; onCard: (card: Card) => void; can: (ability: string) => boolean };

const pick = (load: () => Promise<Record<string, ComponentType<SectionProps>>>, name: string) =>
    lazy(() => load().then((m) => ({ default: m[name]! })));

const SECTIONS: {
    id: string;
    name: string;
    station?: string;
    view: ComponentType<SectionProps>;
    needs: string[] | null;
    has: (c: Card) => boolean;
}[] = [
    { id: 'card', name: 'Route card', view: Overview, needs: null, has: () => true },
    {
        id: 'intake',
        name: '1 Receive',
        view: pick(() => import('../stations/receiving/Intake'), 'Intake'),
        needs: ['intake'],
        has: () => true,
    },
    {
        id: 'identify',
        name: '2 Identify',
        station: 'identify',
        view: pick(() => import('../stations/identification/Identify'), 'Identify'),
        needs: ['identity'],
        has: (c) => c.sections.identity!,
    },
    {
        id: 'order',
        name: '3 Specify',
        station: 'desk',
        view: pick(() => import('../stations/ordering/Order'), 'Order'),
        needs: ['build'],
        has: (c) => c.sections.build!,
    },
    {
        id: 'teardown',
        name: '4 Teardown',
        station: 'teardown',
        view: pick(() => import('../stations/teardown/TeardownView'), 'TeardownView'),
        needs: ['teardown'],
        has: (c) => c.sections.teardown!,
    },
    {
        id: 'assembly',
        name: '5 Assemble',
        station: 'bench',
        view: pick(() => import('../stations/assembly/AssemblyView'), 'AssemblyView'),
        needs: ['assembly'],
        has: (c) => c.sections.assembly!,
    },
    {
        id: 'dyno',
        name: '6 Dyno',
        station: 'cell',
        view: pick(() => import('../stations/dyno/DynoView'), 'DynoView'),
        needs: ['dyno'],
        has: (c) => c.sections.dyno!,
    },
    {
        id: 'ship',
        name: '7 Ship',
        station: 'dispatch',
        view: pick(() => import('../stations/dispatch/ShipView'), 'ShipView'),
        needs: ['dispatch'],
        has: (c) => c.sections.dispatch!,
    },
    {
        id: 'return',
        name: '8 Return',
        station: 'returns',
        view: pick(() => import('../stations/returns/ReturnView'), 'ReturnView'),
        needs: ['returns', 'dispatch'],
        has: (c) => c.sections.returns! || c.station === 'field',
    },
    { id: 'history', name: 'History', view: pick(() => import('./History'), 'History'), needs: [], has: () => true },
];

/** One unit through all its stations. */
export function UnitCard() {
    const { number = '', section = 'card' } = useParams();
    const client = useQueryClient();
    const { can } = useSession();
    const needs = SECTIONS.find((s) => s.id === section)?.needs ?? null;
    const key = ['card', number, section];
    const query = useQuery({ queryKey: key, queryFn: () => fetchCard(number, needs) });
    if (query.isError)
        return (
            <div className="sheet p-6">
                <ProblemNote problem={isProblem(query.error) ? query.error : null} />
            </div>
        );
    if (!query.data) return <Loading what={number} />;
    const card = query.data;
    const onCard = (next: Card) => {
        // A write answers with the header and its own section; everything else of this card is fetched anew when opened.
        client.setQueryData<Card>(key, (old) => ({ ...old, ...next }));
        void client.invalidateQueries({ queryKey: ['card', number], predicate: (q) => q.queryKey[2] !== section });
        void client.invalidateQueries({ queryKey: ['yard'] });
        void client.invalidateQueries({ queryKey: ['units'] });
    };
    const open = SECTIONS.filter((s) => s.has(card));
    const at = open.findIndex((s) => s.id === section);
    const current = open[at] ?? open[0]!;
    const to = (id: string) => `/units/${number}${id === 'card' ? '' : `/${id}`}`;
    // A section this unit does not have yet: the card itself is shown instead.
    if (current.id !== section) return <Navigate to={to(current.id)} replace />;
    const View = current.view;
    return (
        <>
            <CardHead card={card} onCard={onCard} can={can} at={current.id} />
            <nav aria-label="Sections of the route card" className="no-print mb-3 flex flex-wrap gap-1">
                {SECTIONS.map((s) => {
                    const i = open.indexOf(s);
                    const here = s.station === card.station;
                    if (i < 0)
                        return (
                            <span
                                key={s.id}
                                className="inline-flex min-h-11 items-center border-b-4 border-transparent px-3 text-faint"
                                aria-disabled="true"
                            >
                                {s.name}
                            </span>
                        );
                    return (
                        <Link
                            key={s.id}
                            to={to(s.id)}
                            aria-current={s === current ? 'page' : undefined}
                            {...(i === at - 1
                                ? { 'data-section-before': true }
                                : i === at + 1
                                  ? { 'data-section-after': true }
                                  : {})}
                            className={`inline-flex min-h-11 items-center gap-1 border-b-4 px-3 ${s === current ? 'border-hand bg-paper font-semibold' : 'border-rule'}`}
                        >
                            {here && (
                                <span aria-hidden="true" className="text-hand">
                                    ▶
                                </span>
                            )}
                            {s.name}
                            {here && <span className="sr-only">, the unit is here</span>}
                        </Link>
                    );
                })}
            </nav>
            <Suspense fallback={<Loading what="the section" />}>
                <View card={card} onCard={onCard} can={can} />
            </Suspense>
        </>
    );
}

function CardHead({ card, onCard, can, at }: SectionProps & { at: string }) {
    const active = card.holds.filter((h) => !h.liftedAt);
    const section = SECTIONS.find((s) => s.station === card.station);
    const go = useNavigate();
    return (
        <header className="sheet mb-2 px-4 py-2">
            <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
                <h1 className="text-4xl num">{card.serial ?? card.coreTag}</h1>
                <div className="leading-tight">
                    <p className="font-semibold">
                        {card.variant?.name ?? card.family ?? 'Family not set'}
                        {card.package && ` · ${card.package}`}
                    </p>
                    <p className="text-sm text-faint">
                        {card.serial && `core ${card.coreTag} · `}
                        {card.generation && card.generation > 1 ? `generation ${card.generation} · ` : ''}
                        {card.jobType.name} ·{' '}
                        {card.ownership === 'customer' ? `belongs to ${card.customer?.name}` : 'exchange'} · rack{' '}
                        {card.rack || '–'}
                    </p>
                </div>
                <span className="flex-1" />
                <Mark kind={card.station === 'closed' ? 'idle' : 'next'}>
                    {STATIONS[card.station]}, {age(card.stationSince)}
                </Mark>
                {card.late && <Mark kind="bad">late, promised {card.promisedOn}</Mark>}
                <div className="no-print flex gap-2">
                    <button type="button" className="btn" onClick={() => void go(`/units/${card.coreTag}/label`)}>
                        Tag label
                    </button>
                    {section && section.id !== at && (
                        <button
                            type="button"
                            className="btn"
                            onClick={() => void go(`/units/${card.coreTag}/${section.id}`)}
                        >
                            Go to {section.name.slice(2)}
                        </button>
                    )}
                </div>
            </div>
            {active.map((h) => (
                <HoldNote key={h.id} hold={h} onCard={onCard} can={can} />
            ))}
        </header>
    );
}

function HoldNote({ hold, onCard, can }: { hold: Card['holds'][number] } & Pick<SectionProps, 'onCard' | 'can'>) {
    const { busy, problem, write } = useWrite();
    const [why, setWhy] = useState('');
    return (
        <div className="mt-2 flex flex-wrap items-end gap-3 border-t-2 border-warn pt-2">
            <p className="flex-1">
                <Mark kind="warn">On hold</Mark> {hold.reason}{' '}
                <span className="text-sm text-faint">
                    {hold.placedBy}, {moment(hold.placedAt)}; the {hold.liftRole} lifts it
                </span>
            </p>
            {can('lift-hold') && (
                <>
                    <Field label="Why it may go on" value={why} onChange={setWhy} />
                    <button
                        type="button"
                        className="btn no-print"
                        disabled={busy || !why.trim()}
                        onClick={() =>
                            void write(
                                (headers) =>
                                    api.POST('/holds/{hold}/lift', {
                                        params: { path: { hold: hold.id } },
                                        body: { reason: why },
                                        headers,
                                    }),
                                onCard,
                            )
                        }
                    >
                        Lift the hold
                    </button>
                </>
            )}
            <ProblemNote problem={problem} />
        </div>
    );
}
