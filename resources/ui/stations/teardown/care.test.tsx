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
import { PatchProof, ToolProof } from '../../bench/proofs/Tool';
import { operation } from '../../bench/testing';
import { PROOF_FORM, type Answer } from '../../bench/types';
import { isDrawn, PartPicture, STATES } from '../../kit/PartPicture';
import { Trays } from '../../work/Trays';
import { Account } from './Account';
import { SecondLooks } from './SecondLooks';

type Call = { method: string; path: string; body: unknown };
let calls: Call[];
let answers: Record<string, unknown>;
beforeEach(() => {
    calls = [];
    answers = {};
    seen.fetch = async (r) => {
        const path = new URL(r.url).pathname.replace('/api', '');
        const body = r.method === 'GET' ? null : await r.json().catch(() => null);
        calls.push({ method: r.method, path, body });
        return Response.json(answers[path] ?? answers[path.replace(/\/[^/]+$/, '')] ?? {});
    };
});
afterEach(cleanup);

const shown = (what: ReactNode) => render(<QueryClientProvider client={new QueryClient()}>{what}</QueryClientProvider>);
const type = (label: RegExp | string, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = (name: RegExp | string) => fireEvent.click(screen.getByRole('button', { name }));
const written = () => calls.filter((c) => c.method !== 'GET');

const asked = (kind: 'tool' | 'patch', of: string) => {
    const sent: [Answer, string | undefined][] = [];
    const proof = { code: kind, kind, of };
    const props = {
        number: 'C-1',
        bench: 'teardown' as const,
        operation: operation('pump', { proofs: [proof] }),
        proof,
        proven: undefined,
        material: {},
        busy: false,
        problem: null,
        send: (answer: Answer, note?: string) => sent.push([answer, note]),
    };
    return { props, sent };
};
const submit = () => {
    const form = document.getElementById(PROOF_FORM);
    if (form) fireEvent.submit(form);
};

it('scans the special tool, or says why it is done without', () => {
    const { props, sent } = asked('tool', 'pump-puller');
    shown(<ToolProof {...props} />);
    type('Scan the tool: pump puller', 'ST-03');
    submit();
    press(/Done without it/);
    type('Why it is done without', 'At the other bench.');
    submit();
    expect(sent).toEqual([
        [{ code: 'ST-03' }, undefined],
        [{ without: true }, 'At the other bench.'],
    ]);
});

it('sends the particles of a patch by size', () => {
    const { props, sent } = asked('patch', 'rinse');
    shown(<PatchProof {...props} />);
    type(/over 6 µm/, ' 300 ');
    type(/over 14 µm/, '30');
    submit();
    expect(sent).toEqual([[{ um6: '300', um14: '30' }, undefined]]);
});

it('draws every kind of part in three states that differ', () => {
    const kinds = ['friction', 'steel', 'band', 'spring', 'wave', 'needle', 'bush', 'gear', 'hub', 'drum', 'shaft'];
    for (const kind of [...kinds, 'planet', 'seal', 'ring', 'washer', 'pump', 'valve', 'race', 'bore', 'thread']) {
        expect(isDrawn(kind), kind).toBe(true);
        const pictures = STATES.map((state) => {
            const { container, unmount } = render(<PartPicture kind={kind} state={state} />);
            const drawn = container.querySelector('svg')?.innerHTML ?? '';
            unmount();
            return drawn;
        });
        expect(new Set(pictures).size, kind).toBe(3);
    }
    expect(isDrawn('clearance')).toBe(false);
});

const TRAYS: Schemas['Trays'] = {
    stages: ['bench', 'washer', 'inspection', 'shelf'],
    loose: [],
    trays: [
        {
            tag: 'T-1',
            stage: 'bench',
            movedBy: null,
            movedAt: null,
            photos: [],
            items: [{ name: 'check balls', count: 8, keepTogether: 'balls', weighed: 7, netG: 7.4 }],
        },
    ],
};

it('shows what the scale said beside the list, weighs and moves a tray', async () => {
    answers['/units/C-1/trays'] = TRAYS;
    answers['/units/C-1/trays/T-1'] = TRAYS;
    shown(<Trays number="C-1" can />);
    expect(await screen.findByText('7 by weight, 7.4 g')).toBeTruthy();
    press(/Weigh, move or picture/);
    press('Count by weight');
    expect(await screen.findByText('Weigh the empty basket first.')).toBeTruthy();
    expect(written()).toEqual([]);
    type('They weigh, g', '10.5');
    type('Empty basket, g', '118.0 g');
    type('Basket with all, g', '126.4 g');
    press('Count by weight');
    await waitFor(() => expect(written()).toHaveLength(1));
    expect(written()[0]).toMatchObject({
        path: '/units/C-1/trays/T-1/weighings',
        body: { item: 'check balls', sample: 10, sampleWeight: '10.5', basket: '118.0 g', filled: '126.4 g' },
    });
    fireEvent.click(screen.getByRole('radio', { name: 'washer' }));
    await waitFor(() => expect(written()[1]).toMatchObject({ method: 'PUT', body: { stage: 'washer' } }));
});

it('takes the contents of a tray line by line, a bag after a colon', async () => {
    answers['/units/C-1/trays'] = { ...TRAYS, trays: [] };
    shown(<Trays number="C-1" can />);
    await screen.findByText('No tray is tied to this unit.');
    press(/Tie a tray/);
    type('Tray tag', 'T-2');
    type(/^Contents/, 'eight balls');
    press('Keep the list');
    expect(await screen.findByText(/Line 1: write the count first/)).toBeTruthy();
    type(/^Contents/, '8 check balls\n1 x piston with spring: accumulator 1');
    press('Keep the list');
    await waitFor(() =>
        expect(written()[0]?.body).toEqual({
            tag: 'T-2',
            items: [
                { name: 'check balls', count: 8 },
                { name: 'piston with spring', count: 1, keepTogether: 'accumulator 1' },
            ],
        }),
    );
});

it('offers what was counted out and lies in no tray yet', async () => {
    const loose = [
        { name: 'check balls', count: 8 },
        { name: 'seal rings', count: 4 },
    ];
    answers['/units/C-1/trays'] = { ...TRAYS, loose, trays: [] };
    shown(<Trays number="C-1" can />);
    await screen.findByText('No tray is tied to this unit.');
    press(/Tie a tray/);
    type('Tray tag', 'T-3');
    press('8 check balls');
    expect(screen.queryByRole('button', { name: '8 check balls' })).toBeNull();
    press('4 seal rings');
    press('Keep the list');
    await waitFor(() => expect(written()[0]?.body).toEqual({ tag: 'T-3', items: loose }));
});

const ACCOUNT: Schemas['TeardownAccount'] = {
    extraWork: [
        {
            id: 3,
            text: 'New drum',
            hours: 0.5,
            price: 240,
            askedBy: 'Pell',
            askedAt: '2026-11-27T10:00:00Z',
            answer: null,
            answeredBy: '',
            how: '',
            recordedBy: null,
        },
    ],
    vehicleCauses: [],
    knownCauses: [{ code: 'cooler', name: 'Cooler blocked', condition: 'Cooler exchanged.' }],
    loans: [
        {
            id: 5,
            name: 'Harness',
            origin: 'C-7',
            reason: 'test',
            by: 'Imre',
            at: '2026-11-27T10:00:00Z',
            outBy: null,
            outAt: null,
        },
    ],
};

it('opens what waits for somebody: a customer who has not answered, a part on loan', async () => {
    answers['/units/C-1/teardown/account'] = ACCOUNT;
    answers['/units/C-1/teardown/extra-work/3/answer'] = ACCOUNT;
    answers['/units/C-1/teardown/loans/5/out'] = ACCOUNT;
    shown(<Account number="C-1" can={() => true} />);
    expect(await screen.findByText('1 not answered')).toBeTruthy();
    press('Write the answer down');
    expect(await screen.findByText('Say what they answered.')).toBeTruthy();
    fireEvent.click(screen.getByRole('radio', { name: 'approved' }));
    type('Who answered', 'C. Bray');
    fireEvent.change(screen.getAllByLabelText('How')[0] as HTMLElement, { target: { value: 'telephone' } });
    press('Write the answer down');
    await waitFor(() =>
        expect(written()[0]).toMatchObject({
            path: '/units/C-1/teardown/extra-work/3/answer',
            body: { answer: 'approved', answeredBy: 'C. Bray', how: 'telephone' },
        }),
    );
    press('It is out again');
    await waitFor(() => expect(written()[1]?.path).toBe('/units/C-1/teardown/loans/5/out'));
});

it('asks for a second grade without the first, and tells it after', async () => {
    const part = { coreTag: 'C-9', part: 'sprag', name: 'Sprag', kind: 'one-way', conditions: ['holds', 'pitted'] };
    answers['/second-looks'] = { parts: [part], more: false };
    answers['/second-looks/agreement'] = {
        rows: [{ kind: '', name: 'All', n: 6, observed: 0.5, kappa: 0.25, lower: -0.1, upper: 0.6, why: null }],
    };
    answers['/units/C-9/teardown/second-looks'] = { parts: [], more: false, first: 'holds', second: 'pitted' };
    shown(<SecondLooks />);
    expect(await screen.findByText('0.25 (-0.10 to 0.60)')).toBeTruthy();
    const send = screen.getByRole<HTMLButtonElement>('button', { name: 'That is my grade' });
    expect(send.disabled, 'nothing is chosen beforehand').toBe(true);
    fireEvent.click(screen.getByRole('radio', { name: 'pitted' }));
    fireEvent.click(send);
    expect((await screen.findByRole('status')).textContent).toMatch(/the first person.*holds/);
    expect(screen.getByText('No part waits for a second look of yours.')).toBeTruthy();
});
