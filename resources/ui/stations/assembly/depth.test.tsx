import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
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
import { AirLeaks } from './AirLeaks';
import { PickList } from './PickList';

let sent: { method: string; path: string; body: unknown }[];
let answers: Record<string, unknown>;
let refuse: { pointer: string; detail: string } | null;
beforeEach(() => {
    sent = [];
    answers = {};
    refuse = null;
    seen.fetch = async (r) => {
        const path = new URL(r.url).pathname.replace('/api', '');
        if (r.method === 'GET') return Response.json(answers[path] ?? {});
        sent.push({ method: r.method, path, body: await r.json().catch(() => null) });
        if (!refuse) return Response.json(Object.values(answers)[0]);
        const problem = { type: 'about:blank', title: 'No', status: 422, detail: refuse.detail, errors: [refuse] };
        refuse = null;
        return Response.json(problem, { status: 422, headers: { 'Content-Type': 'application/problem+json' } });
    };
});
afterEach(cleanup);

const shown = (what: ReactNode) => render(<QueryClientProvider client={new QueryClient()}>{what}</QueryClientProvider>);

const PICKS: Schemas['Picks'] = {
    lines: [
        {
            part: 'SV-50X',
            name: 'Servo',
            count: 1,
            left: 1,
            picked: [],
            lots: [],
            neededAt: [],
            instead: [{ part: 'SV-50', why: 'Supersedes SV-50X.', lots: [{ lot: 'L-1', pieces: 4, place: 'S2' }] }],
        },
        {
            part: 'FR-1',
            name: 'Frictions',
            count: 5,
            left: 0,
            picked: [{ part: 'FR-1', lot: 'L-9', count: 5 }],
            lots: [],
            neededAt: [],
            instead: [],
        },
    ],
    kits: [{ kit: 'KT-1', name: 'Kit', holds: ['5 Frictions'], omits: ['Servo'], tooMuch: ['Filter'] }],
};

it('takes a substitute only when somebody says that it is meant so, and puts a line back', async () => {
    answers['/units/C-1/assembly/picks'] = PICKS;
    shown(<PickList number="C-1" can />);
    expect(await screen.findByText('1 of 2 lines to pick')).toBeTruthy();
    expect(screen.getByText(/or SV-50: L-1 \(4, S2\)/)).toBeTruthy();
    expect(screen.getByText(/It leaves out Servo. Not asked for: Filter./)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Pick Servo' }));
    fireEvent.change(screen.getByLabelText('Scan the lot'), { target: { value: 'l-1' } });
    refuse = { pointer: '/instead', detail: 'This is SV-50 in place of SV-50X.' };
    fireEvent.click(screen.getByRole('button', { name: 'Take 1' }));
    fireEvent.click(await screen.findByRole('button', { name: 'It is meant so: SV-50' }));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent.map((s) => s.body)).toEqual([
        { part: 'SV-50X', lot: 'l-1', instead: null },
        { part: 'SV-50X', lot: 'l-1', instead: 'SV-50' },
    ]);
    fireEvent.click(screen.getByRole('button', { name: 'Put back Frictions' }));
    await waitFor(() => expect(sent[2]).toMatchObject({ method: 'DELETE', path: '/units/C-1/assembly/picks/FR-1' }));
});

it('says of each circuit whether it leaks like good ones', async () => {
    const good = { n: 12, median: 0.05, most: 0.06, fence: 0.07 };
    const check = { code: 'C1', name: 'Forward', bleeds: [0.15], mm: 0.09, good, unlike: true, why: null };
    const other = { ...check, code: 'C2', name: 'Reverse', mm: 0.05, unlike: false, bleeds: [] };
    answers['/units/C-1/assembly/air'] = { checks: [check, other] };
    shown(<AirLeaks number="C-1" read={2} />);
    expect(await screen.findByText('unlike good ones')).toBeTruthy();
    expect(screen.getByText('like good ones')).toBeTruthy();
    expect(screen.getByText('bleeds 0.150 mm')).toBeTruthy();
});
