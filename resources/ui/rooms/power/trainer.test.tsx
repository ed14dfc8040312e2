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
import { PackTrainer } from './PackTrainer';

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

it('lays a pack out, asks what is wrong with it and says what it does', async () => {
    seen.sent = [];
    seen.answer = {
        '/api/pack-trainer': {
            round: 'sealed-p',
            name: 'High clutch pack',
            parts: [{ name: 'friction plates', count: 4 }],
            stack: ['wave', 'steel', 'friction', 'friction', 'ring'],
            choices: ['right', 'steel-missing', 'wave-missing'],
        },
        '/api/pack-trainer/verdict': { right: true, was: 'steel-missing', sentence: 'Two frictions rub.' },
    };
    render(
        <QueryClientProvider client={new QueryClient()}>
            <PackTrainer code="RD4" />
        </QueryClientProvider>,
    );
    fireEvent.click(screen.getByRole('button', { name: 'Lay one out' }));
    expect(await screen.findByText('4 × friction plates')).toBeTruthy();
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe(
        'From the piston outwards: wave, steel, friction, friction, ring',
    );
    expect((screen.getByRole('button', { name: 'Say so' }) as HTMLButtonElement).disabled).toBe(true);
    fireEvent.change(screen.getByLabelText('What is wrong with it?'), { target: { value: 'steel-missing' } });
    fireEvent.click(screen.getByRole('button', { name: 'Say so' }));
    expect(await screen.findByText('Two frictions rub.')).toBeTruthy();
    expect(screen.getByText('Right')).toBeTruthy();
    expect(seen.sent[1]).toEqual(['/api/pack-trainer/verdict', { round: 'sealed-p', choice: 'steel-missing' }]);
});
