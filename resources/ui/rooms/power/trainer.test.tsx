import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';

const seen = vi.hoisted(() => ({
    sent: [] as [string, unknown][],
    answer: {} as Record<string, unknown>,
}));
vi.mock('openapi-fetch', async (load) => {
    const real = await load<typeof import('openapi-fetch')>();
    const fetch = async (r: Request) => {
        const path = new URL(r.url).pathname;
        seen.sent.push([path, await r.json()]);
        return Response.json(seen.answer[path]);
    };
    return { ...real, default: (o: object) => real.default({ ...o, baseUrl: 'http://yard.test/api', fetch }) };
});

import { FaultTrainer } from './FaultTrainer';

const CAUSES = [
    { element: 'C1', fault: 'weak' },
    { element: 'pump', fault: 'worn' },
];
const LOOKS = [
    { kind: 'gear', what: '1', effort: 1 },
    { kind: 'pressure', what: 'C1', effort: 4 },
];
const SEEN = [{ kind: 'gear', what: '1', state: 'slips', effort: 1 }];

afterEach(cleanup);

it('deals a hidden fault, shows what a look showed, and holds the verdict against the engine', async () => {
    seen.answer = {
        '/api/fault-trainer': { round: 'sealed-1', seen: [], effort: 0, looks: LOOKS, causes: CAUSES },
        '/api/fault-trainer/looks': { round: 'sealed-2', seen: SEEN, effort: 1 },
        '/api/fault-trainer/verdict': {
            round: 'sealed-2',
            seen: SEEN,
            effort: 1,
            fault: { element: 'C1', fault: 'weak' },
            right: false,
            alike: true,
            posterior: 0.4,
            leader: { element: 'pump', fault: 'worn' },
        },
    };
    render(
        <QueryClientProvider client={new QueryClient()}>
            <FaultTrainer code="RD4" />
        </QueryClientProvider>,
    );
    fireEvent.click(screen.getByRole('button', { name: 'Deal one fault' }));
    fireEvent.click(await screen.findByRole('button', { name: /drive gear 1/ }));
    expect(await screen.findByText('slips')).toBeTruthy();
    expect(screen.queryByRole('button', { name: /drive gear 1/ }), 'once is enough').toBeNull();
    const cause = screen.getByLabelText('The cause');
    expect(within(cause).getByText('Pump')).toBeTruthy();
    expect((screen.getByRole('button', { name: 'That is it' }) as HTMLButtonElement).disabled).toBe(true);
    fireEvent.change(cause, { target: { value: 'pump worn' } });
    fireEvent.click(screen.getByRole('button', { name: 'That is it' }));
    expect(await screen.findByText(/As good as right/)).toBeTruthy();
    expect(screen.getByText('C1 weak', { selector: 'strong' })).toBeTruthy();
    expect(seen.sent).toEqual([
        ['/api/fault-trainer', { family: 'RD4', two: false }],
        ['/api/fault-trainer/looks', { round: 'sealed-1', kind: 'gear', what: '1' }],
        ['/api/fault-trainer/verdict', { round: 'sealed-2', element: 'pump', fault: 'worn' }],
    ]);
});
