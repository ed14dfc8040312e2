import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import { Found, marksOf, type Analysis } from './Found';

afterEach(cleanup);

const shift = { from: '1', to: '2', start_s: 2, end_s: 2.3, duration_s: 0.3, flare_rpm: 40 };
const analysis: Analysis = {
    shifts: [{ ...shift, confidence: { flare_rpm: [31.2, 48.8], duration_s: [0.291, 0.309] } }],
    slips: [{ gear: '3', from_s: 7.25, to_s: 8, slip_rpm: 61.4, slip_pct: 3.07 }],
    unmeasured: [{ from: '2', to: '3', from_s: 5, to_s: 6, reason: 'It falls into a gap of the recording.' }],
};

describe('what a trace says beside the checks', () => {
    it('names slip, what was not measured and why, and what the noise leaves open', () => {
        render(<Found analysis={analysis} />);
        const items = screen.getAllByRole('listitem').map((i) => i.textContent);
        expect(items[0]).toContain('slip in gear 3');
        expect(items[0]).toContain('61 rev/min, 3.1 %, from 7.25 to 8.00 s');
        expect(items[1]).toContain('2-3 not measured');
        expect(items[1]).toContain('gap of the recording');
        expect(items[2]).toContain('shift times ±0.009 s, flares ±9 rev/min');
    });
    it('says nothing of a run that is not analysed, or was before these were known', () => {
        const { container, rerender } = render(<Found analysis={null} />);
        expect(container.textContent).toBe('');
        rerender(<Found analysis={{ shifts: [shift] }} />);
        expect(container.textContent).toBe('');
    });
    it('marks shifts and slips on the trace', () => {
        expect(marksOf(analysis).map((m) => [m.text, m.start_s, m.end_s])).toEqual([
            ['1-2', 2, 2.3],
            ['slip 3', 7.25, 8],
        ]);
        expect(marksOf(undefined)).toEqual([]);
    });
});
