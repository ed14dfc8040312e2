import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { answer, api, isProblem, UNSIGNED, type Schemas } from './client';

type Session = Schemas['Session'];

const KEY = ['session'];
const KEPT = 'yard.session';
const SHIFT_MS = 12 * 3_600_000;

const keep = (session: Session) => localStorage.setItem(KEPT, JSON.stringify({ at: Date.now(), session }));

/**
 * Whose hands the tablet was in when it last heard of the server, for one shift. It opens the bench without a network
 * and nothing else: what is entered waits, and is sent only under a session the server knows.
 */
function keptSession(): Session | null {
    const { at, session } = JSON.parse(localStorage.getItem(KEPT) ?? '{"at":0}') as { at: number; session?: Session };
    return session && Date.now() - at < SHIFT_MS ? session : null;
}

/** The server's answer, or, where nothing answers, what the tablet keeps. */
async function askedOrKept(): Promise<Session & { kept: boolean }> {
    try {
        const session = await answer(api.GET('/session'));
        keep(session);
        return { ...session, kept: false };
    } catch (e) {
        const kept = isProblem(e) && e.status < 500 ? null : keptSession();
        if (!kept) throw e;
        return { ...kept, kept: true };
    }
}

/** Who holds the tablet, and what the badge allows. */
export function useSession() {
    const client = useQueryClient();
    const query = useQuery({
        queryKey: KEY,
        queryFn: async () => {
            const now = await askedOrKept();
            const before = client.getQueryData<Session>(KEY)?.person;
            // A locked tablet keeps its pages as they are under the lock, for the same badge only.
            return now.locked && before?.badge === now.locked.badge ? { ...now, person: before } : now;
        },
        staleTime: 60_000,
        retry: false,
        // A tablet that finds the server away signs nobody out: it asks again until it is back.
        refetchInterval: (q) => (q.state.status === 'error' || q.state.data?.kept ? 3000 : false),
    });
    const person = query.data?.person ?? null;
    const ask = () => client.invalidateQueries({ queryKey: KEY });
    return {
        loading: query.isPending && query.errorUpdateCount === 0,
        failed: query.isError,
        /** Nothing answers; this is who was here last. */
        kept: query.data?.kept ?? false,
        person,
        locked: query.data?.locked ?? null,
        idleMinutes: query.data?.idleMinutes ?? null,
        can: (ability: string) => person?.abilities.includes(ability) ?? false,
        refresh: () => client.invalidateQueries(),
        ask,
        lock: async () => {
            // Without a network there is nothing to lock: nothing is written until the server knows the badge again.
            await api.POST('/session/lock').then(ask, () => undefined);
        },
        leave: async () => {
            const nobody = await answer(api.DELETE('/session'));
            localStorage.removeItem(KEPT);
            // The door first, then everything that was seen: what is on the screen asks for nothing more.
            client.setQueryData(KEY, { ...nobody, kept: false });
            client.removeQueries({ predicate: (q) => q.queryKey[0] !== KEY[0] });
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
