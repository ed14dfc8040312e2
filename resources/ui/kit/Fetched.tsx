import type { UseQueryResult } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { isProblem } from '../api/client';
import { Loading } from './basics';

/** What a query brings: while it loads, when it fails with a way on, and when it is there. */
export function Fetched<T>({
    query,
    what,
    children,
}: {
    query: Pick<UseQueryResult<T>, 'data' | 'error' | 'isError' | 'isFetching' | 'refetch'>;
    what: string;
    children: (data: T) => ReactNode;
}) {
    if (query.data !== undefined) return children(query.data);
    if (query.isError) return <Failed error={query.error} what={what} again={() => void query.refetch()} />;
    return <Loading what={what} />;
}

function Failed({ error, what, again }: { error: unknown; what: string; again: () => void }) {
    return (
        <div role="alert" className="border-l-4 border-bad bg-sheet px-4 py-3">
            <p className="font-semibold text-bad">
                {isProblem(error) ? error.detail : `The server does not answer, so ${what} cannot be shown now.`}
            </p>
            <button type="button" className="btn mt-2" onClick={again}>
                Try again
            </button>
        </div>
    );
}
