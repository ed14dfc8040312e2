// @vitest-environment node
import { execFileSync } from 'node:child_process';
import { expect, it } from 'vitest';
import { validate } from 'vin-validator';

/** A general VIN package as a second opinion on the check digit (development only); the calculator runs as its own program. */
it('vin.check agrees with a VIN package of somebody else', () => {
    const letters = 'ABCDEFGHJKLMNPRSTUVWXYZ0123456789';
    const years = 'ABCDEFGHJKLMNPRSTVWXY123456789';
    let seed = 99;
    const next = (n: number) => (seed = (seed * 48271) % 2147483647) % n;
    let [valid, invalid] = [0, 0];
    for (let i = 0; i < 60; i++) {
        const chars = Array.from({ length: 17 }, (_, k) =>
            k === 0 ? '45'[next(2)]! : k === 9 ? years[next(years.length)]! : letters[next(letters.length)]!,
        );
        const ours = JSON.parse(
            execFileSync('php', ['core/bin/calc', 'vin.check'], {
                input: JSON.stringify({ vin: chars.join('') }),
            }).toString(),
        ) as { valid: boolean; checkDigit: { expected: string } };
        expect(validate(chars.join('')), chars.join('')).toBe(ours.valid);
        chars[8] = ours.checkDigit.expected;
        expect(validate(chars.join('')), chars.join('')).toBe(true);
        valid++;
        chars[8] = ours.checkDigit.expected === '1' ? '2' : '1';
        expect(validate(chars.join('')), chars.join('')).toBe(false);
        invalid++;
    }
    expect([valid, invalid]).toEqual([60, 60]);
}, 60_000);
