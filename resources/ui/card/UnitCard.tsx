import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Suspense } from 'react';
import { Link, Navigate, useParams } from 'react-router';
import { z } from 'zod';
import { api, fetchCard, isProblem, type Card } from '../api/client';
import { useSession } from '../api/session';
import { keptCard } from '../bench/offline';
import { BENCHES } from '../bench/types';
import { Loading, Mark } from '../kit/basics';
import { Fetched } from '../kit/Fetched';
import { fieldsOf, FormFields, FormProblem, useForm } from '../kit/form';
import { said } from '../kit/form/values';
import { age, moment } from '../kit/format';
import { History } from './History';
import { Overview } from './Overview';
import type { CardProps, Station } from './section';
import { placeName, stationOf, STATIONS_IN_ORDER } from './stations';

type Tab = { id: string; name: string; here: boolean; open: boolean };

/** One unit through all its stations. */
export function UnitCard() {
    const { number = '', section = 'card' } = useParams();
    const client = useQueryClient();
    const { can } = useSession();
    const needs = needsOf(section);
    const key = ['card', number, section];
    const query = useQuery({
        queryKey: key,
        queryFn: () => fetchCard(number, needs).catch((e) => seenBefore(e, number, section)),
        networkMode: 'always',
    });
    const onCard = (next: Card) => {
        // A write answers with the header and its own section; the rest of this card is fetched anew when opened.
        client.setQueryData<Card>(key, (old) => ({ ...old, ...next }));
        void client.invalidateQueries({ queryKey: ['card', number], predicate: (q) => q.queryKey[2] !== section });
        void client.invalidateQueries({ queryKey: ['trays'] });
        void client.invalidateQueries({ queryKey: ['yard'] });
        void client.invalidateQueries({ queryKey: ['units'] });
    };
    return (
        <Fetched query={query} what={`unit ${number}`}>
            {(card) => <Opened card={card} onCard={onCard} can={can} number={number} section={section} />}
        </Fetched>
    );
}

/** The sections a view shows: all of them on the card itself, none beside the history. */
function needsOf(section: string): string[] {
    if (section === 'history') return [];
    const station = stationOf(section);
    return station ? [station.id, ...station.reads] : STATIONS_IN_ORDER.map((s) => s.id);
}

/** Without a network the bench goes on with the card it saw last. */
async function seenBefore(error: unknown, number: string, section: string): Promise<Card> {
    const bench = BENCHES.find((b) => b === section);
    const kept = bench && !isProblem(error) ? await keptCard(bench, number) : undefined;
    if (!kept) throw error;
    return kept;
}

function Opened({ number, section, ...props }: CardProps & { number: string; section: string }) {
    const { card } = props;
    const tabs: Tab[] = [
        { id: 'card', name: 'Card', here: false, open: true },
        ...STATIONS_IN_ORDER.map((s) => ({
            id: s.id,
            name: s.label,
            here: s.id === card.station,
            open: card.sections[s.id] || (s.begin?.when(card) ?? false),
        })),
        { id: 'history', name: 'History', here: false, open: true },
    ];
    const open = tabs.filter((t) => t.open);
    // A section this unit does not have yet: the card itself is shown instead.
    if (!open.some((t) => t.id === section)) return <Navigate to={`/units/${number}`} replace />;
    const station = stationOf(section);
    return (
        <>
            <UnitHead {...props} number={number} tabs={tabs} at={section} />
            <Suspense fallback={<Loading what="the section" />}>
                {section === 'history' ? (
                    <History {...props} />
                ) : station ? (
                    <StationView key={station.id} station={station} {...props} />
                ) : (
                    <Overview {...props} />
                )}
            </Suspense>
        </>
    );
}

function StationView({ station, ...props }: CardProps & { station: Station }) {
    return (
        <div className="flex flex-col gap-3">
            {station.begin?.when(props.card) && <station.begin.View {...props} />}
            <station.View {...props} />
        </div>
    );
}

/** Who it is and where it stands, and the sections, in one line: 56 px that leave the screen to the work. */
function UnitHead({ number, tabs, at, ...props }: CardProps & { number: string; tabs: Tab[]; at: string }) {
    const { card } = props;
    const active = card.holds.filter((h) => !h.liftedAt);
    return (
        <header className="mb-2">
            <div className="sheet flex min-h-12 flex-wrap items-stretch gap-x-3 pl-3">
                <div className="flex min-w-56 flex-1 items-center gap-3">
                    <h1 className="text-2xl whitespace-nowrap num">{card.serial ?? card.coreTag}</h1>
                    <p className="min-w-0 text-sm leading-tight">
                        <span className="block truncate font-semibold">
                            {card.variant?.name ?? card.family ?? 'Family not set'}
                            {card.package && ` · ${card.package}`}
                        </span>
                        <Whereabouts card={card} />
                    </p>
                </div>
                <nav aria-label="Sections of the route card" className="no-print flex flex-wrap items-stretch">
                    {tabs.map((t) => (
                        <SectionTab key={t.id} tab={t} tabs={tabs} at={at} number={number} />
                    ))}
                    <UnitMenu card={card} />
                </nav>
            </div>
            {active.map((h) => (
                <HoldNote key={h.id} hold={h} {...props} />
            ))}
        </header>
    );
}

function Whereabouts({ card }: { card: Card }) {
    return (
        <span className="block truncate text-faint">
            {placeName(card.station)}, {age(card.stationSince)}
            {card.rack && ` · ${card.rack}`}
            {card.generation && card.generation > 1 ? ` · generation ${card.generation}` : ''}
            {card.ownership === 'customer' && ` · belongs to ${card.customer?.name}`}
            {card.late && (
                <>
                    {' · '}
                    <Mark kind="bad">late, promised {card.promisedOn}</Mark>
                </>
            )}
        </span>
    );
}

function SectionTab({ tab, tabs, at, number }: { tab: Tab; tabs: Tab[]; at: string; number: string }) {
    if (!tab.open) {
        return (
            <span
                aria-disabled="true"
                className="inline-flex min-h-11 items-center border-b-4 border-transparent px-1.5 text-faint"
            >
                {tab.name}
            </span>
        );
    }
    const open = tabs.filter((t) => t.open);
    const step = open.indexOf(tab) - open.findIndex((t) => t.id === at);
    return (
        <Link
            to={`/units/${number}${tab.id === 'card' ? '' : `/${tab.id}`}`}
            aria-current={tab.id === at ? 'page' : undefined}
            data-section-before={step === -1 ? true : undefined}
            data-section-after={step === 1 ? true : undefined}
            className={`inline-flex min-h-11 items-center gap-1 border-b-4 px-1.5 ${
                tab.id === at ? 'border-hand bg-sheet font-semibold' : 'border-transparent'
            }`}
        >
            {tab.here && (
                <span aria-hidden="true" className="text-hand">
                    ▶
                </span>
            )}
            {tab.name}
            {tab.here && <span className="sr-only">, the unit is here</span>}
        </Link>
    );
}

function UnitMenu({ card }: { card: Card }) {
    const items = [
        { to: `/units/${card.coreTag}/label`, text: 'Tag label' },
        ...(card.sections.ordering ? [{ to: `/units/${card.coreTag}/ordering/quote`, text: 'Quote' }] : []),
        ...(card.sections.dispatch ? [{ to: `/units/${card.coreTag}/dispatch/sheet`, text: 'Delivery sheet' }] : []),
        { to: `/interchange?desk=core&core=${card.coreTag}`, text: 'What this core can become' },
    ];
    return (
        <Menu as="div" className="relative">
            <MenuButton className="inline-flex min-h-12 min-w-11 items-center justify-center" aria-label="Papers">
                <span aria-hidden="true">⋯</span>
            </MenuButton>
            <MenuItems
                anchor="bottom end"
                className="z-20 border-2 border-edge bg-sheet py-1 text-ink shadow-lg outline-none"
            >
                {items.map((i) => (
                    <MenuItem key={i.to}>
                        <Link
                            className="flex min-h-11 items-center px-4 data-focus:bg-enamel data-focus:text-enamel-ink"
                            to={i.to}
                        >
                            {i.text}
                        </Link>
                    </MenuItem>
                ))}
            </MenuItems>
        </Menu>
    );
}

const lifting = z.object({ reason: said('Say why it may go on.') });
const { Text } = fieldsOf<z.input<typeof lifting>>();

function HoldNote({ hold, onCard, can }: { hold: Card['holds'][number] } & Pick<CardProps, 'onCard' | 'can'>) {
    const form = useForm({ schema: lifting, start: { reason: '' } });
    const { person } = useSession();
    const mayLift = can('yard.lift') && (person?.role === 'manager' || person?.role === hold.liftRole);
    const lift = form.submit(
        (body) => api.POST('/holds/{hold}/lift', { params: { path: { hold: hold.id } }, body }),
        onCard,
    );
    return (
        <div className="mt-1 flex flex-wrap items-end gap-3 border-l-4 border-warn bg-sheet px-3 py-2">
            <p className="flex-1">
                <Mark kind="warn">On hold</Mark> {hold.reason}{' '}
                <span className="text-sm text-faint">
                    {hold.placedBy}, {moment(hold.placedAt)}; the {hold.liftRole}
                    {hold.liftRole === 'manager' ? '' : ' or the manager'} lifts it
                </span>
            </p>
            {mayLift && (
                <FormFields of={form}>
                    <Text name="reason" label="Why it may go on" />
                    <button type="button" className="btn no-print" disabled={form.busy} onClick={lift}>
                        Lift the hold
                    </button>
                </FormFields>
            )}
            <FormProblem of={form} />
        </div>
    );
}
