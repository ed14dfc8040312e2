// @vitest-environment node
import { describe, expect, it } from 'vitest';
import { intentOf, keyFor, settle, uuid } from './intent';

describe('intents', () => {
    it('knows an upload again by its file, not by its boundary', async () => {
        const upload = (name: string) => {
            const form = new FormData();
            form.set('photo', new File(['x'], name, { lastModified: 1 }));
            return new Request('http://yard/api/photos', { method: 'POST', body: form });
        };
        expect(await intentOf(upload('a.jpg'))).toBe(await intentOf(upload('a.jpg')));
        expect(await intentOf(upload('a.jpg'))).not.toBe(await intentOf(upload('b.jpg')));
    });

    it('makes UUIDs of version 4 without crypto.randomUUID', () => {
        expect(uuid()).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
        expect(new Set(Array.from({ length: 100 }, uuid)).size).toBe(100);
    });

    it('keeps the key until there is a definite answer', () => {
        const key = keyFor('POST /a');
        settle('POST /a', 503);
        expect(keyFor('POST /a')).toBe(key);
        settle('POST /a', 409);
        expect(keyFor('POST /a')).not.toBe(key);
    });
});
