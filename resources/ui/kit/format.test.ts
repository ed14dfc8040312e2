import { describe, expect, it } from 'vitest';
import { age, day, formatMoney, formatValue, percent } from './format';

describe('formatting', () => {
    it('keeps three places in inches and two in millimetres', () => {
        expect(formatValue(0.025, 'in')).toBe('0.025');
        expect(formatValue(0.03, 'in')).toBe('0.030');
        expect(formatValue(0.0245, 'in')).toBe('0.0245');
        expect(formatValue(2.5, 'mm')).toBe('2.50');
        expect(formatValue(3, 'psi')).toBe('3.0');
    });
    it('writes money, shares, days and ages', () => {
        expect(formatMoney(1234.5)).toBe('1,234.50');
        expect(percent(0.1234, 1)).toBe('12.3 %');
        expect(percent(0.99999, 1)).toBe('over 99.9 %');
        expect(percent(1)).toBe('100 %');
        expect(day('2026-11-24T08:00:00Z')).toBe('2026-11-24');
        expect(day(null)).toBe('');
        expect(age('2026-11-20T00:00:00Z', Date.parse('2026-11-24T00:00:00Z'))).toBe('4 days');
        expect(age('2026-11-23T20:00:00Z', Date.parse('2026-11-24T00:00:00Z'))).toBe('4 h');
        expect(age('2026-11-23T23:50:00Z', Date.parse('2026-11-24T00:00:00Z'))).toBe('just now');
    });
});
