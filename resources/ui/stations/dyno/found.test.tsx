import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import { CheckTable, Deciding, HeldAgainst, rowsOf } from './CheckTable';
import { Found, marksOf, Suspects, type Analysis } from './Found';
import { type Course, Now, stepText } from './Now';

afterEach(cleanup);

const shift = { from: '1', to: '2', start_s: 2, end_s: 2.3, duration_s: 0.3, flare_rpm: 40 };
const analysis: Analysis = {
    shifts: [{ ...shift, confidence: { flare_rpm: [31.2, 48.8], duration_s: [0.291, 0.309] } }],
    slips: [{ gear: '3', from_s: 7.25, to_s: 8, slip_rpm: 61.4, slip_pct: 3.07 }],
    unmeasured: [{ from: '2', to: '3', from_s: 5, to_s: 6, reason: 'It falls into a gap of the recording.' }],
    warnings: [{ code: 'cut', message: 'It was cut at 200 s, where no gear stood.' }],
};

describe('what a trace says beside the checks', () => {
    it('names slip, what was not measured and why, and what the noise leaves open', () => {
        render(<Found analysis={analysis} />);
        const items = screen.getAllByRole('listitem').map((i) => i.textContent);
        expect(items[0]).toContain('slip in gear 3');
        expect(items[0]).toContain('61 rev/min, 3.1 %, from 7.25 to 8.00 s');
        expect(items[1]).toContain('It was cut at 200 s, where no gear stood.');
        expect(items[2]).toContain('2-3 not measured');
        expect(items[2]).toContain('gap of the recording');
        expect(items[3]).toContain('shift times ±0.009 s, flares ±9 rev/min');
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

describe('numbers beside others', () => {
    const check = (where: string, value: number | null) => ({
        ...{ check: 'Shift time', where, value, unit: 's', min: 0.1, max: 0.6, pass: value !== null },
        against: 'limits' as const,
    });
    const cells = (name: RegExp) =>
        [...screen.getByRole('row', { name }).querySelectorAll('td')].map((c) => c.textContent);

    it('shows where good runs lie and what the run before gave, each by check and place', () => {
        const good = [{ check: 'Shift time', where: '1-2', low: 0.211, high: 0.2604, runs: 12 }];
        const before = new Map([['Shift time, 1-2', check('1-2', 0.3)]]);
        const readings = [{ check: 'Shift time', where: '1-2', value: 0.2424 }];
        const reference = { run: 3, serial: 'VY-26-0007', at: '2026-11-28T07:04:00Z', verdict: 'pass', readings };
        render(<CheckTable of={rowsOf([check('1-2', 0.25), check('2-3', null)])} {...{ before, good, reference }} />);
        const heads = screen.getAllByRole('columnheader').map((h) => h.textContent);
        expect(heads).toEqual(expect.arrayContaining(['Good runs', 'Reference unit']));
        expect(cells(/1-2/).slice(2, 6)).toEqual(['0.250 s', '0.300 s', '0.211 to 0.260', '0.242 s']);
        expect(cells(/2-3/).slice(2, 6)).toEqual(['–', '–', '–', '–']);
    });
    it('holds one number against two limits in one row', () => {
        const family = { ...check('1-2', 0.5), min: null, max: 0.9 };
        const window = { ...check('1-2', 0.5), min: 0.2, max: 0.4, pass: false, against: 'good units' as const };
        const rows = rowsOf([family, window, check('2-3', 0.3)]);
        expect(rows.map((r) => [r.where, r.limits, r.pass])).toEqual([
            ['1-2', 'to 0.9 and good units from 0.2 to 0.4', false],
            ['2-3', 'from 0.1 to 0.6', true],
        ]);
    });
    it('shows the number that decides: furthest outside, or else nearest to its limit', () => {
        const outside = { ...check('3-4', 1.2), pass: false };
        const { container, rerender } = render(<Deciding of={rowsOf([check('1-2', 0.58), outside])} />);
        expect(container.textContent).toBe('1.200 sShift time, 3-4furthest outside: from 0.1 to 0.6');
        rerender(<Deciding of={rowsOf([check('1-2', 0.58), check('2-3', 0.3)])} />);
        expect(container.textContent).toBe('0.580 sShift time, 1-2nearest to its limit: from 0.1 to 0.6');
        const window = { ...outside, min: 0.2, max: 0.4, against: 'good units' as const };
        rerender(<Deciding of={rowsOf([{ ...outside, max: 1.5, pass: true }, window])} />);
        expect(container.textContent).toContain('furthest outside: good units from 0.2 to 0.4');
        rerender(<Deciding of={rowsOf([outside, check('2-3', null)])} />);
        expect(container.textContent).toContain('not measured');
    });
    it('has no column for good runs where there are too few', () => {
        render(<CheckTable of={rowsOf([check('1-2', 0.25)])} before={undefined} good={[]} reference={null} />);
        expect(screen.queryByText('Good runs')).toBeNull();
        expect(screen.queryByText('Run before')).toBeNull();
        expect(screen.queryByText('Reference unit')).toBeNull();
    });
});

describe('what good units a run is held against', () => {
    it('counts the numbers where good units are built alike, and else says what is to be looked at by hand', () => {
        const { container, rerender } = render(<HeldAgainst program={{ windows: { of: 'built', count: 84 } }} />);
        expect(container.textContent).toBe('84 numbers are held against good units built alike.');
        const none = { windows: { of: 'family' as const, count: 3 } };
        rerender(<HeldAgainst program={none} />);
        expect(container.textContent).toContain('No good units with this hardware are on record');
        expect(container.textContent).toContain('look at them before you judge');
        rerender(<HeldAgainst program={none} purpose="foreign" />);
        expect(container.textContent).toBe('');
    });
});

describe('the cell while it runs', () => {
    const steps = [
        { t: 0, gear: 'P', throttle: 0 },
        { t: 9, gear: '1', hold: 'on' },
        { t: 12, throttle: 0.3, load: 0.43, hold: 'off' },
    ];
    // Time, input, turbine, output, both torques, line, applied, lock-up, lube, oil, cooler, flow.
    const row = [10, 750, 120, -0.3, 40, 0, 512, 300, 0, 90, 61, 55, 3];
    it('shows what is read from the door and what comes next', () => {
        render(<Now row={row} program={{ steps, limits: { line_kpa: { max: 1900 } } }} />);
        const shown = screen.getAllByRole('definition').map((d) => d.textContent);
        expect(shown).toEqual(['1 ', '120 rev/min', '0 rev/min', '512 kPaat most 1900 kPa', '61 °C']);
        expect(screen.getByText('throttle 30 %, load 43 %, output let go')).toBeTruthy();
        expect(screen.getByText('2 s')).toBeTruthy();
    });
    it('says what is over its limit, and how much lock-up slips while it is asked for', () => {
        const locked = [...steps, { t: 9.5, lockup: 'on' as const }];
        const limits = { line_kpa: { max: 500 }, lockupSlip_rpm: { max: 30 } };
        render(<Now row={row} program={{ steps: locked, limits }} />);
        const shown = screen.getAllByRole('definition').map((d) => d.textContent);
        expect(shown[3]).toBe('512 kPa▲ over 500 kPa');
        expect(shown[5]).toBe('630 rev/min▲ over 30 rev/min');
    });
    it('says what the program waits for, and counts what follows from there', () => {
        const until = { channel: 'temp_degc', atLeast: 55, within_s: 120 };
        const program = { steps: [steps[0]!, { t: 3, until }, { t: 9, gear: '1' }], limits: {} };
        const shown = (course?: Course) =>
            render(<Now row={row} program={program} {...(course ? { course } : {})} />).container.textContent;
        expect(shown({ late_s: 0, waits: 1 })).toContain('Waits until the oil is at least 55 °C');
        cleanup();
        expect(shown({ late_s: 5, waits: null })).toContain('Next in 4 s: gear 1');
        cleanup();
        expect(shown()).toContain('The last step of the program.');
    });
    it('says when nothing comes any more, and nothing before the first sample', () => {
        const { container, rerender } = render(<Now row={[20, ...row.slice(1)]} program={{ steps, limits: {} }} />);
        expect(container.textContent).toContain('The last step of the program.');
        rerender(<Now row={undefined} program={{ steps, limits: {} }} />);
        expect(container.textContent).toBe('');
        expect(stepText({ t: 1, lockup: 'on', hold: 'on' })).toBe('lock-up on, output held');
        expect(stepText({ t: 1, line: 'full' })).toBe('line at full command');
    });
});

describe('whom a run makes suspect', () => {
    it('names each with its share and why, and none when nothing failed', () => {
        const of = [
            { element: 'C3', because: 'Shift 2-3 failed, and it turns on it.', posterior: 0.954 },
            { element: 'cooler', because: 'Too little flows.', posterior: null },
        ];
        const { container, rerender } = render(<Suspects of={of} names={{ C3: 'High clutch' }} />);
        expect(screen.getAllByRole('listitem').map((i) => i.textContent)).toEqual([
            'C3 High clutch 95 %Shift 2-3 failed, and it turns on it.',
            'coolerToo little flows.',
        ]);
        rerender(<Suspects of={[]} />);
        expect(container.textContent).toBe('');
    });
});
