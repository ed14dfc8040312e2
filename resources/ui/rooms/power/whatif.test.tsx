import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

const asked = vi.hoisted(() => ({
    of: [] as [string, Record<string, unknown>][],
    answer: {} as Record<string, unknown>,
}));
vi.mock('../../api/calc', () => ({
    compute: async (name: string, input: Record<string, unknown>) => {
        asked.of.push([name, input]);
        return asked.answer[name];
    },
}));

import { WhatIf } from './WhatIf';
import type { Train } from './trains';

const train: Train = {
    input: 'in',
    output: 'out',
    sets: [{ id: 'P', kind: 'simple', sun: 'sun', ring: 'in', carrier: 'out', sunTeeth: 30, ringTeeth: 70 }],
    elements: [
        { id: 'B', kind: 'brake', a: 'sun', b: 'case', name: 'Low brake' },
        { id: 'C', kind: 'clutch', a: 'in', b: 'sun' },
        { id: 'F', kind: 'one-way', a: 'sun', b: 'case' },
    ],
    gears: [
        { name: '1', applied: ['B'] },
        { name: '2', applied: ['C'] },
    ],
};
const low = { state: 'driven', ratio: 100 / 70 };

beforeEach(() => {
    asked.of = [];
    asked.answer = {
        'geartrain.coast': {
            gears: [
                { name: '1', engineBraking: false, overruns: ['F'] },
                { name: '2', engineBraking: true, overruns: [] },
            ],
            coastOnly: ['B'],
        },
        'fault.simulate': {
            gears: [
                { name: '1', ...low, sound: low, changed: false, sentence: 'Gear 1 is as it should be.' },
                {
                    name: '2',
                    state: 'locked',
                    sound: { state: 'driven', ratio: 1 },
                    changed: true,
                    sentence: 'Ties up.',
                },
            ],
            neutral: { creeps: true, ...low },
        },
    };
});
afterEach(cleanup);

const panel = (name: string) => within(screen.getByRole('region', { name }));

describe('what if', () => {
    it('asks nothing until a fault is chosen, then shows each gear beside what it should be', async () => {
        render(<WhatIf train={train} />);
        const failing = panel('What if an element fails');
        await waitFor(() => expect(asked.of.map(([name]) => name)).toEqual(['geartrain.coast']));
        fireEvent.change(failing.getByLabelText('Element'), { target: { value: 'B' } });
        fireEvent.click(failing.getByRole('button', { name: 'stuck on' }));
        const row = await failing.findByRole('row', { name: /^2 / });
        expect(asked.of.at(-1)?.[1]['faults']).toEqual([{ element: 'B', state: 'stuck-on' }]);
        expect(row.textContent).toContain('1.000');
        expect(row.textContent).toContain('ties up');
        expect(failing.getByText('Creeps in neutral')).toBeTruthy();
        fireEvent.click(failing.getByRole('button', { name: /^B stuck on.*take back/ }));
        await waitFor(() => expect(failing.queryByRole('table')).toBeNull());
    });
    it('takes up an element tapped on the picture', () => {
        const { rerender } = render(<WhatIf train={train} />);
        rerender(<WhatIf train={train} picked={{ element: 'F', times: 1 }} />);
        fireEvent.click(panel('What if an element fails').getByRole('button', { name: 'locked both ways' }));
        rerender(<WhatIf train={train} picked={{ element: 'C', times: 2 }} />);
        expect(panel('What if an element fails').getByRole('button', { name: /^F locked both ways/ })).toBeTruthy();
        expect(panel('What if an element fails').getByRole('button', { name: 'stuck on' })).toBeTruthy();
    });
    it('offers each element once, and of a one-way only what it can be', () => {
        render(<WhatIf train={train} />);
        const failing = panel('What if an element fails');
        fireEvent.change(failing.getByLabelText('Element'), { target: { value: 'F' } });
        expect(failing.queryByRole('button', { name: 'stuck on' })).toBeNull();
        expect(failing.queryByRole('button', { name: /wrong way round/ })).toBeNull();
        fireEvent.click(failing.getByRole('button', { name: 'free both ways' }));
        const left = within(failing.getByLabelText('Element')).getAllByRole('option');
        expect(left.map((o) => o.textContent)).toEqual(['choose', 'B Low brake', 'C']);
    });
    it('says which gears hold the engine back and what carries then only', async () => {
        render(<WhatIf train={train} />);
        const coast = panel('On the coast');
        expect((await coast.findByRole('row', { name: /^1 / })).textContent).toContain('rolls free');
        expect(coast.getByRole('row', { name: /^2 / }).textContent).toContain('holds back');
        expect(coast.getByText('B')).toBeTruthy();
    });
});
