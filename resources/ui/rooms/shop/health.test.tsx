import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';

const seen = vi.hoisted(() => ({ vitals: [] as object[] }));
vi.mock('openapi-fetch', async (original) => {
    const real = (await original()) as { default: (o: object) => unknown };
    const fetch = async () => Response.json({ at: '2026-11-27T02:00:00Z', vitals: seen.vitals });
    return { ...real, default: (o: object) => real.default({ ...o, baseUrl: 'http://yard.test/api', fetch }) };
});

import { Health } from './Health';

const mount = () =>
    render(
        <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
            <Health />
        </QueryClientProvider>,
    );
const GOOD = { name: 'Disk', state: 'good', says: '9,000 MB free.', mend: '' };

afterEach(cleanup);

describe('the health of the shop', () => {
    it('says that nothing needs anybody', async () => {
        seen.vitals = [GOOD];
        mount();
        expect(await screen.findByText('Everything the shop stands on works.')).toBeTruthy();
        expect(within(screen.getByRole('region', { name: 'Works' })).getByText('Disk')).toBeTruthy();
    });

    it('puts first what is wrong, in words, with what to do', async () => {
        seen.vitals = [
            { name: 'Imports', state: 'bad', says: 'Does not run: packs wait.', mend: 'Run the doctor.' },
            { name: 'Last backup', state: 'weak', says: 'None.', mend: 'Make one.' },
            GOOD,
        ];
        mount();
        const ailing = within(await screen.findByRole('region', { name: 'Needs somebody' }));
        expect(ailing.getAllByRole('listitem').map((li) => li.textContent)).toEqual([
            'Imports▲WrongDoes not run: packs wait.Run the doctor.',
            expect.stringMatching(/^Last backup.Look at itNone\.Make one\.$/),
        ]);
        expect(ailing.queryByText('Disk')).toBeNull();
    });
});
