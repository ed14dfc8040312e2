import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { api, fieldProblem } from './client';
import { intentOf, uuid } from './intent';
import { useWrite } from './useWrite';

const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={new QueryClient()}>{children}</QueryClientProvider>
);
const lift = (reason: string) => () =>
    api.POST('/holds/{hold}/lift', { params: { path: { hold: 7 } }, body: { reason } });
const refusal = () =>
    Response.json(
        { type: '', title: '', status: 422, detail: 'No.', errors: [{ pointer: '/reason', detail: 'Say why.' }] },
        { status: 422 },
    );

describe('useWrite', () => {
    const keys: string[] = [];
    let answer: () => Promise<Response> = () => Promise.resolve(Response.json({}));

    beforeEach(() => {
        keys.length = 0;
        vi.stubGlobal('fetch', (r: Request) => {
            keys.push(r.headers.get('Idempotency-Key') ?? '');
            return answer();
        });
    });
    afterEach(() => {
        vi.useRealTimers();
        vi.unstubAllGlobals();
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

    it('knows an upload again by its file, not by its boundary', async () => {
        const upload = (name: string) => {
            const form = new FormData();
            form.set('photo', new File(['x'], name, { lastModified: 1 }));
            return new Request('http://yard/api/photos', { method: 'POST', body: form });
        };
        expect(await intentOf(upload('a.jpg'))).toBe(await intentOf(upload('a.jpg')));
        expect(await intentOf(upload('a.jpg'))).not.toBe(await intentOf(upload('b.jpg')));
    });

    it('makes UUIDs of version 4 without crypto.randomUUID', () => {
        expect(uuid()).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
        expect(new Set(Array.from({ length: 100 }, uuid)).size).toBe(100);
    });
});
