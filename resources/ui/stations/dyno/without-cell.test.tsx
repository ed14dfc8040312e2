import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

const seen = vi.hoisted(() => ({ fetch: null as null | ((r: Request) => Promise<Response>) }));
vi.mock('openapi-fetch', async (load) => {
    const real = await load<typeof import('openapi-fetch')>();
    const fetch = (r: Request) => seen.fetch?.(r) ?? Promise.reject(new Error('no answer'));
    return { ...real, default: (o: object) => real.default({ ...o, baseUrl: 'http://yard.test/api', fetch }) };
});

import { WithoutCell } from './WithoutCell';

type Props = Parameters<typeof WithoutCell>[0];
const tested = {
    ...{ id: 4, why: 'No adapter.', verdict: 'fail', suspect: 'C3', by: 'Mara Quill', on: '2026-11-28' },
    pressures: [{ gear: '1', typed: '60 psi', kpa: 414, min: 900, max: 1100, inside: false }],
    road: [{ code: 'park', name: 'Park holds', right: true, note: 'on 12 %' }],
};
let sent: unknown[];

const shown = (change: { can?: () => boolean; tests?: object[] } = {}) => {
    const withoutCell = {
        gears: [{ gear: '1', min: 900, max: 1100 }],
        road: [
            { code: 'park', name: 'Park holds' },
            { code: 'hot', name: 'Hot as cold' },
        ],
        tests: change.tests ?? [],
    };
    const section = { withoutCell, elements: [{ id: 'C3', name: 'High clutch' }] };
    const card = { coreTag: 'C-1', station: 'dyno' };
    // Only what the panel reads of a card.
    const props = { section, card, onCard: vi.fn(), can: change.can ?? (() => true) } as unknown as Props;
    return render(
        <QueryClientProvider client={new QueryClient()}>
            <MemoryRouter>
                <WithoutCell {...props} />
            </MemoryRouter>
        </QueryClientProvider>,
    );
};

beforeEach(() => {
    sent = [];
    seen.fetch = async (r) => {
        sent.push(await r.json());
        const wrong = { pointer: '/road/hot', detail: 'Say how it was: Hot as cold.' };
        return Response.json({ status: 422, title: 'No', detail: wrong.detail, errors: [wrong] }, { status: 422 });
    };
});
afterEach(cleanup);

describe('tested without a cell', () => {
    it('presets nothing, sends what was said, and marks what was not', async () => {
        shown();
        expect(screen.queryAllByRole('radio', { checked: true })).toHaveLength(0);
        fireEvent.change(screen.getByLabelText('Why it is not run in the cell'), { target: { value: 'No adapter.' } });
        fireEvent.change(screen.getByLabelText('Line in 1, full (psi)'), { target: { value: '145' } });
        fireEvent.click(screen.getAllByRole('radio', { name: 'right', hidden: true })[0]!);
        fireEvent.change(screen.getByLabelText('Note on: Park holds'), { target: { value: 'on 12 %' } });
        fireEvent.click(screen.getByText('Release it, not dyno-tested'));
        await waitFor(() => expect(sent).toHaveLength(1));
        expect(sent[0]).toEqual({
            why: 'No adapter.',
            pressures: { '1': '145' },
            road: { park: { right: true, note: 'on 12 %' } },
            suspect: '',
        });
        expect((await screen.findByText('Say how it was: Hot as cold.')).getAttribute('role')).toBe('alert');
    });
    it('names the suspect to send it back, and shows what was found before', () => {
        shown({ tests: [tested] });
        fireEvent.change(screen.getByLabelText('Back to the bench for'), { target: { value: 'C3' } });
        expect(screen.getByText('Send it back')).toBeTruthy();
        expect(screen.getByText('Back for C3')).toBeTruthy();
        expect(screen.getByText('1: 60 psi')).toBeTruthy();
        expect(screen.getByText('Outside or wrong: 1.')).toBeTruthy();
        expect(screen.getByText('Park holds: on 12 %')).toBeTruthy();
    });
    it('is no way past the cell for who may not approve', () => {
        shown({ can: () => false });
        expect(screen.queryByText(/No cell or no adapter/)).toBeNull();
    });
});
