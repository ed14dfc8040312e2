import { api, asProblem, type Card } from '../api/client';
import type { Result } from '../api/useWrite';
import type { Outcome, Waiting } from './offline';

const PROOFS = {
    teardown: '/units/{number}/teardown/operations/{operation}/proofs/{proof}',
    assembly: '/units/{number}/assembly/operations/{operation}/proofs/{proof}',
    dispatch: '/units/{number}/dispatch/operations/{operation}/proofs/{proof}',
    returns: '/units/{number}/returns/operations/{operation}/proofs/{proof}',
} as const;
const MOVES = {
    teardown: '/units/{number}/teardown/operations/{operation}/moves',
    assembly: '/units/{number}/assembly/operations/{operation}/moves',
    dispatch: '/units/{number}/dispatch/operations/{operation}/moves',
    returns: '/units/{number}/returns/operations/{operation}/moves',
} as const;
const RECORDINGS = {
    teardown: '/units/{number}/teardown/operations/{operation}/recordings',
    assembly: '/units/{number}/assembly/operations/{operation}/recordings',
    dispatch: '/units/{number}/dispatch/operations/{operation}/recordings',
    returns: '/units/{number}/returns/operations/{operation}/recordings',
} as const;

/** What the server says when it knows nobody, is busy or away: not an answer to the write itself. */
const NO_ANSWER = new Set([0, 401, 419, 423, 429, 502, 503, 504]);

function form(fields: Record<string, string | Blob>) {
    const data = new FormData();
    for (const [name, value] of Object.entries(fields)) data.set(name, value);
    return () => data;
}

/** One write of the bench, whatever it is, under the key it was given. */
export async function deliver(write: Waiting): Promise<Result<Card>> {
    const { number, operation, bench, at } = write;
    const headers = { 'Idempotency-Key': write.key };
    const path = { number, operation };
    const sent = new Date().toISOString();
    if (write.sound) {
        return api.POST(RECORDINGS[bench], {
            params: { path },
            body: { sound: '' },
            bodySerializer: form({ sound: write.sound, at, sent }),
            headers,
        });
    }
    const stamps = { note: write.note, at, sent };
    if (write.move) {
        return api.POST(MOVES[bench], { params: { path }, body: { move: write.move, ...stamps }, headers });
    }
    let answer = write.answer ?? {};
    if (write.photo) {
        const kept = await keepPhoto(write, write.photo);
        if (!kept.data) return { error: kept.error, response: kept.response };
        if (!write.proof)
            return api.GET('/units/{number}', { params: { path: { number }, query: { sections: bench } } });
        answer = { photo: String(kept.data.id) };
    }
    return api.POST(PROOFS[bench], {
        params: { path: { ...path, proof: write.proof ?? '' } },
        body: { answer, ...stamps },
        headers,
    });
}

/** A picture goes before the proof that names it, under a key of its own. */
const keepPhoto = ({ number, bench, key, place = '' }: Waiting, photo: Blob) =>
    api.POST('/units/{number}/photos', {
        params: { path: { number } },
        body: { photo: '', place },
        bodySerializer: form({ photo, place, station: bench }),
        headers: { 'Idempotency-Key': `${key}-photo` },
    });

/** Sends one waiting write; no network and no session are no answers. */
export async function deliverWaiting(write: Waiting): Promise<Outcome> {
    try {
        const { data, error, response } = await deliver(write);
        if (data !== undefined && response.ok) return { sent: true, card: data };
        const refused = NO_ANSWER.has(response.status) ? null : asProblem(error, response.status).detail;
        return { sent: false, refused: refused ?? null };
    } catch {
        return { sent: false, refused: null };
    }
}
