import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

const seen = vi.hoisted(() => ({ fetch: null as null | ((r: Request) => Promise<Response>) }));
vi.mock('openapi-fetch', async (original) => {
    const real = (await original()) as { default: (o: object) => unknown };
    return {
        ...real,
        default: (o: object) =>
            real.default({ ...o, baseUrl: 'http://yard.test/api', fetch: (r: Request) => seen.fetch?.(r) }),
    };
});

import { People } from './People';

const person = (badge: string, name: string, more: object = {}) => ({
    badge,
    name,
    role: 'builder',
    active: true,
    version: 1,
    pin: 'set',
    shortestPin: 6,
    skills: [],
    lockedUntil: null,
    sessions: [],
    ...more,
});
const SESSION = {
    tablet: 'QWERTZ',
    address: '10.0.0.7',
    since: '2026-11-26T08:00:00Z',
    seenAt: '2026-11-26T09:00:00Z',
    locked: false,
    mine: false,
};

let people: object[];
let places: object[];
let sent: { method: string; path: string; body: unknown }[];
let refuse: object | null;

beforeEach(() => {
    sent = [];
    refuse = null;
    places = [];
    people = [
        person('103', 'Imre', { skills: ['packs', 'pumps'] }),
        person('104', 'Wyn', { lockedUntil: '2026-11-26T10:00:00Z', sessions: [SESSION] }),
        person('105', 'Tess', { pin: 'none' }),
        person('106', 'Old hand', { pin: 'short' }),
        person('107', 'Bo', { active: false }),
    ];
    seen.fetch = async (r) => {
        const url = new URL(r.url);
        const path = url.pathname.replace('/api', '');
        if (path === '/people/sign-ins') {
            const [outcome, badge] = url.searchParams.get('badge') ? ['locked', '104'] : ['wrong', '999'];
            const entry = { id: 7, at: '2026-11-26T09:00:00Z', badge, outcome, address: '10.0.0.9', tablet: null };
            return Response.json({ entries: [entry], before: null });
        }
        if (r.method !== 'GET') {
            const text = await r.clone().text();
            sent.push({ method: r.method, path, body: text === '' ? null : JSON.parse(text) });
            if (refuse) return Response.json(refuse, { status: 422 });
            if (r.method === 'POST' && path === '/people') people = [...people, person('210', 'Ada', { pin: 'none' })];
        }
        return Response.json({ people, lockedPlaces: places });
    };
});
afterEach(cleanup);

const mount = (at: string) =>
    render(
        <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
            <MemoryRouter initialEntries={[at]}>
                <Routes>
                    <Route path="/people/:badge?" element={<People />} />
                </Routes>
            </MemoryRouter>
        </QueryClientProvider>,
    );
const type = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));

describe('the people of the shop', () => {
    it('are listed with the state that needs the manager in words', async () => {
        mount('/people');
        const row = async (name: string) =>
            (await screen.findByRole('row', { name: new RegExp(`^${name}`) })).textContent;
        expect(await row('Imre')).toContain('packs, pumps');
        expect(await row('Imre')).toContain('active');
        expect(await row('Wyn')).toContain('locked');
        expect(await row('Tess')).toContain('no PIN yet');
        expect(await row('Old hand')).toContain('PIN too short');
        expect(await row('Bo')).toContain('left');
        expect(await screen.findByText('wrong PIN')).toBeTruthy();
        expect(screen.getByText('not known yet')).toBeTruthy();
    });

    it('are changed with the version that was shown, skills apart by commas', async () => {
        mount('/people/103');
        await screen.findByText('Imre, badge 103');
        expect(screen.getByRole('row', { current: true }).textContent).toContain('Imre');
        type('Skills', 'packs , end play,');
        fireEvent.click(screen.getByRole('radio', { name: 'Has left' }));
        press('Save');
        await waitFor(() => expect(sent).toHaveLength(1));
        expect(sent[0]).toEqual({
            method: 'PUT',
            path: '/people/103',
            body: { name: 'Imre', role: 'builder', skills: ['packs', 'end play'], active: false, version: 1 },
        });
    });

    it('get a PIN typed twice, and the refusal stands at it', async () => {
        mount('/people/105');
        await screen.findByText('No PIN yet');
        type('PIN', '730915');
        type('Again', '730916');
        press('Set the PIN');
        expect(await screen.findByText('The two are not the same.')).toBeTruthy();
        expect(sent).toEqual([]);
        const detail = 'A PIN of equal or counted digits is the first tried.';
        refuse = { status: 422, detail, errors: [{ pointer: '/pin', detail }] };
        type('Again', '730915');
        press('Set the PIN');
        expect(await screen.findByText(detail)).toBeTruthy();
        expect(sent[0]).toEqual({ method: 'PUT', path: '/people/105/pin', body: { pin: '730915' } });
    });

    it('are added, and the PIN is asked next', async () => {
        mount('/people/new');
        await screen.findByLabelText('Badge');
        press('Add; the PIN comes next');
        expect(await screen.findByText('Type or scan the badge.')).toBeTruthy();
        type('Badge', '210');
        type('Name', 'Ada');
        press('Add; the PIN comes next');
        expect(await screen.findByText('Ada, badge 210')).toBeTruthy();
        expect(screen.getByText('No PIN yet')).toBeTruthy();
        expect(sent[0]?.body).toEqual({ badge: '210', name: 'Ada', role: 'builder', skills: [] });
    });

    it('have their locks lifted and their sessions ended', async () => {
        places = [{ place: 'address:10.0.0.9', wrong: 31, until: '2026-11-26T10:00:00Z' }];
        mount('/people/104');
        const warning = await screen.findByText('Too many wrong PINs came from:');
        expect(warning.parentElement?.textContent).toContain('address 10.0.0.9 31 wrong');
        fireEvent.click(within(warning.parentElement as HTMLElement).getByRole('button', { name: 'Lift' }));
        await waitFor(() => expect(sent).toHaveLength(1));
        press('Lift the lock');
        await waitFor(() => expect(sent).toHaveLength(2));
        expect(screen.getByText('QWERTZ')).toBeTruthy();
        press('End it');
        await waitFor(() => expect(sent).toHaveLength(3));
        expect(sent.map((s) => `${s.method} ${s.path}`)).toEqual([
            'POST /people/locked-places/lift',
            'DELETE /people/104/lock',
            'DELETE /people/104/sessions',
        ]);
        expect(await screen.findByText('locked after wrong PINs')).toBeTruthy();
    });
});
