import { useQueryClient } from '@tanstack/react-query';
import type { Schemas } from '../../api/client';

export type Known = Schemas['TeardownAccount'];
export type Of = { number: string; can: (ability: string) => boolean };

export const accountKey = (number: string) => ['teardown-account', number];
export const money = (n: number) => n.toFixed(2);

/** Keeps what a write answers as what is known of the unit. */
export function useKnown(number: string) {
    const client = useQueryClient();
    return (known: Known) => client.setQueryData(accountKey(number), known);
}
