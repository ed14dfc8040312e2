import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';

const asked = vi.hoisted(() => ({ of: [] as Record<string, unknown>[] }));
vi.mock('../../api/calc', () => ({
    compute: async (_: string, input: Record<string, unknown>) => {
        asked.of.push(input);
        const way = { first: 'apply', seconds: 0.4, heat_j: 12300 };
        const led = { first: 'release', seconds: 0.21 };
        const both = { state: 'locked' };
        return {
            shifts: [
                {
                    ...{ from: '3', to: '4', on: ['B2'], off: ['C1'], changesHands: true },
                    ...{ neither: { state: 'neutral' }, both, driving: way, coasting: led },
                },
                {
                    ...{ from: '2', to: '3', on: ['C3'], off: ['B2'], changesHands: true },
                    ...{ neither: { state: 'driven', ratio: 2.4, as: '1' }, both, driving: way, coasting: led },
                },
                {
                    ...{ from: '1', to: '2', on: ['B2'], off: ['F1'], changesHands: false },
                    neither: { state: 'driven', ratio: 2.4, as: '1' },
                    both: { state: 'driven', ratio: 1.5, as: '2' },
                    ...{ driving: way, coasting: led },
                },
            ],
        };
    },
}));

import { HandOver } from './HandOver';

afterEach(cleanup);

it('says who comes first, and what nobody or both make of the train, for each way of the torque', async () => {
    const train = { input: 'in', output: 'out', sets: [], elements: [], gears: [] };
    render(<HandOver train={train} drive={{ torque: '300', speed: '5000', inertia: '0.2', time: '0.4' }} />);
    const row = (name: RegExp) => screen.findByRole('row', { name });
    const third = await row(/^3 to 4/);
    expect(within(third).getByText('neutral')).toBeTruthy();
    expect(within(third).getByText('ties up')).toBeTruthy();
    expect(third.textContent).toContain('B2 comes on and does the work');
    expect(third.textContent).toContain('12.3 kJ');
    expect((await row(/^2 to 3/)).textContent).toContain('falls into 1');
    const one = await row(/^1 to 2/);
    expect(one.textContent).toContain('stays in 1 by itself');
    expect(one.textContent).toContain('drives in 2, no harm');
    fireEvent.click(screen.getByRole('radio', { name: 'on the overrun' }));
    expect((await row(/^3 to 4/)).textContent).toContain('C1 lets go, caught after 0.21 s');
    fireEvent.change(screen.getByLabelText('Overrun torque (N·m)'), { target: { value: '55' } });
    await waitFor(() => expect(asked.of.at(-1)).toMatchObject({ coastTorque_nm: 55, inputTorque_nm: 300 }));
});
