import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { homesOf, placeName, STATIONS_IN_ORDER } from '../card/stations';
import { CatalogDesk } from '../rooms/catalog/CatalogDesk';
import { Families } from '../rooms/catalog/Families';
import { Insight } from '../rooms/insight/Insight';
import { Power } from '../rooms/power/Power';
import { Calculators } from '../rooms/shop/Calculators';
import { HouseRules } from '../rooms/shop/HouseRules';
import { Lot } from '../rooms/stock/Lot';
import { Stock } from '../rooms/stock/Stock';
import { Units } from '../rooms/yard/Units';
import { YardPlan } from '../rooms/yard/YardPlan';
import { Sheet } from '../stations/dispatch/Sheet';
import { Trainer } from '../stations/identification/Trainer';
import { Balances } from '../stations/receiving/Balances';
import { Label } from '../stations/receiving/Label';
import { Pallet } from '../stations/receiving/Pallet';
import { Home } from './Home';
import { firstPlaces, otherPlaces } from './navigation';

// The client keeps the fetch it finds when it is made; the calls go through the one of the window.
const seen = vi.hoisted(() => ({ fetch: null as null | ((r: Request) => Promise<Response>) }));
vi.mock('openapi-fetch', async (original) => {
    const real = (await original()) as { default: (o: object) => unknown };
    return {
        ...real,
        default: (o: object) =>
            real.default({ ...o, baseUrl: 'http://yard.test/api', fetch: (r: Request) => seen.fetch!(r) }),
    };
});

const unit = (coreTag: string, more: object = {}) => ({
    coreTag,
    serial: null,
    station: 'assembly',
    family: 'RD4',
    variant: { code: 'RD4-M', name: 'RD4 middle' },
    rack: 'R1-1',
    stationSince: '2026-11-20T08:00:00Z',
    promisedOn: null,
    late: false,
    held: false,
    customer: null,
    ...more,
});
const queued = (coreTag: string, more: object = {}) =>
    unit(coreTag, { hold: null, begunBy: null, mine: false, ...more });

let pages: Record<string, () => Response> = {};
const page = (path: string, body: unknown) => {
    pages[path] = () => Response.json(body);
};
const session = (role: string) =>
    page('/api/session', { person: { badge: '1', name: 'Someone', role, abilities: [] } });

beforeEach(() => {
    pages = {};
    seen.fetch = async (r) => {
        const path = new URL(r.url).pathname;
        return (
            pages[path]?.() ??
            Response.json({ title: 'Not found', status: 404, detail: `No ${path}.` }, { status: 404 })
        );
    };
});
afterEach(cleanup);

const show = (what: React.ReactNode) =>
    render(
        <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
            <MemoryRouter>{what}</MemoryRouter>
        </QueryClientProvider>,
    );

const ROLES = ['manager', 'receiver', 'teardown', 'builder', 'dyno', 'returns', 'viewer'];

describe('the stations', () => {
    it('are found by their folders, in the order of the work, one home at most a role', () => {
        const orders = STATIONS_IN_ORDER.map((s) => s.order);
        expect(STATIONS_IN_ORDER[0]!.id).toBe('receiving');
        expect(STATIONS_IN_ORDER.length).toBeGreaterThanOrEqual(8);
        expect(new Set(orders).size).toBe(orders.length);
        expect([...orders].sort((x, y) => x - y)).toEqual(orders);
        expect(homesOf('builder').map((h) => h.station)).toEqual(['assembly']);
        expect(homesOf('dyno').map((h) => h.station)).toContain('dyno');
        expect(homesOf('viewer')).toEqual([]);
    });

    it('have a name everywhere, also where nobody of the house is', () => {
        expect(placeName('field')).toBe('With the customer');
        expect(placeName('closed')).toBe('Closed');
        expect(placeName('dyno')).toBe('Dyno');
        expect(placeName('no such place')).toBe('no such place');
    });
});

describe('the navigation', () => {
    it('shows few places first and loses none', () => {
        const all = new Set(ROLES.flatMap((r) => [...firstPlaces(r), ...otherPlaces(r)]).map((p) => p.to));
        for (const role of ROLES) {
            const first = firstPlaces(role);
            expect(first.length, role).toBeLessThanOrEqual(5);
            const reached = [...first, ...otherPlaces(role)].map((p) => p.to);
            const mine = [...all].filter((to) => role === 'manager' || !['/people', '/health'].includes(to));
            expect(new Set(reached), role).toEqual(new Set(mine));
            expect(reached.length, role).toBe(mine.length);
        }
        expect(firstPlaces('no such role')).toEqual(firstPlaces('viewer'));
    });
});

describe('the queue of a station', () => {
    it('puts what I have begun first, then what comes, and what is held apart with who lifts it', async () => {
        session('builder');
        page('/api/yard/queue/assembly', {
            station: 'assembly',
            total: 60,
            units: [
                queued('C-1', { late: true, promisedOn: '2026-11-20' }),
                queued('C-2', { mine: true, begunBy: 'Someone' }),
                queued('C-3', { begunBy: 'Imre Soll' }),
                queued('C-4', { hold: { reason: 'Parts late.', liftRole: 'manager', by: 'Mara Quill' } }),
            ],
        });
        show(<Home />);
        const big = (await screen.findByText('C-2')).closest('a')!;
        expect(big.getAttribute('href')).toBe('/units/C-2/assembly');
        expect(big.textContent).toContain('you began it');
        const then = screen.getByRole('region', { name: 'Then' });
        expect(
            within(then)
                .getAllByRole('link')
                .map((a) => a.textContent!.slice(0, 3)),
        ).toEqual(['C-1', 'C-3']);
        expect(then.textContent).toContain('begun by Imre Soll');
        const held = screen.getByRole('region', { name: 'Held back' });
        expect(held.textContent).toContain('Parts late.');
        expect(held.textContent).toContain('manager');
        expect(screen.getByRole('link', { name: 'all 60' }).getAttribute('href')).toBe('/units?station=assembly');
    });

    it('says so when nothing waits, and when all that waits is held', async () => {
        session('builder');
        page('/api/yard/queue/assembly', { station: 'assembly', total: 0, units: [] });
        show(<Home />);
        expect(await screen.findByText(/Nothing waits here/)).toBeTruthy();
        cleanup();
        page('/api/yard/queue/assembly', {
            station: 'assembly',
            total: 1,
            units: [queued('C-4', { hold: { reason: 'Parts late.', liftRole: 'manager', by: null } })],
        });
        show(<Home />);
        expect(await screen.findByText('Everything that stands here is held back.')).toBeTruthy();
    });

    it('has a sentence and a way on when it cannot be shown', async () => {
        session('builder');
        pages['/api/yard/queue/assembly'] = () => {
            throw new TypeError('no connection');
        };
        show(<Home />);
        expect((await screen.findByRole('alert')).textContent).toContain('The server does not answer');
        page('/api/yard/queue/assembly', { station: 'assembly', total: 1, units: [queued('C-9')] });
        fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
        expect(await screen.findByText('C-9')).toBeTruthy();
    });
});

describe("the manager's day", () => {
    it('names what waits for a decision by verb, and what is late, back and at risk', async () => {
        session('manager');
        const since = '2026-11-20T08:00:00Z';
        const decision = (kind: string, coreTag: string, sentence: string) => ({
            kind,
            coreTag,
            sentence,
            since,
            link: `/units/${coreTag}`,
        });
        page('/api/yard/day', {
            decisions: [decision('hold', 'C-1', 'On hold: parts.'), decision('verdict', 'C-2', 'Dyno run.')],
            back: [],
            late: { total: 3, units: [unit('C-3', { late: true, promisedOn: '2026-11-17' })] },
            money: [
                { name: 'Promised and late', amount: 8668, count: 5, detail: 'past the day', link: '/units?late=1' },
            ],
        });
        show(<Home />);
        const waits = await screen.findByRole('region', { name: 'Waits for your word' });
        expect(
            within(waits)
                .getAllByRole('link')
                .map((a) => a.getAttribute('href')),
        ).toEqual(['/units/C-1', '/units/C-2']);
        expect(waits.textContent).toContain('Lift or keep');
        expect(waits.textContent).toContain('Judge');
        expect(screen.getByRole('region', { name: 'Money at risk' }).textContent).toContain('8,668.00');
        expect(screen.getByText('No return is open.')).toBeTruthy();
        expect(document.body.textContent).toContain('2026-11-17');
    });
});

describe('the plan of the yard', () => {
    it('stands units in their bays, bay ten after bay two, and says what is not in a rack', async () => {
        page('/api/yard', {
            stations: [
                { station: 'dyno', units: 2, late: 1, held: 0 },
                { station: 'ordering', units: 4, late: 0, held: 0 },
            ],
        });
        page('/api/yard/plan', {
            total: 5,
            racks: [
                {
                    rack: 'R1',
                    bays: [
                        { bay: '10', units: [unit('C-10')] },
                        { bay: '2', units: [unit('C-2', { late: true }), unit('C-3', { variant: null })] },
                    ],
                },
                { rack: 'floor', bays: [{ bay: '', units: [unit('C-5')] }] },
            ],
        });
        show(<YardPlan />);
        const racks = await screen.findByRole('region', { name: 'Racks' });
        const bays = within(racks)
            .getAllByText(/^bay /)
            .map((b) => b.textContent);
        expect(bays.slice(0, 3)).toEqual(['bay open', 'bay 2', 'bay 10']);
        expect(within(racks).getByText('C-2').closest('a')!.textContent).toContain('late');
        expect(within(racks).getByText('C-3').closest('a')!.textContent).toContain('not identified');
        expect(within(racks).getByRole('heading', { name: 'Floor' })).toBeTruthy();
        const line = screen.getByRole('list', { name: 'Stations' });
        expect(
            within(line)
                .getAllByRole('link')
                .map((a) => a.textContent),
        ).toEqual(['Ordering4all in time', '→ Dyno2▲1 late']);
    });
});

describe('a view whose data does not come', () => {
    const views = {
        Balances,
        Calculators,
        CatalogDesk,
        Families,
        HouseRules,
        Insight,
        Label,
        Lot,
        Pallet,
        Power,
        Sheet,
        Stock,
        Trainer,
        Units,
        YardPlan,
    };
    it.each(Object.entries(views))('%s says so and offers to try again', async (_, View) => {
        seen.fetch = async () => {
            throw new TypeError('no connection');
        };
        show(<View />);
        const alerts = await screen.findAllByRole('alert');
        expect(alerts[0]!.textContent).toContain('The server does not answer');
        expect(within(alerts[0]!).getByRole('button', { name: 'Try again' })).toBeTruthy();
    });
});
