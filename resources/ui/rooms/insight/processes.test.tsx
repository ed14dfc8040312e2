import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen } from '@testing-library/react';
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

import { Processes } from './Processes';

let answers: Record<string, unknown>;
beforeEach(() => {
    answers = {};
    seen.fetch = async (r) => {
        const path = new URL(r.url).pathname.replace('/api', '');
        return Response.json(answers[path] ?? Object.values(answers)[0]);
    };
});
afterEach(cleanup);

it('draws a process with the point that ends a pattern marked by shape', async () => {
    answers['/processes'] = {
        families: [{ family: 'RD4', name: 'RD4', places: [{ kind: 'pack', code: 'C1', name: 'Forward' }] }],
    };
    answers['/processes/RD4/pack/C1'] = {
        family: 'RD4',
        kind: 'pack',
        code: 'C1',
        name: 'Forward',
        unit: 'in',
        window: { min: 0.02, max: 0.03 },
        points: [0.024, 0.025, 0.029].map((value, n) => ({
            serial: `S-${n}`,
            value,
            by: 1,
            at: '2026-11-01T00:00:00Z',
        })),
        rules: { 1: 'one point beyond three sigma' },
        centre: 0.026,
        lower: 0.024,
        upper: 0.028,
        signals: [{ rule: 1, index: 3 }],
        Cp: 1.1,
        Cpk: 1.05,
        why: null,
    };
    const { container } = render(
        <QueryClientProvider client={new QueryClient()}>
            <MemoryRouter initialEntries={['/processes/RD4/pack/C1']}>
                <Routes>
                    <Route path="/processes/:family/:kind/:code" element={<Processes />} />
                </Routes>
            </MemoryRouter>
        </QueryClientProvider>,
    );
    expect(await screen.findByText('Cpk: just fits')).toBeTruthy();
    expect(screen.getByText('one point beyond three sigma')).toBeTruthy();
    expect([container.querySelectorAll('rect').length, container.querySelectorAll('circle').length]).toEqual([1, 2]);
});
