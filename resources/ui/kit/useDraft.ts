import { useEffect, useState } from 'react';
import { forget, keep, remembered } from './form/draft';

/** State that survives a reload, a crash and an empty battery, until it is cleared after saving. */
export function useDraft<T extends object>(name: string, initial: T): [T, (change: Partial<T>) => void, () => void] {
    const [draft, setDraft] = useState<T>(() => remembered(name, initial));
    useEffect(() => keep(name, draft), [name, draft]);
    const clear = () => {
        forget(name);
        setDraft(initial);
    };
    return [draft, (change) => setDraft((d) => ({ ...d, ...change })), clear];
}
