import { describe, expect, it } from 'vitest';
import { suspectSaid } from './suspect';

describe('suspectSaid', () => {
    it('names an element with what it does, and the whole unit by its own words', () => {
        expect(suspectSaid({ element: 'C3', fault: 'weak' })).toBe('C3 weak');
        expect(suspectSaid({ element: 'F1', fault: 'reversed' })).toBe('F1 wrong way round');
        expect(suspectSaid({ element: 'B2', fault: 'stuck-off' })).toBe('B2 dead');
        expect(suspectSaid({ element: 'converter', fault: 'no-drive' })).toBe('Converter');
        expect(suspectSaid({ element: 'converter', fault: 'lock-up' })).toBe('Lock-up clutch');
        expect(suspectSaid({ element: 'converter', fault: 'stator-free' })).toBe('Stator free both ways');
        expect(suspectSaid({ element: 'vehicle', fault: 'outside' })).toBe('The vehicle, not the unit');
        expect(suspectSaid({ element: 'C1+C3', fault: 'weak' })).toBe('C1 and C3 weak together');
        expect(suspectSaid({ element: 'pump', fault: 'worn' })).toBe('Pump');
        expect(suspectSaid({ element: 'sound', fault: 'none' })).toBe('Nothing wrong');
    });
});
