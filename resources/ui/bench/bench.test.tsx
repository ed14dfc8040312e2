import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import 'fake-indexeddb/auto';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Bench } from './Bench';
import { forget } from './offline';
import { Reach } from './Reach';
import { labelsOf, type Part } from './section';
import { benchCard, operation } from './testing';
import type { Operation } from './types';

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

const REACH = {
    part: 'pump',
    possible: true,
    operations: [
        { code: 'pan', name: 'Pan off', hours: 0.3, parts: [] },
        { code: 'pull', name: 'Pump out', hours: 0.5, parts: ['pump'] },
    ],
    hours: 0.8,
    inVehicle: false,
    renews: ['pan gasket'],
    because: [],
    optimal: true,
    bound: 0.8,
};
const sent: { url: string; body: Record<string, unknown> }[] = [];
const part = (code: string, x: number, name = code): Part => ({
    code,
    name,
    kind: 'block',
    turns: 'stands',
    of: '',
    shapes: [
        {
            as: 'cut',
            form: 'outline',
            points: [
                [x, 0],
                [x + 10, 0],
                [x + 10, 20],
                [x, 20],
            ],
        },
    ],
});

beforeEach(async () => {
    await forget();
    globalThis.indexedDB = new (await import('fake-indexeddb')).IDBFactory();
    sent.length = 0;
    seen.fetch = async (request: Request) => {
        if (request.url.includes('/section')) {
            return Response.json({
                family: 'RD4',
                axes: [],
                parts: [part('pump', 0, 'Pump'), part('C1', 20, 'Forward clutch')],
            });
        }
        if (request.url.includes('/reach')) {
            return Response.json(REACH);
        }
        if (request.url.endsWith('/photos')) {
            sent.push({ url: 'photo', body: Object.fromEntries((await request.formData()).entries()) });
            return Response.json({ id: 4, place: '', width: 1, height: 1 }, { status: 201 });
        }
        if (request.method === 'GET') return Response.json(benchCard([]));
        sent.push({ url: new URL(request.url).pathname, body: (await request.json()) as Record<string, unknown> });
        return Response.json(benchCard([]));
    };
});
afterEach(cleanup);

const type = (field: HTMLElement, value: string) => fireEvent.change(field, { target: { value } });

function shown(operations: Operation[], change: Partial<Parameters<typeof Bench>[0]> = {}) {
    const card = benchCard(operations);
    render(
        <QueryClientProvider client={new QueryClient()}>
            <Bench
                bench="assembly"
                card={card}
                onCard={() => undefined}
                material={{ assembly: card.assembly }}
                editable
                me="Imre Soll"
                badge="103"
                {...change}
            />
        </QueryClientProvider>,
    );
}

const turned = operation('sprag', {
    proofs: [
        {
            code: 'orientation-cage',
            kind: 'orientation',
            of: 'cage',
            ask: 'Which lip faces the front?',
            choices: ['wide', 'narrow'],
            right: 'wide',
        },
    ],
});

describe('the bench', () => {
    it('shows one operation, its part lit, and what comes next', async () => {
        shown([operation('pump', { parts: ['pump'], trap: 'It sticks.', tool: 'puller' }), operation('next')]);
        expect(await screen.findByRole('img', { name: /In hand: Pump/ })).toBeTruthy();
        expect(screen.getByRole('heading', { name: 'Operation pump' })).toBeTruthy();
        expect(screen.getByText('It sticks.')).toBeTruthy();
        expect(screen.getByRole('button', { name: /Right, next then: Operation next/ })).toBeTruthy();
        expect(screen.getByText('0 of 2 · 1 h 0 min left')).toBeTruthy();
    });

    it('takes a proof with the pedal as with the button', async () => {
        shown([operation('pump')]);
        await screen.findByText('Done when your hands say so.');
        fireEvent.keyDown(window, { key: 'PageDown' });
        await waitFor(() => expect(sent).toHaveLength(1));
        expect(sent[0]?.url).toBe('/api/units/C-1/assembly/operations/pump/proofs/done');
        expect(sent[0]?.body).toMatchObject({ answer: {}, note: '' });
        expect(sent[0]?.body.at).toBeTypeOf('string');
    });

    it('takes a picture of the work beside what must be proven', async () => {
        shown([operation('pump')]);
        await screen.findByText('Done when your hands say so.');
        const file = new File(['grey'], 'a.png', { type: 'image/png' });
        fireEvent.change(screen.getByLabelText('Photo'), { target: { files: [file] } });
        await waitFor(() => expect(sent).toHaveLength(1));
        expect(sent[0]?.body).toMatchObject({ place: 'Operation pump', station: 'assembly' });
    });

    it('chooses nothing beforehand and sends what a person chose', async () => {
        shown([turned]);
        for (const radio of await screen.findAllByRole('radio'))
            expect(radio.getAttribute('aria-checked')).toBe('false');
        fireEvent.click(screen.getByRole('radio', { name: 'narrow' }));
        fireEvent.click(screen.getByRole('button', { name: /Right, next/ }));
        await waitFor(() => expect(sent[0]?.body.answer).toEqual({ choice: 'narrow' }));
    });

    it('counts, and asks why when a count differs', async () => {
        shown([operation('pump', { proofs: [{ code: 'count', kind: 'count', of: '', counts: { 'pump bolts': 7 } }] })]);
        const field = await screen.findByLabelText('pump bolts, counted (of 7)');
        fireEvent.change(field, { target: { value: '6' } });
        type(screen.getByLabelText('Note: why the count differs'), 'One was stripped');
        fireEvent.click(screen.getByRole('button', { name: /Right, next/ }));
        await waitFor(() =>
            expect(sent[0]?.body).toMatchObject({ answer: { counts: { 'pump bolts': 6 } }, note: 'One was stripped' }),
        );
    });

    it('sets a jam aside with its reason and goes on with what may be done', async () => {
        shown([operation('pump'), operation('tail')]);
        fireEvent.click(await screen.findByRole('button', { name: 'It will not go' }));
        type(screen.getByLabelText('What jams?'), 'The puller slips');
        fireEvent.click(screen.getByRole('button', { name: 'Write it down' }));
        await waitFor(() => expect(sent[0]?.body).toMatchObject({ move: 'jam', note: 'The puller slips' }));
    });

    it('says to the next badge what was left half done', async () => {
        const card = benchCard([operation('pump', { activity: 'paused' })]);
        const left = {
            operation: 'pump',
            name: 'Pump in',
            activity: 'paused' as const,
            by: 'Bo Lindqvane',
            since: '',
            note: 'Three of seven bolts.',
            proven: 1,
            of: 2,
            open: [],
        };
        if (card.assembly) card.assembly.work.handover = [left];
        shown([], { card });
        expect(await screen.findByText(/Bo Lindqvane left "Pump in" set down: 1 of 2 proven/)).toBeTruthy();
        expect(screen.getByText('Three of seven bolts.')).toBeTruthy();
    });

    it('keeps a proof on the tablet when the network is gone, and says so', async () => {
        seen.fetch = () => Promise.reject(new TypeError('no network'));
        shown([operation('pump'), operation('tail', { after: ['pump'], state: 'waits' })]);
        fireEvent.click(screen.getByRole('button', { name: /Right, next/ }));
        expect(await screen.findByText(/1 entry waits for the network/)).toBeTruthy();
        expect(await screen.findByRole('heading', { name: 'Operation tail' })).toBeTruthy();
    });

    it('lists all operations with what they wait for', async () => {
        shown([operation('pump'), operation('tail', { after: ['pump'], state: 'waits', waitsFor: ['pump'] })]);
        fireEvent.click(await screen.findByRole('button', { name: 'All steps' }));
        expect(screen.getByText('after Operation pump')).toBeTruthy();
        fireEvent.click(screen.getByRole('tab', { name: 'Graph' }));
        expect(await screen.findByRole('group', { name: 'Order of the operations' })).toBeTruthy();
    });

    it('shows nothing to press to somebody who may only look', async () => {
        shown([operation('pump')], { editable: false });
        expect(await screen.findByRole('heading', { name: 'Operation pump' })).toBeTruthy();
        expect(screen.queryByRole('button', { name: /Right, next|It will not go/ })).toBeNull();
    });
});

describe('labels of the drawing', () => {
    it('stand in the order of their parts and apart, so that leaders never cross', () => {
        const parts = ['Reverse clutch', 'Band', 'Forward clutch with a long name', 'Pump', 'High clutch'].map((n, i) =>
            part(`p${i}`, 100 + i * 3, n),
        );
        const labels = labelsOf(parts, { x: 0, y: 0, w: 620, h: 200 });
        for (const [n, l] of labels.entries()) {
            const next = labels[n + 1];
            if (!next) continue;
            expect(l.x).toBeLessThanOrEqual(next.x);
            expect(next.at - l.at).toBeGreaterThan(((l.name.length + next.name.length) / 2) * 5);
        }
    });
});

describe('the way to a part', () => {
    const work = {
        family: 'RD4',
        operations: [operation('pan', { removes: ['C1'] }), operation('pull', { removes: ['pump'] })],
        hoursLeft: 0.8,
        longestPath: [],
        handover: [],
    };

    it('is named by touching the part, says hours, where and what is renewed, and begins with its first operation', async () => {
        const begun: string[] = [];
        render(
            <QueryClientProvider client={new QueryClient()}>
                <Reach number="C-1" work={work} onChoose={(code) => void begun.push(code)} />
            </QueryClientProvider>,
        );
        await waitFor(() => expect(document.querySelector('[data-part=pump]')).toBeTruthy());
        fireEvent.click(document.querySelector('[data-part=pump]') as Element);
        expect(await screen.findByText('48 min')).toBeTruthy();
        expect(screen.getByText('the unit must be out')).toBeTruthy();
        expect(screen.getByText('pan gasket')).toBeTruthy();
        fireEvent.click(screen.getByRole('button', { name: 'Begin: Pan off' }));
        expect(begun).toEqual(['pan']);
    });
});
