import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import type { ComponentProps } from 'react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Card } from '../api/client';
import { Steps } from './Steps';

const sent: { url: string; body: unknown; key: string | null }[] = [];
let reply: () => Response = () => Response.json({ coreTag: 'C-1' });

// The client keeps the fetch it finds when it is made; the calls go through the one of the window.
const seen = vi.hoisted(() => ({ fetch: null as null | ((r: Request) => Promise<Response>) }));
vi.mock('openapi-fetch', async (original) => {
    const real = (await original()) as { default: (o: object) => unknown };
    return {
        ...real,
        default: (o: object) =>
            real.default({ ...o, baseUrl: 'http://yard.test/api', fetch: (r: Request) => seen.fetch!(r) }),
    };
});

beforeEach(() => {
    sent.length = 0;
    reply = () => Response.json({ coreTag: 'C-1' });
    seen.fetch = async (r) => {
        sent.push({
            url: new URL(r.url).pathname,
            body: await r.clone().json(),
            key: r.headers.get('Idempotency-Key'),
        });
        return reply();
    };
});
afterEach(cleanup);

type Step = ComponentProps<typeof Steps>['steps'][number];
const step = (code: string, more: Partial<Step> = {}): Step =>
    ({
        code,
        name: `Step ${code}`,
        source: '',
        confidence: 'recalled',
        needs: [],
        counts: {},
        state: 'open',
        waitsFor: [],
        counted: {},
        note: '',
        by: null,
        at: null,
        ...more,
    }) as Step;
const card = { coreTag: 'C-1' } as Card;
const show = (steps: Step[], more: Partial<ComponentProps<typeof Steps>> = {}) => {
    const onCard = vi.fn();
    render(
        <QueryClientProvider client={new QueryClient()}>
            <Steps phase="assembly" steps={steps} card={card} onCard={onCard} editable {...more} />
        </QueryClientProvider>,
    );
    return onCard;
};

describe('Steps', () => {
    it('counts what is done, names what a step waits for, and offers only what is open', () => {
        show([
            step('a', { state: 'done', by: 'Imre Soll', at: '2026-11-24T10:00:00Z', note: 'one ring spare' }),
            step('b'),
            step('c', { state: 'waits', waitsFor: ['b'] }),
        ]);
        expect(screen.getByText('1 of 3 done')).toBeTruthy();
        expect(screen.getByText(/done, Imre Soll/)).toBeTruthy();
        expect(screen.getByText('Note: one ring spare')).toBeTruthy();
        expect(screen.getByText('after Step b')).toBeTruthy();
        expect(screen.getAllByRole('button').map((b) => b.getAttribute('aria-label'))).toEqual(['Done: Step b']);
    });
    it('shows trap, tool, the option that asks, the house rule in force and the caution before the step', () => {
        show([
            step('a', {
                tool: 'feeler',
                trap: 'Washer falls.',
                because: 'Solid sealing rings',
                house: [{ question: 'Soak time', choice: '30 min', reason: 'Costs nothing.' }],
                caution: 'Springs fly.',
            }),
        ]);
        const text = screen.getByRole('region', { name: 'Steps' }).textContent!;
        for (const words of [
            'feeler',
            'Trap: Washer falls.',
            'Because of: Solid sealing rings',
            'House rule: Soak time: 30 min. Costs nothing.',
            'Take care. Springs fly.',
            "The maker's procedure",
        ])
            expect(text).toContain(words);
    });
    it('sends the counts, and asks for a note when one differs', async () => {
        const onCard = show([step('pump', { counts: { 'sealing rings': 5 } })]);
        expect(screen.queryByLabelText(/Note/)).toBeNull();
        fireEvent.change(screen.getByLabelText('sealing rings, counted (of 5)'), { target: { value: '4' } });
        fireEvent.change(screen.getByLabelText('Note: why the count differs'), { target: { value: 'one broke' } });
        await act(async () => void fireEvent.click(screen.getByRole('button', { name: 'Done: Step pump' })));
        expect(sent).toHaveLength(1);
        expect([sent[0]!.url, sent[0]!.body]).toEqual([
            '/api/units/C-1/assembly/steps/pump',
            { counts: { 'sealing rings': 4 }, note: 'one broke' },
        ]);
        expect(sent[0]!.key).toBeTruthy();
        expect(onCard).toHaveBeenCalledOnce();
    });
    it('puts a refused count at its field and keeps what was typed', async () => {
        reply = () =>
            Response.json(
                {
                    type: 'about:blank',
                    title: 'No',
                    status: 422,
                    detail: 'Count.',
                    errors: [{ pointer: '/counts/balls', detail: 'There should be 8 balls, and 7 were counted.' }],
                },
                { status: 422 },
            );
        show([step('vb', { counts: { balls: 8 } })], { phase: 'teardown' });
        fireEvent.change(screen.getByLabelText('balls, counted (of 8)'), { target: { value: '7' } });
        await act(async () => void fireEvent.click(screen.getByRole('button', { name: 'Done: Step vb' })));
        expect(sent[0]!.url).toBe('/api/units/C-1/teardown/steps/vb');
        const field = screen.getByLabelText('balls, counted (of 8)') as HTMLInputElement;
        expect([field.value, field.getAttribute('aria-invalid')]).toEqual(['7', 'true']);
        expect(screen.getByText('There should be 8 balls, and 7 were counted.')).toBeTruthy();
    });
    it('is only to be read at another station', () => {
        show([step('a')], { editable: false });
        expect(screen.queryByRole('button')).toBeNull();
    });
});
