import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { api, fieldProblem } from './client';
import { useWrite } from './useWrite';

const client = new QueryClient();
const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
);
const lift = (reason: string) => () =>
    api.POST('/holds/{hold}/lift', { params: { path: { hold: 7 } }, body: { reason } });
const refusal = () =>
    Response.json(
        { type: '', title: '', status: 422, detail: 'No.', errors: [{ pointer: '/reason', detail: 'Say why.' }] },
        { status: 422 },
    );

// The client keeps the fetch it finds when it is made; the calls go through the one of the window.
const seen = vi.hoisted(() => ({ fetch: null as null | ((r: Request) => Promise<Response>) }));
vi.mock('openapi-fetch', async (original) => {
    const real = (await original()) as { default: (o: object) => unknown };
    return {
        ...real,
        default: (o: object) =>
            real.default({ ...o, baseUrl: 'http://yard.test/api', fetch: (r: Request) => seen.fetch?.(r) }),
    };
});

const keys: string[] = [];
let answer: () => Promise<Response> = () => Promise.resolve(Response.json({}));

describe('useWrite', () => {
    beforeEach(() => {
        keys.length = 0;
        seen.fetch = (r) => {
            keys.push(r.headers.get('Idempotency-Key') ?? '');
            return answer();
        };
    });
    afterEach(() => {
        vi.useRealTimers();
    });

    it('repeats a write after a lost connection under the same key', async () => {
        vi.useFakeTimers();
        answer = () =>
            keys.length < 3 ? Promise.reject(new TypeError('network')) : Promise.resolve(Response.json({}));
        const { result } = renderHook(() => useWrite(), { wrapper });
        const done = vi.fn();
        await act(async () => {
            const writing = result.current.write(lift('found it'), done);
            await vi.runAllTimersAsync();
            expect(await writing).toBe(true);
        });
        expect(keys).toHaveLength(3);
        expect(new Set(keys).size).toBe(1);
        expect(done).toHaveBeenCalledOnce();
    });

    it('keeps the key of a write that died for the same intent and gives another one its own', async () => {
        vi.useFakeTimers();
        answer = () => Promise.reject(new TypeError('network'));
        const { result } = renderHook(() => useWrite(), { wrapper });
        await act(async () => {
            const writing = result.current.write(lift('found it'));
            await vi.runAllTimersAsync();
            expect(await writing).toBe(false);
        });
        expect(result.current.problem?.detail).toContain('press again');
        answer = () => Promise.resolve(Response.json({}));
        vi.useRealTimers();
        await act(async () => void (await result.current.write(lift('another reason'))));
        await act(async () => void (await result.current.write(lift('found it'))));
        await act(async () => void (await result.current.write(lift('found it'))));
        const [died, other, again, later] = [keys[0], keys.at(-3), keys.at(-2), keys.at(-1)];
        expect(other).not.toBe(died);
        expect(again).toBe(died);
        expect(later).not.toBe(died);
    });

    it('shows a refusal at its field and takes a new key next time', async () => {
        answer = () => Promise.resolve(refusal());
        const { result } = renderHook(() => useWrite(), { wrapper });
        await act(async () => void (await result.current.write(lift(''))));
        await waitFor(() => expect(fieldProblem(result.current.problem, '/reason')).toBe('Say why.'));
        await act(async () => void (await result.current.write(lift(''))));
        expect(new Set(keys).size).toBe(2);
    });
});
