import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { answer, api, UNSIGNED, type Schemas } from './client';

const KEY = ['session'];

/** Who holds the tablet, and what the badge allows. */
export function useSession() {
    const client = useQueryClient();
    const query = useQuery({
        queryKey: KEY,
        queryFn: async () => {
            const now = await answer(api.GET('/session'));
            const before = client.getQueryData<Schemas['Session']>(KEY)?.person;
            // A locked tablet keeps its pages as they are under the lock, for the same badge only.
            return now.locked && before?.badge === now.locked.badge ? { ...now, person: before } : now;
        },
        staleTime: 60_000,
        // A tablet that finds the server away signs nobody out: it asks again until it is back.
        refetchInterval: (q) => (q.state.status === 'error' ? 3000 : false),
    });
    const person = query.data?.person ?? null;
    const ask = () => client.invalidateQueries({ queryKey: KEY });
    return {
        loading: query.isPending,
        failed: query.isError,
        person,
        locked: query.data?.locked ?? null,
        idleMinutes: query.data?.idleMinutes ?? null,
        can: (ability: string) => person?.abilities.includes(ability) ?? false,
        refresh: () => client.invalidateQueries(),
        ask,
        lock: async () => {
            await api.POST('/session/lock');
            await ask();
        },
        leave: async () => {
            await api.DELETE('/session');
            client.clear();
        },
    };
}

const TOUCHES = ['pointerdown', 'keydown', 'wheel'] as const;
const LOOK_EVERY_MS = 5_000;

/** Locks the tablet when nobody has touched it for so long; asks anew who is signed in when the server says nobody. */
export function useIdleLock(): void {
    const { person, locked, idleMinutes, lock, ask } = useSession();
    const watching = person !== null && locked === null && idleMinutes !== null;
    useEffect(() => {
        const unsigned = () => void ask();
        addEventListener(UNSIGNED, unsigned);
        return () => removeEventListener(UNSIGNED, unsigned);
    });
    useEffect(() => {
        if (!watching) return;
        let touched = Date.now();
        const touch = () => (touched = Date.now());
        // A tablet that slept finds the time gone when it wakes.
        const clock = setInterval(() => {
            if (Date.now() - touched >= idleMinutes * 60_000) void lock();
        }, LOOK_EVERY_MS);
        TOUCHES.forEach((t) => addEventListener(t, touch, { passive: true }));
        return () => {
            clearInterval(clock);
            TOUCHES.forEach((t) => removeEventListener(t, touch));
        };
        // eslint-disable-next-line react-hooks/exhaustive-deps -- lock is new with each drawing and does the same
    }, [watching, idleMinutes]);
}
