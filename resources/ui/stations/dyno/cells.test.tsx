import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';

const seen = vi.hoisted(() => ({ fetch: null as null | ((r: Request) => Promise<Response>), abilities: [''] }));
vi.mock('openapi-fetch', async (load) => {
    const real = await load<typeof import('openapi-fetch')>();
    const fetch = (r: Request) => seen.fetch?.(r) ?? Promise.reject(new Error('no answer'));
    return { ...real, default: (o: object) => real.default({ ...o, baseUrl: 'http://yard.test/api', fetch }) };
});
vi.mock('../../api/session', () => ({ useSession: () => ({ can: (a: string) => seen.abilities.includes(a) }) }));

import type { Schemas } from '../../api/client';
import { Cells } from './Cells';

type Known = Schemas['Cells'];
const chart = (check: string, change: Partial<Schemas['CellChart']> = {}): Schemas['CellChart'] => ({
    ...{ key: check, check, where: '4 at 35 %', unit: 'kPa', runs: [7, 8, 9], points: [600, 601, 640] },
    ...{ centre: 600.5, lower: 590, upper: 610, out: false, watch: false },
    ...change,
});
const drifted: Known['cells'][number] = {
    cell: 'A',
    rig: 'ready',
    open: [],
    reference: { serial: 'VY-26-0007', coreTag: 'C-0229', by: 'Mara Quill', at: '2026-11-19T07:04:00Z' },
    last: {
        ...{ run: 9, at: '2026-11-28T07:04:00Z', by: 'Wyn Oake', state: 'drift', error: null },
        moved: ['line pressure, 4 at 35 %'],
    },
    due: true,
    charts: [chart('Cooler flow', { lower: null }), chart('Line pressure', { out: true })],
    since: [
        ...[
            {
                run: 5,
                serial: 'VY-26-0011',
                coreTag: 'C-0240',
                verdict: 'pass',
                at: '2026-11-27T10:00:00Z',
                inHouse: true,
            },
        ],
        ...[
            {
                run: 6,
                serial: 'VY-26-0012',
                coreTag: 'C-0241',
                verdict: 'pass',
                at: '2026-11-27T12:00:00Z',
                inHouse: false,
            },
        ],
    ],
};
const untold: Known['cells'][number] = {
    ...{ cell: 'B', rig: 'ready', open: [], reference: null, last: null, due: true, charts: [], since: [] },
};
let written: { method: string; path: string; body: unknown }[];
let answered: Known;

beforeEach(() => {
    written = [];
    answered = { baseline: 8, cells: [drifted, untold] };
    seen.abilities = ['dyno.run', 'dyno.approve'];
    seen.fetch = async (r) => {
        if (r.method !== 'GET') {
            const body: unknown = await r.json().catch(() => null);
            written.push({ method: r.method, path: new URL(r.url).pathname, body });
        }
        return Response.json(answered);
    };
});
afterEach(cleanup);

const shown = () =>
    render(
        <QueryClientProvider client={new QueryClient()}>
            <MemoryRouter>
                <Cells />
            </MemoryRouter>
        </QueryClientProvider>,
    );
const cell = async (name: string) => within(await screen.findByRole('region', { name: `Cell ${name}` }));

it('says which reading moved, what hangs on it, and draws it', async () => {
    shown();
    const a = await cell('A');
    expect(a.getByText('drifted')).toBeTruthy();
    expect(a.getByText('line pressure, 4 at 35 %')).toBeTruthy();
    const since = within(a.getByRole('region', { name: 'Passed in cell A since it was last right' }));
    expect(since.getByText('held')).toBeTruthy();
    expect(since.getByText('has left the house')).toBeTruthy();
    expect(a.getByRole('img', { name: 'Line pressure, 4 at 35 %, run by run' })).toBeTruthy();
    fireEvent.click(a.getByRole('button', { name: /Cooler flow/ }));
    expect(a.getByRole('img', { name: 'Cooler flow, 4 at 35 %, run by run' })).toBeTruthy();
    expect(a.getByText(/3 of the 8 runs/)).toBeTruthy();
});

it('runs the reference, lets it go, and keeps another', async () => {
    shown();
    const a = await cell('A');
    fireEvent.click(a.getByRole('button', { name: 'Run VY-26-0007 in cell A' }));
    await waitFor(() => expect(written[0]).toMatchObject({ path: '/api/dyno/cells/A/reference-runs' }));
    fireEvent.click(a.getByRole('button', { name: 'Let the reference unit go' }));
    fireEvent.click(a.getByRole('button', { name: 'Let VY-26-0007 go' }));
    await waitFor(() => expect(written[1]).toMatchObject({ method: 'DELETE' }));
    const b = await cell('B');
    expect(b.getByText('never told by a reference unit')).toBeTruthy();
    fireEvent.click(b.getByRole('button', { name: 'Keep a unit as its reference' }));
    fireEvent.click(b.getByRole('button', { name: 'Keep it here' }));
    expect(await b.findByText('Scan the tag of the unit.')).toBeTruthy();
    fireEvent.change(b.getByLabelText('Tag of a unit at dispatch that passed'), { target: { value: 'C-0229' } });
    fireEvent.click(b.getByRole('button', { name: 'Keep it here' }));
    await waitFor(() => expect(written[2]).toMatchObject({ method: 'PUT', body: { coreTag: 'C-0229' } }));
});

it('shows a run on its way, and offers nothing to who may not', async () => {
    const open = [{ run: 10, specimen: 'VY-26-0007', state: 'running', purpose: 'reference' as const, progress: 41.6 }];
    answered = { baseline: 8, cells: [{ ...drifted, open }] };
    shown();
    expect((await cell('A')).getByText('the reference unit runs, 42 %')).toBeTruthy();
    cleanup();
    seen.abilities = [];
    answered = { baseline: 8, cells: [untold] };
    shown();
    expect((await cell('B')).queryByRole('button')).toBeNull();
});

it('says of each rig what keeps it from turning', async () => {
    answered = {
        baseline: 8,
        cells: [
            { ...drifted, rig: 'stopped' },
            { ...untold, rig: 'silent' },
        ],
    };
    shown();
    const a = await cell('A');
    expect(a.getByText(/emergency stop is pressed/)).toBeTruthy();
    expect(a.getByRole('button', { name: /^Run VY/ }).hasAttribute('disabled')).toBe(true);
    expect((await cell('B')).getByText(/does not answer/)).toBeTruthy();
});
