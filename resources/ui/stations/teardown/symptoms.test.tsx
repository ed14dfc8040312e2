import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { SectionProps } from '../../card/section';

const seen = vi.hoisted(() => ({ fetch: null as null | ((r: Request) => Promise<Response>) }));
vi.mock('openapi-fetch', async (original) => {
    const real = (await original()) as { default: (o: object) => unknown };
    return {
        ...real,
        default: (o: object) =>
            real.default({ ...o, baseUrl: 'http://yard.test/api', fetch: (r: Request) => seen.fetch?.(r) }),
    };
});

import { Symptoms } from './Symptoms';

type Props = SectionProps<'teardown'>;
let sent: unknown[];

beforeEach(() => {
    sent = [];
    seen.fetch = async (r) => {
        sent.push(await r.json());
        return Response.json({ coreTag: 'C-1' });
    };
});
afterEach(cleanup);

const shown = (symptoms: Record<string, string>, more: Partial<Props> = {}) => {
    const section = { gears: ['1', '2', '3', 'R'], symptoms, pressures: {}, codes: [], elements: { C1: 'Forward' } };
    // Only what the panel reads of a card.
    const props = { section, card: { coreTag: 'C-1', station: 'teardown' }, onCard: vi.fn(), can: () => true, ...more };
    return render(
        <QueryClientProvider client={new QueryClient()}>
            <MemoryRouter>
                <Symptoms {...(props as unknown as Props)} />
            </MemoryRouter>
        </QueryClientProvider>,
    );
};
const group = (name: string) => within(screen.getByRole('group', { name }));

describe('what the unit did', () => {
    it('offers the usual answers of a gear, and the rare ones when asked for', () => {
        shown({});
        expect(group('Gear 2').queryByRole('button', { name: 'wrong-ratio' })).toBeNull();
        fireEvent.click(screen.getByRole('button', { name: 'Gear 2: something else' }));
        expect(group('Gear 2').getByRole('button', { name: 'wrong-ratio' })).toBeTruthy();
        expect(group('Gear 1').queryByRole('button', { name: 'wrong-ratio' })).toBeNull();
    });
    it('shows a rare answer that was given without being asked', () => {
        shown({ R: 'locks' });
        expect(group('Gear R').getByRole('button', { name: 'locks' }).getAttribute('aria-pressed')).toBe('true');
        expect(screen.queryByRole('button', { name: 'Gear R: something else' })).toBeNull();
    });
    it('writes an answer with those given before, and takes it back when pressed again', async () => {
        shown({ '1': 'ok', lockup: 'hunts' });
        fireEvent.click(group('Shift 1-2').getByRole('button', { name: 'harsh' }));
        await waitFor(() => expect(sent).toEqual([{ observed: { '1': 'ok', lockup: 'hunts', '1-2': 'harsh' } }]));
        cleanup();
        shown({ '1': 'ok', lockup: 'hunts' });
        fireEvent.click(group('Converter lockup').getByRole('button', { name: 'hunts' }));
        await waitFor(() => expect(sent[1]).toEqual({ observed: { '1': 'ok' } }));
    });
    it('asks shifts between forward gears only, and nothing of who may not say', () => {
        shown({ '2': 'slips' }, { can: () => false });
        expect(screen.queryByRole('group', { name: 'Shift 3-R' })).toBeNull();
        expect(screen.queryAllByRole('button', { name: 'ok' })).toHaveLength(0);
        expect(screen.getByRole('row', { name: /^2 slips/ })).toBeTruthy();
        expect(screen.getByRole('row', { name: /Lock-up not known/ })).toBeTruthy();
    });
});
