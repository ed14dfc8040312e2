import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Card, Problem } from '../../api/client';
import { benchCard, operation } from '../testing';
import type { Answer, Material, ProofAsked, ProofProps } from '../types';
import { PROOFS } from './index';
import { clockOf } from './Timer';

// The client keeps the fetch it finds when it is made; the calls go through the one of the test.
const seen = vi.hoisted(() => ({ fetch: null as null | ((r: Request) => Promise<Response>) }));
vi.mock('openapi-fetch', async (original) => {
    const real = await original<{ default: (o: object) => unknown }>();
    return {
        ...real,
        default: (o: object) =>
            real.default({ ...o, baseUrl: 'http://yard.test/api', fetch: (r: Request) => seen.fetch?.(r) }),
    };
});

const sent: { answer: Answer; note: string | undefined }[] = [];
type Assembly = NonNullable<Card['assembly']>;
type Proven = NonNullable<ProofProps['proven']>;

const place = (change: Partial<Assembly['places'][number]> = {}): Assembly['places'][number] => ({
    code: 'C1',
    name: 'Forward pack',
    kind: 'pack',
    unit: 'in',
    quantity: 'length',
    window: { min: 0.02, max: 0.03 },
    target: 0.025,
    source: 'common practice',
    confidence: 'recalled',
    how: 'Groove edge to piston face.',
    note: '',
    nominalDepth: 0.982,
    house: [],
    forOptions: [],
    trialWasher: null,
    fixed: [],
    tooTight: null,
    tooLoose: null,
    fit: null,
    readings: [],
    group: null,
    coil: false,
    derived: null,
    press: null,
    passes: null,
    ...change,
});

const gauge = (code: string, kind: string, overdue = false) => ({
    code,
    name: `Gauge ${code}`,
    kind,
    unit: 'in',
    min: 0,
    max: 1,
    calibratedUntil: '2027-01-01',
    spread: null,
    armMm: null,
    overdue,
});

function material(places: Assembly['places'], fasteners: Assembly['fasteners'] = []): Material {
    const assembly = benchCard([]).assembly;
    const gauges = [gauge('F-01', 'length'), gauge('F-02', 'length', true), gauge('T-01', 'torque')];
    return { assembly: assembly && { ...assembly, places, fasteners, gauges } };
}

function shown(proof: ProofAsked, change: Partial<ProofProps> = {}) {
    const Proof = PROOFS[proof.kind];
    render(
        <QueryClientProvider client={new QueryClient()}>
            <Proof
                number="C-1"
                bench="assembly"
                operation={operation('x')}
                proof={proof}
                proven={undefined}
                material={{}}
                busy={false}
                problem={null}
                send={(answer, note) => sent.push({ answer, note })}
                {...change}
            />
        </QueryClientProvider>,
    );
}

const press = () => {
    const form = document.querySelector('form');
    if (form) fireEvent.submit(form);
};
const type = (label: string | RegExp, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
const refused = (pointer: string, detail: string): Problem => ({
    type: 'about:blank',
    title: 'Not accepted',
    status: 422,
    detail,
    errors: [{ pointer, detail }],
});

beforeEach(() => {
    sent.length = 0;
    seen.fetch = () => Promise.reject(new TypeError('nobody asked for this'));
});
afterEach(cleanup);

describe('a reading', () => {
    const proof: ProofAsked = { code: 'reading-pack-c1', kind: 'reading', of: 'pack:C1' };

    it('shows its window, what was predicted and the last value, and asks which gauge', () => {
        const fit = { picks: [], predicted: 0.024, by: 'Imre Soll', at: '2026-11-27T08:00:00Z' };
        const last = {
            value: 0.041,
            unit: 'in',
            typed: '.041',
            inside: false,
            gauge: null,
            note: '',
            by: 'Imre Soll',
            at: '2026-11-27T08:10:00Z',
        };
        shown(proof, { material: material([place({ fit, readings: [last] })]) });
        expect(screen.getByText('0.041', { exact: false })).toBeTruthy();
        expect(screen.getByText(/outside, Imre Soll/)).toBeTruthy();
        expect(screen.getByText('0.024 in')).toBeTruthy();
        const gauges = [...screen.getByLabelText('Gauge').querySelectorAll('option')].map((o) => o.textContent);
        expect(gauges).toEqual(['which gauge?', 'Gauge F-01', 'Gauge F-02 (past its date)']);
        type(/^Reading \(in\)/, '24 thou');
        type('Gauge', 'F-01');
        press();
        expect(sent).toEqual([{ answer: { reading: '24 thou', gauge: 'F-01' }, note: '' }]);
    });

    it('asks why only when the server asks why', () => {
        shown(proof, { material: material([place()]), problem: refused('/note', 'Say why in the note.') });
        expect(screen.getByText('Say why in the note.')).toBeTruthy();
        type('Note', 'A burr, taken off');
        press();
        expect(sent[0]?.note).toBe('A burr, taken off');
    });

    it('says that a place is not in this build instead of asking for it', () => {
        shown(proof, { material: material([]) });
        expect(screen.getByText('This build has no such place to measure.')).toBeTruthy();
    });
});

describe('a torque', () => {
    const bolts = {
        code: 'pump',
        name: 'Pump to case',
        thread: '5/16-18',
        grade: 'SAE 5',
        count: 7,
        torque: '18 lbf.ft',
        torqueNm: 24.4,
        boltCeilingNm: 23.6,
        into: 'aluminium',
        pattern: 'star',
        note: '',
        source: 'common practice',
        confidence: 'recalled',
        house: [],
        readings: [],
    };

    it('is asked in its own unit, and warns where the bolt alone takes less', () => {
        shown({ code: 'torque-pump', kind: 'torque', of: 'pump' }, { material: material([], [bolts]) });
        expect(screen.getByText('18 lbf.ft')).toBeTruthy();
        expect(screen.getByText(/above the 23.6 N·m this bolt takes by itself/)).toBeTruthy();
        expect(screen.getByLabelText(/^Reading \(lbf.ft\)/)).toBeTruthy();
    });
});

describe('chosen parts', () => {
    it('asks the shelf with the depth, then takes what was proposed', async () => {
        const best = { clearance: 0.025, picks: [{ slot: 'steels', part: 'ST-069', count: 5 }] };
        seen.fetch = () =>
            Promise.resolve(
                Response.json({
                    place: 'C1',
                    unit: 'in',
                    depth: 0.981,
                    fixed: [{ name: 'friction plates', thickness: 0.08, count: 5 }],
                    slots: [{ name: 'steels', pick: 5, options: [{ part: 'ST-069', thickness: 0.069 }] }],
                    window: { min: 0.02, max: 0.03 },
                    target: 0.025,
                    result: { feasible: true, best, alternatives: [] },
                }),
            );
        shown({ code: 'fit-pack-c1', kind: 'fit', of: 'pack:C1' }, { material: material([place()]) });
        type('Groove depth', '.981');
        press();
        expect(await screen.findByText('0.025 in')).toBeTruthy();
        press();
        expect(sent[0]?.answer).toEqual({ reading: '.981', trialWasher: null, picks: best.picks });
        type('Groove depth', '.982');
        await waitFor(() => expect(screen.queryByText('0.025 in')).toBeNull());
    });
});

describe('a timer', () => {
    const proof: ProofAsked = { code: 'timer-soaking', kind: 'timer', of: 'soaking', minutes: 30 };

    it('starts with the button, or was begun before with a word since when', () => {
        shown(proof);
        expect(screen.getByText('30:00')).toBeTruthy();
        press();
        type(/^Begun before/, 'Since last night');
        press();
        expect(sent).toEqual([
            { answer: {}, note: '' },
            { answer: { already: true }, note: 'Since last night' },
        ]);
    });

    it('counts down by the time it ends, which a reload does not change', () => {
        vi.useFakeTimers({ now: Date.parse('2026-11-27T08:10:00Z') });
        const answer = { ends: '2026-11-27T08:30:00Z' };
        const proven: Proven = { code: proof.code, answer, by: 'Imre Soll', at: null, note: '', open: '20 min left' };
        shown(proof, { proven });
        expect(screen.getByRole('timer').textContent).toBe('20:00');
        vi.useRealTimers();
    });

    it('says hours where there are hours', () => {
        expect([clockOf(65), clockOf(3600), clockOf(12 * 3600 + 59)]).toEqual(['1:05', '1 h 00 min', '12 h 00 min']);
    });
});

describe('valves tried one by one', () => {
    const valves: ProofAsked = {
        code: 'free-valves',
        kind: 'free',
        of: 'valves',
        each: ['Boost valve', 'Shift valve'],
    };
    const choose = (valve: string, how: string) =>
        fireEvent.click(
            within(screen.getByRole('radiogroup', { name: `How the ${valve} moves` })).getByRole('radio', {
                name: how,
            }),
        );

    it('presets nothing, counts what was tried and says which one is missing', () => {
        shown(valves, { problem: refused('/answer/moves/Shift valve', 'Say how the "Shift valve" moves.') });
        expect(screen.queryAllByRole('radio', { checked: true })).toHaveLength(0);
        expect(screen.getByText('Say how the "Shift valve" moves.')).toBeTruthy();
        choose('Boost valve', 'tapped');
        expect(screen.getByText(/of 2 tried/).textContent).toContain('1 of 2 tried');
        choose('Boost valve', 'falls');
        choose('Shift valve', 'hangs');
        press();
        expect(sent.map((s) => s.answer)).toEqual([{ moves: { 'Boost valve': 'falls', 'Shift valve': 'hangs' } }]);
    });
});

describe('what is only said', () => {
    it('a scan, a second person and a part turned round show the refusal at their field', () => {
        shown({ code: 'scan-tray', kind: 'scan', of: 'tray' }, { problem: refused('/answer/code', 'Scan the tray.') });
        expect(screen.getByLabelText('Scan the tray').getAttribute('aria-invalid')).toBe('true');
        type('Scan the tray', 'T-7');
        press();
        cleanup();
        shown(
            { code: 'sign', kind: 'sign', of: 'holds one way' },
            { problem: refused('/pin', 'Badge and PIN differ.') },
        );
        type('Badge of the second person', '100');
        type('Their PIN', '482163');
        expect(screen.getByLabelText('Their PIN').getAttribute('type')).toBe('password');
        press();
        cleanup();
        const open = '"narrow" is not how it belongs.';
        const proven: Proven = { code: 'o', answer: { choice: 'narrow' }, by: null, at: null, note: '', open };
        shown(
            {
                code: 'o',
                kind: 'orientation',
                of: 'cage',
                ask: 'Which lip?',
                choices: ['wide', 'narrow'],
                right: 'wide',
            },
            { proven },
        );
        expect(screen.getByText(open)).toBeTruthy();
        expect(sent.map((s) => s.answer)).toEqual([{ code: 'T-7' }, { badge: '100', pin: '482163' }]);
    });
});

describe('a torque', () => {
    const bolts: Assembly['fasteners'][number] = {
        code: 'pump',
        name: 'Pump',
        thread: 'M8x1.25',
        grade: '8.8',
        count: 7,
        torque: '20 N.m',
        torqueNm: 20,
        boltCeilingNm: 25,
        into: 'aluminium',
        pattern: 'star',
        note: '',
        source: 'notes',
        confidence: 'documented',
        house: [],
        readings: [],
    };
    const asked: ProofAsked = { code: 'torque-pump', kind: 'torque', of: 'pump' };

    it('says which gives first, and that louder where the torque is above it', () => {
        shown(asked, { material: material([], [{ ...bolts, givesFirst: 'hole', limitNm: 31.5 }]) });
        expect(screen.getByText(/Bolt and hole take 31.5 N·m; the hole would give first/)).toBeTruthy();
        cleanup();
        shown(asked, { material: material([], [{ ...bolts, givesFirst: 'hole', limitNm: 18 }]) });
        expect(screen.getByText(/the hole gives at 18.0 N·m, before this torque/)).toBeTruthy();
        cleanup();
        shown(asked, { material: material([], [bolts]) });
        expect(screen.queryByText(/give first/)).toBeNull();
    });

    it('reckons what to set on a wrench with an adapter', async () => {
        const bodies: unknown[] = [];
        seen.fetch = async (r) => {
            bodies.push(await r.json());
            return Response.json({ setting_nm: 17.6 });
        };
        shown(asked, { material: material([], [bolts]) });
        fireEvent.click(screen.getByRole('button', { name: 'With an adapter on the wrench' }));
        type('Arm of the wrench, mm', '240');
        type('Adapter, mm', 'long');
        expect(bodies).toEqual([]);
        type('Adapter, mm', '33');
        expect((await screen.findByRole('status')).textContent).toContain('Set the wrench to 17.6 N·m');
        expect(bodies).toEqual([{ wanted_nm: 20, wrenchLength_mm: 240, adapterLength_mm: 33, angle_deg: 0 }]);
    });
});

it('says of a gauge that spreads too much for a window that it cannot judge it', () => {
    const wide = { ...gauge('F-09', 'length'), spread: 0.001 };
    const given = material([place()]);
    const assembly = given.assembly && { ...given.assembly, gauges: [wide, gauge('F-01', 'length')], gaugeShare: 0.3 };
    shown({ code: 'reading-pack-c1', kind: 'reading', of: 'pack:C1' }, { material: { assembly } });
    fireEvent.change(screen.getByLabelText('Gauge'), { target: { value: 'F-01' } });
    expect(screen.queryByText(/cannot judge it/)).toBeNull();
    fireEvent.change(screen.getByLabelText('Gauge'), { target: { value: 'F-09' } });
    expect(screen.getByText(/spreads over 60 % of the window/)).toBeTruthy();
});
