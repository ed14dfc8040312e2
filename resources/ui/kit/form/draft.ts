import { useEffect } from 'react';
import type { FieldValues, UseFormWatch } from 'react-hook-form';

const place = (name: string) => `yard.draft.${name}`;

/** What was typed before a reload, a crash or an empty battery, over what a new form starts with. */
export function remembered<T extends object>(name: string, start: T): T {
    try {
        return { ...start, ...(JSON.parse(localStorage.getItem(place(name)) ?? '{}') as Partial<T>) };
    } catch {
        return start;
    }
}

export function keep(name: string, typed: object): void {
    try {
        localStorage.setItem(place(name), JSON.stringify(typed));
    } catch {
        // A full or forbidden storage costs only the safety copy.
    }
}

export const forget = (name: string) => localStorage.removeItem(place(name));

/** Keeps a form on the tablet while it is typed. */
export function useRemembered<T extends FieldValues>(name: string | undefined, watch: UseFormWatch<T>): void {
    useEffect(() => {
        if (name === undefined) return;
        const watching = watch((typed) => keep(name, typed));
        return () => watching.unsubscribe();
    }, [name, watch]);
}
