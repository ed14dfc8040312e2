import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Feel } from './Feel';
import type { Train } from './trains';

const seen = vi.hoisted(() => ({ fetch: null as null | ((r: Request) => Promise<Response>) }));
vi.mock('openapi-fetch', async (original) => {
    const real = (await original()) as { default: (o: object) => unknown };
    return {
        ...real,
        default: (o: object) =>
            real.default({ ...o, baseUrl: 'http://yard.test/api', fetch: (r: Request) => seen.fetch!(r) }),
    };
});

const train: Train = { input: 'ring', output: 'carrier', sets: [], elements: [], gears: [] };
const drive = { torque: '300', speed: '4600', inertia: '0.22', mass: '1900', axle: '3.5', radius: '340' };
const spring = { wire_mm: 3.6, meanDiameter_mm: 24, activeCoils: 12, freeLength_mm: 122, modulus_gpa: 79.3 };
const build = (name: string, more: object = {}) => ({
    name,
    line_kpa: 1000,
    pistonDiameter_mm: 32,
    springs: [spring],
    installedLength_mm: 97,
    stroke_mm: 44.5,
    feed: { diameter_mm: 2.05, dischargeCoefficient: 0.62, density: 850 },
    ...more,
});
const feels = [
    {
        from: '1',
        to: '2',
        element: 'B2',
        name: 'Second band',
        timed: false,
        inputInertia_kgm2: 0.22,
        capacity: { kind: 'band' },
        builds: [build('As made'), build('Blocked', { springs: [], stroke_mm: 0 })],
    },
    {
        from: '2',
        to: '3',
        element: 'C3',
        name: 'High clutch',
        timed: true,
        inputInertia_kgm2: 0.22,
        capacity: { kind: 'clutch' },
        builds: [build('As made')],
    },
];
const window = {
    start_kpa: 312,
    end_kpa: 867,
    volume_ml: 35.8,
    fills: true,
    fill_s: 0.6,
    curve: [
        { volume_ml: 0, pressure_kpa: 312 },
        { volume_ml: 35.8, pressure_kpa: 867 },
    ],
};
const shift = {
    completes: true,
    endsInStroke: true,
    takeOver_s: 0.19,
    duration_s: 0.44,
    overlap_s: 0,
    flare_rpm: 0,
    bump: 1.5,
    energy_j: 30600,
    outputTorque_nm: { before: 854, lowest: 488, peak: 931, after: 488 },
    curve: [
        { t: 0, pressure_kpa: 312, output_nm: 800 },
        { t: 0.63, pressure_kpa: 860, output_nm: 931 },
    ],
};

let asked: { name: string; body: Record<string, never> & { builds: Record<string, unknown>[] } }[] = [];
let refuse: object | null = null;
beforeEach(() => {
    vi.useFakeTimers();
    asked = [];
    refuse = null;
    seen.fetch = async (r) => {
        const name = new URL(r.url).pathname.split('/').at(-1)!;
        if (r.method === 'GET')
            return Response.json({
                example: { input: { builds: [build('stock'), build('shortened', { stroke_mm: 25 })] } },
            });
        asked.push({ name, body: await r.clone().json() });
        if (refuse)
            return Response.json(refuse, { status: 422, headers: { 'Content-Type': 'application/problem+json' } });
        if (name === 'shift.feel' && asked.at(-1)!.body.builds.some((b) => 'letsGo_s' in b))
            return Response.json({
                builds: [
                    { ...shift, overlap_s: -0.05, flare_rpm: 212 },
                    { ...shift, overlap_s: 0.08, outputTorque_nm: { ...shift.outputTorque_nm, lowest: 231 } },
                ],
            });
        return Response.json({
            builds:
                name === 'shift.feel'
                    ? [
                          shift,
                          {
                              ...shift,
                              completes: false,
                              takeOver_s: undefined,
                              duration_s: undefined,
                              bump: undefined,
                              energy_j: undefined,
                              outputTorque_nm: undefined,
                          },
                      ]
                    : [window, { ...window, fills: false, fill_s: undefined }],
        });
    };
});
afterEach(() => {
    vi.useRealTimers();
    cleanup();
});

const settle = () =>
    act(async () => {
        await vi.advanceTimersByTimeAsync(400);
    });
const show = async (list: typeof feels) => {
    render(
        <QueryClientProvider client={new QueryClient()}>
            {/* Only what the panel reads of an accumulator. */}
            <Feel train={train} feels={list as never} drive={drive} />
        </QueryClientProvider>,
    );
    await settle();
};
const row = (name: RegExp) => screen.getByRole('row', { name }).textContent!;

describe('Feel', () => {
    it('asks for the shift as made against the first option, and tells both', async () => {
        await show(feels);
        // What was sent is read back: its type is that of any request.
        const shiftAsked = asked.find((a) => a.name === 'shift.feel')!.body as unknown as {
            element: string;
            vehicle: { mass_kg: number };
            builds: { name: string; stroke_mm: number }[];
        };
        expect([shiftAsked.element, shiftAsked.vehicle.mass_kg]).toEqual(['B2', 1900]);
        expect(shiftAsked.builds.map((b) => [b.name, b.stroke_mm])).toEqual([
            ['before', 44.5],
            ['after', 0],
        ]);
        expect(row(/Takes over after/)).toMatch(/^Takes over after0\.19 s.does not hold this torque$/);
        expect(row(/Full after/)).toBe('Full after0.60 snever: line pressure is lower');
        expect(row(/Jolt/)).toBe('Jolt×1.50–');
        expect(screen.getByText('No spring: the piston is blocked.')).toBeTruthy();
        expect(screen.getByRole('img', { name: 'Torque at the output, before and after' })).toBeTruthy();
    });
    it('sends what was typed into one build only, and forgets it when another build is picked', async () => {
        await show(feels);
        const before = within(screen.getByRole('group', { name: 'Before' }));
        fireEvent.change(before.getByLabelText('Wire (mm)'), { target: { value: '4.0' } });
        await settle();
        const wires = asked.at(-1)!.body.builds.map((b) => (b.springs as { wire_mm: number }[])[0]?.wire_mm);
        expect(wires).toEqual([4, undefined]);
        fireEvent.change(before.getByLabelText('Build'), { target: { value: '1' } });
        expect(before.queryByLabelText('Wire (mm)')).toBeNull();
        fireEvent.change(before.getByLabelText('Build'), { target: { value: '0' } });
        expect((before.getByLabelText('Wire (mm)') as HTMLInputElement).value).toBe('3.6');
    });
    it('puts a refusal beside its field and keeps the last good answer', async () => {
        await show(feels);
        refuse = {
            type: 't',
            title: 'Not understood',
            status: 422,
            detail: 'A stroke of 90 mm presses a spring solid.',
            errors: [{ pointer: '/builds/0/stroke_mm', detail: 'A stroke of 90 mm presses a spring solid.' }],
        };
        const stroke = within(screen.getByRole('group', { name: 'Before' })).getByLabelText('Stroke (mm)');
        fireEvent.change(stroke, { target: { value: '90' } });
        await settle();
        expect(stroke.getAttribute('aria-invalid')).toBe('true');
        expect(screen.getByText('A stroke of 90 mm presses a spring solid.')).toBeTruthy();
        expect(row(/Takes up/)).toContain('35.8 mL');
    });
    it('switches between the shifts of a family', async () => {
        await show(feels);
        fireEvent.click(screen.getByText(/^2 to 3/));
        await settle();
        // As above.
        expect((asked.at(-1)!.body as unknown as { element: string }).element).toBe('C3');
        expect(screen.getByRole('region', { name: 'Feel: High clutch, 2 to 3' })).toBeTruthy();
    });
    it('tells a flare and a tie-up where the old gear lets go by command, and asks for no time where it does so by itself', async () => {
        await show(feels);
        expect(screen.queryByLabelText('Old gear lets go at (s)')).toBeNull();
        fireEvent.click(screen.getByText(/^2 to 3/));
        await settle();
        expect(row(/Old gear lets go/)).toContain('just in time');
        const early = within(screen.getByRole('group', { name: 'Before' })).getByLabelText('Old gear lets go at (s)');
        fireEvent.change(early, { target: { value: '0.05' } });
        await settle();
        expect(asked.at(-1)!.body.builds[0]!.letsGo_s).toBe(0.05);
        expect(
            asked.at(-2)!.body.builds.some((b) => 'letsGo_s' in b),
            'the accumulator alone knows of no such time',
        ).toBe(false);
        expect(row(/Old gear lets go/)).toContain('flare 0.05 s too early, the input runs up 212 rev/min');
        expect(row(/Old gear lets go/)).toContain('tie-up 0.08 s too late, the output falls to 231 N.m');
        fireEvent.change(early, { target: { value: ' ' } });
        await settle();
        expect('letsGo_s' in asked.at(-1)!.body.builds[0]!).toBe(false);
    });
    it('compares accumulators alone where no shift is described', async () => {
        await show([]);
        await settle();
        expect(asked.map((a) => a.name)).toEqual(['accumulator.window']);
        expect(screen.getByRole('img', { name: 'Pressure over oil taken up, before and after' })).toBeTruthy();
        expect(screen.queryByText('Jolt')).toBeNull();
    });
});
