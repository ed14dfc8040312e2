import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

const asked = vi.hoisted(() => ({
    of: [] as Record<string, unknown>[],
    refuse: null as unknown,
    lands: [] as Record<string, unknown>[],
}));
vi.mock('../../api/calc', () => ({
    compute: async (_: string, input: Record<string, unknown>) => {
        asked.of.push(input);
        if (asked.refuse) throw asked.refuse;
        return {
            gears: [
                { name: '1', sound: {}, now: {}, slips: false, sentence: '' },
                {
                    name: '2',
                    sound: { holds_nm: 585, element: 'B2' },
                    now: { holds_nm: 210, element: 'B2' },
                    slips: true,
                    sentence: '',
                },
            ],
            shifts: [{ from: '1', to: '2', element: 'B2', now: {}, sentence: 'B2 does not hold this torque.' }],
            reaches: { C3: 0.24 },
            lands: asked.lands,
            overPressed: [{ gear: '2', element: 'B2', liningPressure_kpa: 4100, liningLimit_kpa: 4000 }],
        };
    },
}));

import { Weakened } from './Weakened';
import type { Train } from './trains';

const train: Train = {
    input: 'in',
    output: 'out',
    sets: [],
    elements: [
        { id: 'B2', kind: 'brake', a: 'sun', b: 'case', name: 'Second brake' },
        { id: 'F1', kind: 'one-way', a: 'sun', b: 'case' },
        { id: 'C9', kind: 'clutch', a: 'in', b: 'sun' },
    ],
    gears: [],
};
const drive = { torque: '300', speed: '5000', inertia: '0.2', time: '0.5', mass: '2000', axle: '3.5', radius: '330' };
const shown = () => render(<Weakened train={train} hardware={{ capacities: { B2: {}, F1: {} } }} drive={drive} />);
const take = (element: string) =>
    fireEvent.change(screen.getByLabelText('What is worn or leaks'), { target: { value: element } });

beforeEach(() => {
    asked.of = [];
    asked.refuse = null;
    asked.lands = [];
});
afterEach(cleanup);

describe('worn, leaking, wrongly pressed', () => {
    it('says which snap-ring land is over its limit, else which is nearest to it', async () => {
        const land = (element: string, stress_mpa: number) => ({
            element,
            gear: '3',
            stress_mpa,
            limit_mpa: 170,
            over: stress_mpa > 170,
        });
        asked.lands = [land('C1', 60), land('C3', 105)];
        shown();
        take('B2');
        fireEvent.click(screen.getByRole('button', { name: 'worn' }));
        const nearest = await screen.findByText('Snap-ring lands hold');
        expect(nearest.closest('p')?.textContent).toContain('nearest: C3 in 3, 105 of 170 MPa.');
        cleanup();
        asked.lands = [land('C1', 90), land('C3', 231)];
        shown();
        take('B2');
        fireEvent.click(screen.getByRole('button', { name: 'worn' }));
        const over = await screen.findByText('Snap-ring land over its limit');
        expect(over.closest('p')?.textContent).toContain('C3 in 3, 231 of 170 MPa.');
        expect(screen.queryByText(/nearest/)).toBeNull();
    });

    it('asks nothing until something is wrong, then shows what is held beside what was', async () => {
        shown();
        expect(asked.of).toHaveLength(0);
        const offered = within(screen.getByLabelText('What is worn or leaks')).getAllByRole('option');
        expect(offered.map((o) => o.textContent)).toEqual(['choose', 'B2 Second brake', 'F1']);
        take('B2');
        fireEvent.click(screen.getByRole('button', { name: 'worn' }));
        const row = await screen.findByRole('row', { name: /^2 585 N·m, B2 210 N·m, B2/ });
        expect(within(row).getByText('slips')).toBeTruthy();
        expect(screen.getByText('does not come')).toBeTruthy();
        expect(screen.getByText('C3 gets 24 % of the line pressure.')).toBeTruthy();
        expect(screen.getByText(/4100 kPa on a lining that stands 4000/)).toBeTruthy();
        expect(asked.of[0]).toMatchObject({ worn: { B2: 0.6 }, leaks: {}, inputTorque_nm: 300 });
    });

    it('sends leaks and pressures as they are typed, and takes them back', async () => {
        shown();
        take('F1');
        expect(screen.queryByRole('button', { name: 'leaks' })).toBeNull();
        take('B2');
        fireEvent.click(screen.getByRole('button', { name: 'leaks' }));
        fireEvent.change(screen.getByLabelText('Leak, as one hole (mm)'), { target: { value: '1.2' } });
        fireEvent.click(screen.getByRole('radio', { name: 'boost valve stuck inward' }));
        await waitFor(() =>
            expect(asked.of.at(-1)).toMatchObject({
                leaks: { B2: { hole_mm: 1.2, feed_mm: 2 } },
                boostFactor: 1.25,
            }),
        );
        fireEvent.click(screen.getByRole('radio', { name: 'all too low' }));
        fireEvent.click(screen.getByRole('button', { name: 'Take back: B2' }));
        await waitFor(() => expect(asked.of.at(-1)).toMatchObject({ leaks: {}, pressureFactor: 0.75 }));
    });

    it('says beside the field what is wrong with it', async () => {
        asked.refuse = {
            type: 'about:blank',
            title: 'Bad input',
            status: 422,
            detail: 'This must be 1 or less.',
            errors: [{ pointer: '/worn/B2', detail: 'This must be 1 or less.' }],
        };
        shown();
        take('B2');
        fireEvent.click(screen.getByRole('button', { name: 'worn' }));
        expect(await screen.findByText('This must be 1 or less.')).toBeTruthy();
        expect(screen.getByLabelText('Holds still (%)').getAttribute('aria-invalid')).toBe('true');
    });
});
