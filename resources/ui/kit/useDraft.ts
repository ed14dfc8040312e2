import { useEffect, useState } from 'react';

/** Form state that survives a reload, a crash and an empty battery, until it is cleared after saving. */
export function useDraft<T extends object>(name: string, initial: T): [T, (change: Partial<T>) => void, () => void] {
    const storage = `yard.draft.${name}`;
    const [draft, setDraft] = useState<T>(() => {
        try {
            return { ...initial, ...(JSON.parse(localStorage.getItem(storage) ?? '{}') as Partial<T>) };
        } catch {
            return initial;
        }
    });
    useEffect(() => {
        try {
            localStorage.setItem(storage, JSON.stringify(draft));
        } catch {
            // A full or forbidden storage costs only the safety copy.
        }
    }, [storage, draft]);
    const clear = () => {
        localStorage.removeItem(storage);
        setDraft(initial);
    };
    return [draft, (change) => setDraft((d) => ({ ...d, ...change })), clear];
}
