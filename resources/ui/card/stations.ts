import type { Station } from './section';

/** Every folder below stations/ that says what it is; nobody else lists them. */
const found = import.meta.glob<{ station: Station }>('../stations/*/index.ts', { eager: true });

export const STATIONS_IN_ORDER: Station[] = Object.values(found)
    .map((m) => m.station)
    .sort((a, b) => a.order - b.order);

export const stationOf = (id: string): Station | undefined => STATIONS_IN_ORDER.find((s) => s.id === id);

/** What a place is called, also where a unit is with nobody of the house. */
export function placeName(place: string): string {
    if (place === 'field') return 'With the customer';
    if (place === 'closed') return 'Closed';
    return stationOf(place)?.label ?? place;
}

/** The queues that are the first page of a role's badge. */
export const homesOf = (role: string): { station: string; title: string }[] =>
    STATIONS_IN_ORDER.flatMap((s) => (s.home?.role === role ? [{ station: s.id, title: s.home.title }] : []));
