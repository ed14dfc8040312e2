import { act, cleanup, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Fetched, Pending } from './Fetched';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => {
    cleanup();
    vi.useRealTimers();
});

const failing = (status: number, detail: string, refetch: () => unknown) => ({
    data: undefined as string | undefined,
    error: { type: 'about:blank', title: '', status, detail },
    isError: true,
    refetch,
});
const later = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

describe('what is fetched and does not come', () => {
    it('says the sentence of the server and asks again by itself until it is there', async () => {
        const refetch = vi.fn();
        const query = failing(503, 'The database does not answer.', refetch);
        const { rerender } = render(
            <Fetched query={query} what="the list">
                {(data) => <p>{data}</p>}
            </Fetched>,
        );
        expect(screen.getByRole('alert').textContent).toContain('The database does not answer.');
        await later(4100);
        await later(4100);
        expect(refetch).toHaveBeenCalledTimes(2);
        rerender(
            <Fetched query={{ ...query, data: 'all units', isError: false }} what="the list">
                {(data) => <p>{data}</p>}
            </Fetched>,
        );
        expect(screen.getByText('all units')).toBeTruthy();
        await later(9000);
        expect(refetch).toHaveBeenCalledTimes(2);
    });

    it('is not asked again where the answer is no', async () => {
        const refetch = vi.fn();
        render(<Pending of={[failing(404, 'There is nothing under this number.', refetch)]} what="the unit" />);
        expect(screen.getByRole('alert').textContent).toContain('There is nothing under this number.');
        await later(20_000);
        expect(refetch).not.toHaveBeenCalled();
    });

    it('names what is missing when nothing answers at all', async () => {
        const refetch = vi.fn();
        const query = { ...failing(0, '', refetch), error: new TypeError('failed to fetch') };
        render(<Pending of={[query]} what="the yard" />);
        expect(screen.getByRole('alert').textContent).toContain('so the yard cannot be shown now');
        await later(4100);
        expect(refetch).toHaveBeenCalledOnce();
    });
});
