import { useEffect, useRef, type ReactNode } from 'react';
import { isProblem } from '../api/client';
import { Loading } from './basics';

type Query = { data: unknown; error: unknown; isError: boolean; refetch: () => unknown };

/** While not everything a view needs is there: it loads, or the first that failed says so with a way on. */
export function Pending({ of, what }: { of: Query[]; what: string }) {
    const failed = of.find((q) => q.isError && q.data === undefined);
    if (failed) return <Failed error={failed.error} what={what} again={() => void failed.refetch()} />;
    return <Loading what={what} />;
}

/** What a query brings: while it loads, when it fails with a way on, and when it is there. */
export function Fetched<T>({
    query,
    what,
    children,
}: {
    query: { data: T | undefined; error: unknown; isError: boolean; refetch: () => unknown };
    what: string;
    children: (data: T) => ReactNode;
}) {
    if (query.data !== undefined) return children(query.data);
    if (query.isError) return <Failed error={query.error} what={what} again={() => void query.refetch()} />;
    return <Loading what={what} />;
}

const AGAIN_MS = 4000;

function Failed({ error, what, again }: { error: unknown; what: string; again: () => void }) {
    const passing = !isProblem(error) || error.status === 0 || error.status >= 500;
    const now = useRef(again);
    useEffect(() => {
        now.current = again;
    });
    // What is only away comes back without a hand.
    useEffect(() => {
        if (!passing) return;
        const clock = setInterval(() => now.current(), AGAIN_MS);
        return () => clearInterval(clock);
    }, [passing]);
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
