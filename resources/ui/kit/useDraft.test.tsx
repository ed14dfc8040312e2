import { act, renderHook } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { useDraft } from './useDraft';

describe('useDraft', () => {
    beforeEach(() => localStorage.clear());

    it('survives a reload and is gone after saving', () => {
        const first = renderHook(() => useDraft('t', { a: '', b: 'x' }));
        act(() => first.result.current[1]({ a: 'typed' }));
        first.unmount();
        const second = renderHook(() => useDraft('t', { a: '', b: 'x' }));
        expect(second.result.current[0]).toEqual({ a: 'typed', b: 'x' });
        act(() => second.result.current[2]());
        second.unmount();
        expect(renderHook(() => useDraft('t', { a: '', b: 'x' })).result.current[0]).toEqual({ a: '', b: 'x' });
    });

    it('starts anew from a damaged copy', () => {
        localStorage.setItem('yard.draft.t', '{broken');
        expect(renderHook(() => useDraft('t', { a: 'start' })).result.current[0]).toEqual({ a: 'start' });
    });
});
