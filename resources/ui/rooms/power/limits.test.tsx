import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';

const asked = vi.hoisted(() => ({
    of: [] as [string, Record<string, unknown>][],
    fetch: (r: Request) => Promise.resolve(Response.json({ url: r.url })),
}));
vi.mock('../../api/calc', () => ({
    compute: async (name: string, input: Record<string, unknown>) => {
        asked.of.push([name, input]);
        if (name === 'launch.hold') {
            return {
                heat_w: 87_965,
                secondsTo: [{ name: 'the sensor pulls back', seconds: 8.6 }, { name: 'the lining suffers' }],
                coolDown_s: 240,
                perHour: 14.5,
            };
        }
        if (name === 'lining.temperature') {
            const repeated = { last_degc: 262, settles_degc: 270 };
            return { peak_degc: 251, peakAt_s: 0.33, bulkRise_k: 104, coolsIn_s: 8.2, holds: false, repeated };
        }
        return input['restriction'] ? { force_n: 700, pressureBehind_kpa: 390 } : { force_n: 1085.7 };
    },
}));
vi.mock('openapi-fetch', async (load) => {
    const real = await load<typeof import('openapi-fetch')>();
    return {
        ...real,
        default: (o: object) =>
            real.default({ ...o, baseUrl: 'http://yard.test/api', fetch: (r: Request) => asked.fetch(r) }),
    };
});

import { LaunchClock, LiningDesk, ThrustDesk } from './LaunchAndThrust';
import { Strength } from './Strength';

beforeEach(() => {
    asked.of = [];
});
afterEach(cleanup);

it('tells how long the brake may be held, and when the next one may follow', async () => {
    render(<LaunchClock />);
    expect(await screen.findByText('8.6 s')).toBeTruthy();
    expect(screen.getByText('never')).toBeTruthy();
    expect(screen.getByText(/88 kW of heat; 4.0 min to cool for the next one; at most 14 in an hour/)).toBeTruthy();
    expect(screen.getByText(/wheels chocked/)).toBeTruthy();
    fireEvent.change(screen.getByLabelText('Speed (rev/min)'), { target: { value: '' } });
    await waitFor(() => expect(asked.of.at(-1)?.[1]['speed_rpm']).toBe(''));
});

it('shows what a restriction takes off the thrust bearing', async () => {
    render(<ThrustDesk />);
    expect(await screen.findByText('1086 N')).toBeTruthy();
    expect(screen.getByText('700 N')).toBeTruthy();
    expect(screen.getByText(/behind the restriction, 390 kPa there/)).toBeTruthy();
});

it('says how hot the steel gets, once and again and again', async () => {
    render(<LiningDesk />);
    expect(await screen.findByText('251 °C')).toBeTruthy();
    expect(screen.getByText('the lining suffers')).toBeTruthy();
    expect(screen.getByText('262 °C')).toBeTruthy();
    expect(asked.of[0]?.[1]).toMatchObject({ heat_j: 20_000, area_mm2: 60_000, repeat: { every_s: 20, times: 10 } });
    fireEvent.change(screen.getByLabelText('Heat in the element (kJ)'), { target: { value: '' } });
    await waitFor(() => expect(asked.of.at(-1)?.[1]['heat_j']).toBe(''));
});

const PART = {
    part: 'sun-shell',
    name: 'Sun shell, hub weld',
    carries: 'B2',
    material: 'sheet steel',
    source: 'measured',
    confidence: 'shop-measured',
    gear: '2',
    torqueNm: 900,
    stressMpa: 260,
    holdsNm: 720,
    margin: 0.8,
    claims: [{ by: 'Ringwell', says: 'It never strips.' }],
};

it('lists what yields first, with claims beside and never as limits', async () => {
    const seen: string[] = [];
    asked.fetch = async (r) => {
        seen.push(new URL(r.url).search);
        return Response.json({
            shock: 1.5,
            parts: [PART, { ...PART, name: 'Idler', gear: null, margin: null, claims: [] }],
        });
    };
    render(
        <QueryClientProvider client={new QueryClient()}>
            <Strength code="RD4" />
        </QueryClientProvider>,
    );
    expect(await screen.findByText('0.80, it yields')).toBeTruthy();
    expect(screen.getByText('Ringwell claims: It never strips.')).toBeTruthy();
    expect(screen.getByText('not loaded')).toBeTruthy();
    fireEvent.change(screen.getByLabelText('Shock, times (house: 1.5)'), { target: { value: '3' } });
    await waitFor(() => expect(seen.at(-1)).toBe('?engine=300&stall=2&shock=3'));
});
