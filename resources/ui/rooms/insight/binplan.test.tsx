import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
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

import type { Schemas } from '../../api/client';
import { BinPlan } from './BinPlan';

const PLAN: Schemas['BinPlan'] = {
    family: 'RD4',
    pack: 'C1',
    unit: 'in',
    assigned: 1,
    optimal: true,
    most: 1,
    builds: [
        {
            coreTag: 'C-1',
            serial: 'S-1',
            kept: true,
            depth: 0.982,
            measured: false,
            clearance: 0.025,
            picks: [{ slot: 'steels', part: 'ST-069', count: 5, name: 'Steel .069' }],
        },
        { coreTag: 'C-2', serial: 'S-2', kept: false, depth: 0.982, measured: false, clearance: null, picks: [] },
    ],
    oneMore: [{ part: 'BP-195', name: 'Backing plate', shelf: 0, builds: 1 }],
};

const sent: unknown[] = [];
beforeEach(() => {
    sent.length = 0;
    seen.fetch = async (r) => {
        if (r.method === 'GET') {
            return Response.json({
                families: [{ family: 'RD4', name: 'RD4', places: [{ kind: 'pack', code: 'C1', name: 'Forward' }] }],
            });
        }
        sent.push(r.method === 'DELETE' ? new URL(r.url).pathname : await r.json());
        return Response.json(PLAN);
    };
});
afterEach(cleanup);

it('says who goes without, what one more piece would bring, and plans anew with measured depths', async () => {
    render(
        <QueryClientProvider client={new QueryClient()}>
            <MemoryRouter initialEntries={['/bin-plan/RD4/C1']}>
                <Routes>
                    <Route path="/bin-plan/:family/:pack" element={<BinPlan />} />
                </Routes>
            </MemoryRouter>
        </QueryClientProvider>,
    );
    expect(await screen.findByText('1 of 2 builds land in their windows')).toBeTruthy();
    expect(screen.getByText('goes without')).toBeTruthy();
    expect(screen.getByText(/1 more build, 0 on the shelf/)).toBeTruthy();
    fireEvent.change(screen.getAllByLabelText('usual 0.982')[1] as HTMLElement, { target: { value: '0.985 in' } });
    fireEvent.click(screen.getByRole('button', { name: /Share it out/ }));
    await waitFor(() => expect(sent).toEqual([{ depths: {} }, { depths: { 'C-2': '0.985 in' } }]));
    fireEvent.click(screen.getByRole('button', { name: /Keep these pieces/ }));
    await waitFor(() => expect(sent).toContainEqual({ depths: { 'C-2': '0.985 in' } }));
    fireEvent.click(await screen.findByRole('button', { name: 'Give back what is kept for S-1' }));
    await waitFor(() => expect(sent).toContain('/api/bin-plans/RD4/C1/kept/C-1'));
    expect(screen.queryByRole('button', { name: 'Give back what is kept for S-2' })).toBeNull();
});
