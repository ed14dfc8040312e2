import { useMutation } from '@tanstack/react-query';
import { asProblem, isProblem, type Problem } from './client';

export type Result<T> = { data?: T; error?: unknown; response: Response };
type Intent = { call: () => Promise<Result<unknown>>; done?: (data: unknown) => void };

const RETRY_AFTER_MS = [1000, 2500, 5000];

const lost = (detail: string): Problem => ({ type: 'about:blank', title: 'No connection', status: 0, detail });

async function send({ call }: Intent): Promise<unknown> {
    const { data, error, response } = await call();
    if (response.ok && data !== undefined) return data;
    throw asProblem(error, response.status);
}

/**
 * One write to the server. A lost connection is tried again with the key of the same intent (intent.ts), so that
 * nothing happens twice; a refusal comes back as a problem to be shown at its field. What was typed is never touched.
 */
export function useWrite() {
    const mutation = useMutation<unknown, unknown, Intent>({
        mutationFn: send,
        networkMode: 'always',
        retry: (failures, error) => !isProblem(error) && failures < RETRY_AFTER_MS.length,
        retryDelay: (failures) => RETRY_AFTER_MS[failures] ?? 0,
        onSuccess: (data, { done }) => done?.(data),
    });
    const failure = mutation.isPending ? mutation.failureReason : mutation.error;

    return {
        busy: mutation.isPending,
        problem: problemOf(failure, mutation.isPending),
        write: async <T>(call: () => Promise<Result<T>>, done?: (data: T) => void): Promise<boolean> => {
            if (mutation.isPending) return false;
            const intent: Intent = { call, ...(done && { done: (data) => done(data as T) }) };
            return mutation.mutateAsync(intent).then(
                () => true,
                () => false,
            );
        },
    };
}

function problemOf(failure: unknown, trying: boolean): Problem | null {
    if (failure === null || failure === undefined) return null;
    if (isProblem(failure)) return failure;
    return trying
        ? lost('The connection is lost; trying again. What you typed is kept.')
        : lost('The connection is lost. What you typed is kept; press again when it is back.');
}
