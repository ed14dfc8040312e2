import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';

const asked = vi.hoisted(() => ({ of: [] as [string, Record<string, unknown>][] }));
vi.mock('../../api/calc', () => ({
    compute: async (name: string, input: Record<string, unknown>) => {
        asked.of.push([name, input]);
        return {
            faults: [
                { solenoid: 'B', state: 'stuck-off', obtained: { '1': '4', '2': '3' }, posterior: 0.9 },
                { solenoid: 'none', state: 'works', obtained: { '1': '1', '2': '2' }, posterior: 0.1 },
            ],
            next: [{ test: 'B', kind: 'solenoid', effort: 1, gainBits: 0.3 }],
        };
    },
}));

import { Control } from './Control';

const MAP = {
    solenoids: [
        { id: 'A', name: 'Shift solenoid A' },
        { id: 'B', name: 'Shift solenoid B', effort: 2, moves: ['Shift valve 2-3'] },
    ],
    states: [
        { gear: '1', on: ['A', 'B'] },
        { gear: '2', on: ['B'] },
        { gear: '3', on: [] },
        { gear: '4', on: ['A'] },
    ],
    limp: '3',
};

beforeEach(() => {
    asked.of = [];
});
afterEach(cleanup);

it('shows what a failed solenoid makes of the gears, and names the one that explains what was driven', async () => {
    render(<Control control={MAP} />);
    expect(await screen.findByText('Shift solenoid B never comes on')).toBeTruthy();
    expect(screen.getByText('1 → 4, 2 → 3')).toBeTruthy();
    expect(screen.queryByText('90 %'), 'nothing was driven: nothing is likely').toBeNull();
    fireEvent.change(screen.getByLabelText('Came for 1'), { target: { value: '4' } });
    await waitFor(() => expect(screen.getByText(/^90/)).toBeTruthy());
    const question = { ...MAP, observed: { '1': '4' }, effort: { A: 1, B: 2 } };
    await waitFor(() => expect(asked.of.at(-1)).toEqual(['control.map', question]));
    expect(screen.getByText(/next: test Shift solenoid B by itself/)).toBeTruthy();
    expect(screen.getByText(/^Or Shift valve 2-3 hangs at rest: the solenoid then clicks/)).toBeTruthy();
    fireEvent.change(screen.getByLabelText('Came for 1'), { target: { value: '' } });
    await waitFor(() => expect(asked.of.at(-1)?.[1]?.['observed']).toEqual({}));
});

it('says of a family without electrics that there is nothing to map', () => {
    render(<Control control={null} />);
    expect(screen.getByText(/governor and throttle pressure do/)).toBeTruthy();
    expect(asked.of).toEqual([]);
});
