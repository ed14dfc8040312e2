import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
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
vi.mock('../../api/session', () => ({ useSession: () => ({ person: { role: 'manager', name: 'Mara' } }) }));

import type { Schemas } from '../../api/client';
import { Processes } from '../../rooms/insight/Processes';
import { Gauges } from '../../rooms/shop/Gauges';
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

const shown = (what: ReactNode, at = '/') =>
    render(
        <QueryClientProvider client={new QueryClient()}>
            <MemoryRouter initialEntries={[at]}>{what}</MemoryRouter>
        </QueryClientProvider>,
    );

const PICKS: Schemas['Picks'] = {
    lines: [
        {
            part: 'SV-50X',
            name: 'Servo',
            count: 1,
            left: 1,
            picked: [],
            lots: [],
            instead: [{ part: 'SV-50', why: 'Supersedes SV-50X.', lots: [{ lot: 'L-1', pieces: 4, place: 'S2' }] }],
        },
        {
            part: 'FR-1',
            name: 'Frictions',
            count: 5,
            left: 0,
            picked: [{ part: 'FR-1', lot: 'L-9', count: 5 }],
            lots: [],
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
    shown(<Gauges />);
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
    const { container } = shown(
        <Routes>
            <Route path="/processes/:family/:kind/:code" element={<Processes />} />
        </Routes>,
        '/processes/RD4/pack/C1',
    );
    expect(await screen.findByText('Cpk: just fits')).toBeTruthy();
    expect(screen.getByText('one point beyond three sigma')).toBeTruthy();
    expect([container.querySelectorAll('rect').length, container.querySelectorAll('circle').length]).toEqual([1, 2]);
});
