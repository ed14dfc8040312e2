import { answer, api } from '../api/client';
import type { Choices } from '../kit/Finder';

/** Customers for a Finder. */
export const CUSTOMERS = {
    of: 'customers',
    find: async (typed: string): Promise<Choices> => {
        const found = await answer(api.GET('/customers', { params: { query: { q: typed } } }));
        return {
            options: found.customers.map((c) => ({ value: c.code, text: `${c.name}, ${c.city}` })),
            more: found.more,
        };
    },
};
