import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';

const asked = vi.hoisted(() => ({ of: [] as Record<string, unknown>[] }));
vi.mock('../../api/calc', () => ({
    compute: async (_: string, input: Record<string, unknown>) => {
        asked.of.push(input);
        return {
            suspects: [
                {
                    elements: ['C1', 'C2'],
                    fault: 'weak',
                    posterior: 0.7,
                    because: 'Both are in all of them.',
                    class: 1,
                    foretells: [
                        { kind: 'finding', what: 'C1', state: 'burnt' },
                        { kind: 'noise', what: 'noise', state: 'growl' },
                    ],
                },
                { element: 'converter', fault: 'no-drive', posterior: 0.2, because: 'Nothing drives.', class: 2 },
            ],
            next: [
                { kind: 'gear', what: '2', gainBits: 0.4 },
                { kind: 'pressure', what: 'C1', gainBits: 0.3 },
            ],
        };
    },
}));

import { Complaint } from './Complaint';
import type { Train } from './trains';

const TRAIN: Train = {
    input: 'in',
    output: 'out',
    sets: [],
    elements: [
        { id: 'C1', kind: 'clutch', a: 'in', b: 'x' },
        { id: 'C2', kind: 'clutch', a: 'in', b: 'y' },
        { id: 'F1', kind: 'one-way', a: 'x', b: 'case' },
    ],
    gears: [
        { name: '1', applied: ['C1'] },
        { name: '2', applied: ['C2'] },
        { name: 'R', applied: ['C1'] },
    ],
};

beforeEach(() => {
    asked.of = [];
});
afterEach(cleanup);

it('takes what is heard and what code was stored', async () => {
    render(<Complaint train={TRAIN} causes={null} />);
    fireEvent.change(screen.getByLabelText('Noise'), { target: { value: 'whine' } });
    fireEvent.change(screen.getByLabelText('Code stored for'), { target: { value: 'pressure' } });
    await waitFor(() => expect(asked.of.at(-1)).toMatchObject({ noise: 'whine', codes: [{ means: 'pressure' }] }));
    expect(asked.of.at(-1)).not.toHaveProperty('code');
});

it('weighs what is said, names pairs, and says where to look next', async () => {
    const weights = { C1: 0.8, C2: 1.2, F1: 1 };
    const causes = { learns: true, counts: { C2: 3, C1: 1 }, shipped: { C1: 1, C2: 1, F1: 1 }, weights };
    render(<Complaint train={TRAIN} causes={causes} />);
    expect(screen.getByText('Weighed with 4 confirmed causes of this family')).toBeTruthy();
    expect(screen.getByRole('row', { name: 'C2 3 ×1.00 ×1.20' })).toBeTruthy();
    expect(screen.getByText('Say what it does.')).toBeTruthy();
    expect(screen.queryByLabelText('Pressure F1'), 'a one-way has no tap').toBeNull();
    expect(screen.getByLabelText('Shift 1-2')).toBeTruthy();
    fireEvent.change(screen.getByLabelText('Gear R'), { target: { value: 'missing' } });
    fireEvent.change(screen.getByLabelText('Lock-up'), { target: { value: 'hunts' } });
    fireEvent.change(screen.getByLabelText('Pressure C1'), { target: { value: 'low' } });
    expect(await screen.findByText('C1 and C2 weak together')).toBeTruthy();
    expect(asked.of.at(-1)).toMatchObject({ weak: weights });
    const { observed, pressures, lockup, pairs, looks } = asked.of.at(-1) ?? {};
    expect({ observed, pressures, lockup, pairs, looks }).toEqual({
        observed: { R: 'missing' },
        pressures: { C1: 'low' },
        lockup: 'hunts',
        pairs: true,
        looks: 3,
    });
    expect(screen.getByText('Converter')).toBeTruthy();
    expect(screen.getByText('Then also: parts of C1 burnt, noise growl.')).toBeTruthy();
    expect(screen.getByText('next: drive gear 2')).toBeTruthy();
    expect(screen.getByText('or gauge at the tap of C1')).toBeTruthy();
    fireEvent.change(screen.getByLabelText('In the pan'), { target: { value: 'metal' } });
    fireEvent.change(screen.getByLabelText('Air into C2'), { target: { value: 'leaks' } });
    fireEvent.change(screen.getByLabelText('Parts of F1'), { target: { value: 'broken' } });
    await waitFor(() =>
        expect(asked.of.at(-1)).toMatchObject({ pan: 'metal', air: { C2: 'leaks' }, findings: { F1: 'broken' } }),
    );
    for (const label of ['Gear R', 'Lock-up', 'Pressure C1', 'In the pan', 'Air into C2', 'Parts of F1']) {
        fireEvent.change(screen.getByLabelText(label), { target: { value: '' } });
    }
    await waitFor(() => expect(screen.getByText('Say what it does.')).toBeTruthy());
});
