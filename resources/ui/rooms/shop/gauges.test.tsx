import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
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
vi.mock('../../api/session', () => ({ useSession: () => ({ person: { role: 'manager', name: 'Mara' } }) }));

import type { Schemas } from '../../api/client';
import { Gauges } from './Gauges';

let sent: { path: string; body: unknown }[];
let answers: Record<string, unknown>;
beforeEach(() => {
    sent = [];
    answers = {};
    seen.fetch = async (r) => {
        const path = new URL(r.url).pathname.replace('/api', '');
        if (r.method !== 'GET') sent.push({ path, body: await r.json() });
        return Response.json(answers[path] ?? Object.values(answers)[0]);
    };
});
afterEach(cleanup);

const GAUGE: Schemas['Gauges']['gauges'][number] = {
    code: 'F-01',
    name: 'Feeler',
    kind: 'length',
    unit: 'in',
    min: 0,
    max: 0.1,
    calibratedUntil: '2027-01-01',
    overdue: false,
    spread: 0.0005,
    armMm: null,
    check: null,
    study: null,
};

it('takes a study line by line and names the line that is wrong', async () => {
    answers['/gauges'] = { gauges: [GAUGE] };
    answers['/gauges/F-01/doubtful'] = { from: null, to: null, total: 0, readings: [] };
    render(
        <QueryClientProvider client={new QueryClient()}>
            <MemoryRouter>
                <Gauges />
            </MemoryRouter>
        </QueryClientProvider>,
    );
    fireEvent.click(await screen.findByRole('button', { name: /F-01/ }));
    expect(screen.getByText('0.003 in')).toBeTruthy();
    const readings = screen.getByLabelText(/^Readings/);
    fireEvent.change(readings, { target: { value: 'Imre, A, 0.02\nBo, A' } });
    fireEvent.click(screen.getByRole('button', { name: 'Reckon the study' }));
    expect(await screen.findByText('Line 2: person, part, reading.')).toBeTruthy();
    fireEvent.change(readings, { target: { value: 'Imre, A, 0.02 in\nBo; A; 0.021' } });
    fireEvent.click(screen.getByRole('button', { name: 'Reckon the study' }));
    await waitFor(() =>
        expect(sent[0]?.body).toEqual({
            rows: [
                { person: 'Imre', part: 'A', reading: '0.02 in' },
                { person: 'Bo', part: 'A', reading: '0.021' },
            ],
        }),
    );
});
