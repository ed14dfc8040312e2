import createClient from 'openapi-fetch';
import { intentOf, keyFor, settle } from './intent';
import type { components, paths } from './schema.gen';

export type Schemas = components['schemas'];
export type Card = Schemas['RouteCard'];
export type Problem = Schemas['Problem'];

const cookie = (name: string) =>
    document.cookie
        .split('; ')
        .find((c) => c.startsWith(name + '='))
        ?.slice(name.length + 1);

export const api = createClient<paths>({ baseUrl: '/api', headers: { Accept: 'application/json' } });

/** Said on the window when the server knows nobody behind a request. */
export const UNSIGNED = 'yard:unsigned';

const intents = new WeakMap<Request, string>();

api.use({
    async onRequest({ request }) {
        const token = cookie('XSRF-TOKEN');
        if (token) request.headers.set('X-XSRF-TOKEN', decodeURIComponent(token));
        request.headers.set('X-Tablet-Time', new Date().toISOString());
        if (request.method !== 'GET' && !request.headers.has('Idempotency-Key')) {
            const intent = await intentOf(request);
            request.headers.set('Idempotency-Key', keyFor(intent));
            intents.set(request, intent);
        }
        return request;
    },
    onResponse({ request, response }) {
        const intent = intents.get(request);
        if (intent !== undefined) settle(intent, response.status);
        // 419: the session, and with it the token every write carries, ran out.
        if (response.status === 401 || response.status === 419) dispatchEvent(new Event(UNSIGNED));
    },
});

/** The answer or its problem document, thrown so that a query can show it. */
export async function answer<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
    const { data, error, response } = await call;
    if (data !== undefined && response.ok) return data;
    throw asProblem(error, response.status);
}

/** The route card by tag or serial: header, holds and the sections named. */
export const fetchCard = (number: string, sections: string[]) =>
    answer(api.GET('/units/{number}', { params: { path: { number }, query: { sections: sections.join(',') } } }));

/** What was thrown, as a problem document to show. */
export const problemOf = (thrown: unknown): Problem => (isProblem(thrown) ? thrown : asProblem(null, 0));

export function asProblem(error: unknown, status: number): Problem {
    if (typeof error === 'object' && error !== null && 'detail' in error) return error as Problem;
    return {
        type: 'about:blank',
        title: 'No answer',
        status,
        detail: 'The server did not answer as expected. Try again in a moment.',
    };
}

export const isProblem = (e: unknown): e is Problem =>
    typeof e === 'object' && e !== null && 'detail' in e && 'status' in e;

/** The sentence for one field, found by its JSON pointer. */
export const fieldProblem = (problem: Problem | null, pointer: string) =>
    problem?.errors?.find((e) => e.pointer === pointer)?.detail;
