import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

const asked = vi.hoisted(() => ({ of: [] as [string, Record<string, unknown>][], holds: false }));
vi.mock('../../api/calc', () => ({
    compute: async (name: string, input: Record<string, unknown>) => {
        asked.of.push([name, input]);
        if (name === 'geartrain.solve')
            return {
                gears: [
                    { name: '1', efficiency: 0.957, losses: { P1: 0.021, C2: 0.0075, B2: 0, P2: 0.003, B1: 0.001 } },
                    { name: 'N' },
                ],
            };
        const balance = { road_kw: 60, engine_kw: 68.6, gearing_kw: 4.5, converter_kw: 4.1, heat_kw: 8.6 };
        return asked.holds
            ? { ...balance, steady_degc: 111, holds: true, neededUa_w_per_k: 95.7 }
            : { ...balance, steady_degc: 126, holds: false, neededUa_w_per_k: 95.7, secondsTo: 1320 };
    },
}));

import { CoolerDesk, LossesDesk } from './OnTheRoad';
import type { Train } from './trains';

const train: Train = {
    input: 'in',
    output: 'out',
    sets: [],
    elements: [
        { id: 'C2', kind: 'clutch', a: 'in', b: 'sun' },
        { id: 'F1', kind: 'one-way', a: 'sun', b: 'case' },
    ],
    gears: [],
};

beforeEach(() => {
    asked.of = [];
    asked.holds = false;
});
afterEach(cleanup);

describe('what is lost on the way', () => {
    it('asks the solver with losses of teeth and open packs, and names what takes most', async () => {
        render(<LossesDesk train={train} />);
        const row = await screen.findByRole('row', { name: /^1 95.7 %/ });
        expect(row.textContent).toBe('195.7 %P1 2.1 %, C2 0.8 %, P2 0.3 %');
        expect(screen.getByRole('row', { name: /^N/ }).textContent).toBe('N–');
        const losses = { mesh: 0.985, drag_nm: { C2: 1.5 }, inputTorque_nm: 200 };
        expect(asked.of[0]).toEqual(['geartrain.solve', { ...train, losses }]);
        fireEvent.change(screen.getByLabelText('One mesh passes on (%)'), { target: { value: '' } });
        await waitFor(() => expect(asked.of.at(-1)?.[1]['losses']).toMatchObject({ mesh: '' }));
    });

    it('says where the oil settles, when it is too hot and which cooler would do', async () => {
        render(<CoolerDesk />);
        const hot = await screen.findByText('too hot');
        expect(hot.closest('p')?.textContent).toContain('too hot after 22.0 min');
        expect(screen.getByText(/in the converter. A cooler of/).textContent).toContain('96 W/K would just do');
        expect(asked.of[0]?.[1]).toMatchObject({ efficiency: 0.93, speedRatio: 0.94, grade_pct: 6 });
        asked.holds = true;
        fireEvent.change(screen.getByLabelText('Cooler takes (W/K)'), { target: { value: '120' } });
        expect(await screen.findByText('it settles below the limit')).toBeTruthy();
    });
});
