import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';

const seen = vi.hoisted(() => ({ answer: null as null | Response }));
vi.mock('openapi-fetch', async (load) => {
    const real = await load<typeof import('openapi-fetch')>();
    const fetch = () => Promise.resolve(seen.answer?.clone() ?? Response.error());
    return { ...real, default: (o: object) => real.default({ ...o, baseUrl: 'http://yard.test/api', fetch }) };
});

import { DryRun } from './DryRun';

const step = {
    t: 0,
    seconds: 3,
    gear: 'P',
    throttle: 0,
    load: 0,
    lockup: false,
    held: false,
    full: false,
    read: true,
    waits: null,
};
const PLAN = {
    seconds: 12,
    waits_s: 20,
    steps: [
        step,
        { ...step, t: 3, gear: '1', throttle: 0.3, held: true },
        { ...step, t: 6, gear: '2', read: false, waits: { for: 'temp_degc at least 40', within_s: 20 } },
    ],
    shifts: [{ from: '1', to: '2', loads: [0.35] }],
    missing: ['The shift 2-1 never comes.'],
    cautions: ['Step 2 stalls the converter for 3.0 s.'],
    windowsWithout: ['shift:2-1#1:delay'],
};
const shown = () =>
    render(
        <QueryClientProvider client={new QueryClient()}>
            <DryRun family="RD4" body={{}} />
        </QueryClientProvider>,
    );
afterEach(cleanup);

it('says what is read, what is missing, and which windows would fail every run', async () => {
    seen.answer = Response.json(PLAN);
    shown();
    expect(await screen.findByText('The shift 2-1 never comes.')).toBeTruthy();
    expect(screen.getByText(/2 of 3 steps last long enough/)).toBeTruthy();
    expect(screen.getByText(/No reading for the windows shift:2-1#1:delay/)).toBeTruthy();
    expect(screen.getByText('1-2 at 35 %')).toBeTruthy();
    expect(screen.getByText(/Step 3 waits for temp_degc at least 40, 20 s at most/)).toBeTruthy();
    expect(screen.getByRole('img', { name: 'Course of the program: P, 1, 2' })).toBeTruthy();
    expect(screen.queryByText('nothing is missing')).toBeNull();
});

it('says why a program cannot be gone through', async () => {
    const detail = 'The step at 0 s comes no later than the one before it.';
    seen.answer = Response.json({ title: 'No', status: 422, detail }, { status: 422 });
    shown();
    expect((await screen.findByRole('alert')).textContent).toContain(detail);
});
