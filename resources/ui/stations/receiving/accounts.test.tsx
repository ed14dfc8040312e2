import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';

const seen = vi.hoisted(() => ({ fetch: null as null | ((r: Request) => Promise<Response>) }));
vi.mock('openapi-fetch', async (original) => {
    const real = (await original()) as { default: (o: object) => unknown };
    return {
        ...real,
        default: (o: object) =>
            real.default({ ...o, baseUrl: 'http://yard.test/api', fetch: (r: Request) => seen.fetch?.(r) }),
    };
});

import { Balances, Statement } from './Balances';

const balance = (code: string, name: string) => ({
    customer: { code, name },
    owed: 1,
    charged: 480,
    overdue: 0,
    oldestDue: '2026-12-05',
    received: 2,
    credited: 900,
});
const debt = (n: number) => ({
    serial: `VY-26-${n}`,
    family: 'RD4',
    charge: 480,
    chargedOn: '2026-11-01',
    dueOn: '2026-12-01',
    settledBy: null,
    overdue: false,
});
let asked: string[];
let units: number;

beforeEach(() => {
    asked = [];
    units = 620;
    seen.fetch = async (r) => {
        const url = new URL(r.url);
        asked.push(url.pathname + url.search);
        if (url.pathname.endsWith('/statement')) {
            return Response.json({
                customer: { code: 'WS-PIER', name: 'Pier Street', city: 'Anmouth' },
                from: '2026-08-01',
                to: '2026-11-01',
                cores: [],
                debts: [debt(1), debt(2)],
                totals: { cores: 0, credited: 0, units, owed: units, charged: 480 * units, overdue: 0 },
            });
        }
        if (url.searchParams.get('q')) return Response.json({ total: 0, after: null, balances: [] });
        return url.searchParams.get('after') === '1'
            ? Response.json({ total: 2, after: null, balances: [balance('B', 'Birch')] })
            : Response.json({ total: 2, after: 1, balances: [balance('A', 'Alder')] });
    };
});
afterEach(cleanup);

const mount = (at: string) =>
    render(
        <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
            <MemoryRouter initialEntries={[at]}>
                <Routes>
                    <Route path="/core-accounts" element={<Balances />} />
                    <Route path="/core-accounts/:code" element={<Statement />} />
                </Routes>
            </MemoryRouter>
        </QueryClientProvider>,
    );

it('shows the accounts page by page, with how many there are, and has the database sort them', async () => {
    mount('/core-accounts');
    expect(await screen.findByText('1 of 2')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'More customers' }));
    expect(await screen.findByText('All 2')).toBeTruthy();
    expect(screen.getByRole('rowheader', { name: 'Birch' })).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: /Owes/ }));
    expect(await screen.findByText('1 of 2')).toBeTruthy();
    expect(asked.at(-1)).toBe('/api/money/core-balances?sort=owed');
});

it('searches by how a name begins', async () => {
    mount('/core-accounts');
    await screen.findByText('1 of 2');
    fireEvent.change(screen.getByLabelText('Customer, as the name begins'), { target: { value: 'Pier' } });
    fireEvent.click(screen.getByRole('button', { name: 'Search' }));
    expect(await screen.findByText('No customer with cores is called that.')).toBeTruthy();
    expect(asked.at(-1)).toBe('/api/money/core-balances?q=Pier');
});

it('says on a statement what it leaves out, and adds up all', async () => {
    mount('/core-accounts/WS-PIER');
    expect(await screen.findByText(/The first 2 of 620 exchange units/)).toBeTruthy();
    expect(screen.getByText('297,600.00')).toBeTruthy();
    cleanup();
    units = 2;
    mount('/core-accounts/WS-PIER');
    expect(await screen.findByText('960.00')).toBeTruthy();
    expect(screen.queryByText(/The first 2 of/)).toBeNull();
});
