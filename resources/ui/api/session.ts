import { useQuery, useQueryClient } from '@tanstack/react-query';
import { answer, api } from './client';

/** Who holds the tablet, and what the badge allows. */
export function useSession() {
    const query = useQuery({ queryKey: ['session'], queryFn: () => answer(api.GET('/session')), staleTime: 60_000 });
    const client = useQueryClient();
    const person = query.data?.person ?? null;
    return {
        loading: query.isPending,
        failed: query.isError,
        person,
        can: (ability: string) => person?.abilities.includes(ability) ?? false,
        refresh: () => client.invalidateQueries(),
        leave: async () => {
            await api.DELETE('/session');
            client.clear();
        },
    };
}
