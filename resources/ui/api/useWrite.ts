import { useRef, useState } from 'react';
import { asProblem, type Problem } from './client';

type Result<T> = { data?: T; error?: unknown; response: Response };
type Headers = { 'Idempotency-Key': string };

const RETRY_AFTER_MS = [1000, 2500, 5000];

/**
 * One write to the server. A lost connection is retried with the same Idempotency-Key, so that nothing happens twice;
 * a refusal comes back as a problem to be shown at its field. What was typed is never touched.
 */
export function useWrite() {
    const [busy, setBusy] = useState(false);
    const [problem, setProblem] = useState<Problem | null>(null);
    const key = useRef<string | null>(null);

    async function write<T>(
        call: (headers: Headers) => Promise<Result<T>>,
        done?: (data: T) => void,
    ): Promise<boolean> {
        if (busy) return false;
        setBusy(true);
        setProblem(null);
        const idempotencyKey = (key.current ??= crypto.randomUUID());
        for (let attempt = 0; ; attempt++) {
            try {
                const { data, error, response } = await call({ 'Idempotency-Key': idempotencyKey });
                key.current = null;
                setBusy(false);
                if (response.ok && data !== undefined) {
                    done?.(data);
                    return true;
                }
                setProblem(asProblem(error, response.status));
                return false;
            } catch {
                const wait = RETRY_AFTER_MS[attempt];
                setProblem({
                    type: 'about:blank',
                    title: 'No connection',
                    status: 0,
                    detail: wait
                        ? 'The connection is lost; trying again. What you typed is kept.'
                        : 'The connection is lost. What you typed is kept; press again when it is back.',
                });
                if (!wait) {
                    setBusy(false);
                    return false;
                }
                await new Promise((r) => setTimeout(r, wait));
            }
        }
    }

    return { busy, problem, setProblem, write };
}
