import { act, renderHook } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { fieldProblem } from './client';
import { useWrite } from './useWrite';

const ok = { data: { done: true }, response: new Response('{}', { status: 200 }) };

describe('useWrite', () => {
    it('repeats a write after a lost connection under the same key', async () => {
        vi.useFakeTimers();
        const keys: string[] = [];
        const call = vi.fn(async (h: { 'Idempotency-Key': string }) => {
            keys.push(h['Idempotency-Key']);
            if (keys.length < 3) throw new TypeError('network');
            return ok;
        });
        const { result } = renderHook(() => useWrite());
        const done = vi.fn();
        await act(async () => {
            const writing = result.current.write(call, done);
            await vi.runAllTimersAsync();
            await writing;
        });
        expect(keys).toHaveLength(3);
        expect(new Set(keys).size).toBe(1);
        expect(done).toHaveBeenCalledOnce();
        vi.useRealTimers();
    });

    it('shows a refusal at its field and takes a new key next time', async () => {
        const keys: string[] = [];
        const { result } = renderHook(() => useWrite());
        const refuse = async (h: { 'Idempotency-Key': string }) => {
            keys.push(h['Idempotency-Key']);
            return {
                error: {
                    type: '',
                    title: '',
                    status: 422,
                    detail: 'No.',
                    errors: [{ pointer: '/vin', detail: 'Misread.' }],
                },
                response: new Response('', { status: 422 }),
            };
        };
        await act(async () => void (await result.current.write(refuse)));
        expect(fieldProblem(result.current.problem, '/vin')).toBe('Misread.');
        await act(async () => void (await result.current.write(refuse)));
        expect(new Set(keys).size).toBe(2);
    });
});
