import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import { HeldConverter } from './HeldConverter';

afterEach(cleanup);

const held: Parameters<typeof HeldConverter>[0]['held'] = {
    torque_nm: 402,
    speed_rpm: 2710,
    clock: {
        heat_w: 114_083,
        secondsTo: [{ name: 'the sensor pulls back', seconds: 6.02 }, { name: 'the lining suffers' }],
        coolDown_s: 120,
        perHour: 28.9,
    },
    assumed: { fluid_l: 4.8, metal_kg: 13.5, start_degc: 90, air_degc: 25, coolerUa_w_per_k: 60, coolTo_degc: 100 },
    thrust: [
        { name: 'Full charge on the hub', charge_kpa: 620, force_n: 1871.8 },
        { name: 'Dump valve for the converter charge', charge_kpa: 170, force_n: 513.2 },
    ],
    source: 'Weighed on the bench (shop-measured)',
};

describe('the launch clock on paper', () => {
    it('says seconds, rest, how often, what it takes for granted and what presses on the crankshaft', () => {
        render(<HeldConverter held={held} />);
        expect(screen.getByRole('heading').textContent).toContain('2710 rev/min and 402 N.m');
        expect(screen.getByText('6.0 s').parentElement?.textContent).toBe('6.0 s until the sensor pulls back');
        expect(screen.getByText('never').parentElement?.textContent).toBe('never until the lining suffers');
        expect(screen.getByText(/114 kW/).textContent).toBe(
            '114 kW of heat; 2.0 min to cool for the next one; at most 28 in an hour',
        );
        expect(screen.getAllByRole('listitem').map((l) => l.textContent)).toEqual([
            '1872 N on the crankshaft’s thrust bearing: Full charge on the hub, 620 kPa',
            '513 N on the crankshaft’s thrust bearing: Dump valve for the converter charge, 170 kPa',
        ]);
        expect(screen.getByText(/From 90 °C, 4.8 L and 13.5 kg/)).toBeTruthy();
        expect(screen.getByText(/nobody before or under the vehicle/)).toBeTruthy();
    });
});
