import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { Drive } from './Drive';
import { DutyFields, dutyOf } from './DutyFields';
import { Margins } from './Margins';
import { SearchEnded } from './Price';

afterEach(cleanup);

const weakest = { gear: '2', element: 'B2', margin: 1.3, demand_nm: 200, capacity_nm: 260 };
const margins = (more: Partial<Schemas['Margins']> = {}): Schemas['Margins'] => ({
    holds: true,
    limit: 1.15,
    selfApplying: [],
    unknown: [],
    overPressed: [],
    weakest,
    largestInputTorque_nm: 452,
    gears: [
        {
            name: '1',
            pressure_kpa: 1150,
            converterRatio: 1.725,
            elements: [
                {
                    element: 'C1',
                    demand_nm: 400,
                    capacity_nm: 1000,
                    margin: 2.5,
                    liningPressure_kpa: 2100,
                    liningLimit_kpa: 4000,
                },
            ],
        },
        {
            name: '2',
            pressure_kpa: 1000,
            converterRatio: 1,
            elements: [
                { element: 'C1', demand_nm: 0, capacity_nm: 900 },
                { element: 'B2', demand_nm: 200, capacity_nm: 260, margin: 1.3, rotation: 'with' },
            ],
        },
    ],
    ...more,
});
const names = { C1: 'Forward clutch', B2: 'Band' };

describe('Margins', () => {
    it('names the weakest link and the engine it is good for', () => {
        render(<Margins margins={margins()} elements={names} torque={400} />);
        const panel = screen.getByRole('region', { name: 'What it can hold' });
        expect(panel.textContent).toContain('weakest: Band in gear 2, 260 of 200 N.m');
        expect(panel.textContent).toContain('good for 452 N.m of engine torque; this order has 400');
        expect(panel.textContent).toContain('×1.73');
        expect(screen.getByText('carries nothing')).toBeTruthy();
    });
    it('shows torque or lining pressure under the bars', () => {
        render(<Margins margins={margins()} elements={names} torque={400} />);
        expect(screen.getByText('1000 / 400')).toBeTruthy();
        fireEvent.click(screen.getByRole('radio', { name: /lining/ }));
        expect(screen.getByText('2.1 / 4.0')).toBeTruthy();
        expect(screen.queryByText('1000 / 400')).toBeNull();
    });
    it('says in words what lies below the limit, is pressed too hard, not known, or weakest at part throttle', () => {
        const low = margins({
            holds: false,
            weakest: { ...weakest, margin: 0.9, opening: 0.5 },
            unknown: [{ gear: '1', element: 'F1' }],
            overPressed: [{ gear: '1', element: 'C1', liningPressure_kpa: 4300, liningLimit_kpa: 4000 }],
            overPressure: [{ gear: 'R', pressure_kpa: 2150 }],
            byThrottle: [{ ...weakest, margin: 0.9, opening: 0.5 }, weakest],
        });
        low.gears[1]!.elements[1]!.margin = 1.1;
        render(<Margins margins={low} elements={names} torque={400} />);
        const text = screen.getByRole('region', { name: 'What it can hold' }).textContent!;
        for (const words of [
            'does not hold',
            'in gear 2 at 50 % throttle',
            '1.10 below the limit',
            'F1 in 1',
            '4.3 MPa, good for 4.0',
            'R: 2150 kPa',
            'By throttle: full 1.30 (B2 in 2); 50 % 0.90 (B2 in 2)',
        ])
            expect(text).toContain(words);
    });
    it('tells what would raise it most, or that nothing alone does', () => {
        const { rerender } = render(
            <Margins
                margins={margins()}
                elements={names}
                torque={400}
                sensitivity={[{ option: 'a', name: 'Wide band', largestInputTorque_nm: 500, gain_nm: 48 }]}
            />,
        );
        expect(screen.getByText(/What would raise it most: Wide band, to 500 N.m/)).toBeTruthy();
        rerender(
            <Margins
                margins={margins()}
                elements={names}
                torque={400}
                sensitivity={[{ option: 'a', name: 'Wide band', largestInputTorque_nm: 452, gain_nm: 0 }]}
            />,
        );
        expect(screen.getByText(/no single option/)).toBeTruthy();
    });
});

const duty: NonNullable<Schemas['Spec']['duty']> = {
    engineTorque_nm: 410,
    typed: '',
    curve: [
        { speed_rpm: 1000, torque_nm: 300 },
        { speed_rpm: 4000, torque_nm: 410 },
    ],
    curveFrom: 'vehicle',
    shiftSpeed_rpm: 5200,
    mass_kg: 1980,
    axleRatio: 3.42,
    tyre: '235/65R17',
    tyreRadius_mm: 358.2,
    grade_pct: 12,
    hold: true,
};
// Only what the panels read of a specification.
const spec = (more: object = {}) =>
    ({
        duty,
        work: [],
        fluid: { name: 'K', litres: 10.4 },
        elements: names,
        margins: margins(),
        ...more,
    }) as unknown as Schemas['Spec'];

describe('DutyFields', () => {
    it('shows what an empty field takes from the vehicle', () => {
        render(<DutyFields duty={dutyOf(undefined)} spec={spec()} problem={null} onChange={() => {}} />);
        const text = screen.getByRole('region', { name: 'Duty' }).textContent!;
        for (const words of [
            '410 N.m',
            '1980 kg, no trailer',
            '235/65R17, rolls on 358 mm',
            'grade of 12 %',
            '2 points of the vehicle',
        ])
            expect(text).toContain(words);
        expect(screen.getByRole('img', { hidden: true }).getAttribute('aria-label')).toBe(
            'Torque over speed, peak 410 N.m',
        );
    });
    it('says that the peak counts everywhere where no curve is known', () => {
        render(
            <DutyFields
                duty={dutyOf(undefined)}
                spec={spec({ duty: { ...duty, curve: [], curveFrom: null } })}
                problem={null}
                onChange={() => {}}
            />,
        );
        expect(screen.getByText(/the peak counts at every speed/)).toBeTruthy();
    });
    it('puts each refusal at its field and hands on what is typed', () => {
        const change = vi.fn();
        const problem = {
            type: '',
            title: '',
            status: 422,
            detail: 'No.',
            errors: [
                { pointer: '/duty/tyre', detail: '"big" is no tyre size.' },
                { pointer: '/duty/engineCurve', detail: 'The speeds must rise.' },
            ],
        };
        render(
            <DutyFields duty={{ ...dutyOf(undefined), tyre: 'big' }} spec={null} problem={problem} onChange={change} />,
        );
        expect(screen.getByLabelText('Tyre').getAttribute('aria-invalid')).toBe('true');
        expect(screen.getByText('The speeds must rise.')).toBeTruthy();
        fireEvent.change(screen.getByLabelText('Mass with trailer'), { target: { value: '9000 lb' } });
        expect(change).toHaveBeenLastCalledWith({ mass: '9000 lb' });
        fireEvent.click(screen.getByRole('checkbox'));
        expect(change).toHaveBeenLastCalledWith({ hold: false });
    });
    it('brings back what a saved draft holds', () => {
        expect(dutyOf({ duty: { mass: '4200', hold: false } })).toEqual({
            engineTorque: '',
            engineCurve: '',
            shiftSpeed: '',
            mass: '4200',
            axle: '',
            tyre: '',
            grade: '',
            hold: false,
        });
        expect(dutyOf({ duty: null }).hold).toBe(true);
    });
});

const match = {
    option: 'c',
    name: 'Converter, stock stall',
    gear: '1',
    stallClass: 'stock',
    hub: '62 mm',
    lockup: ['modulated'],
    source: 's',
    confidence: 'shop-measured',
    stall_rpm: 1980,
    stallTorqueRatio: 1.9,
    stallTurbineTorque_nm: 650,
    highestTurbineTorque_nm: 650,
    fits: true,
    message: 'm',
    launch: null,
};
const launch = {
    reaches: true,
    time_s: 5.5,
    distance_m: 40,
    speed_kmh: 46,
    heat_kj: 117,
    engineWork_kj: 600,
    pull_n: 20000,
    resistance_n: 3700,
    gradeLimit_pct: 56.8,
    stallHeat_kw: 78,
    fluidRise_k: 6.6,
    assumptions: ['Full throttle.'],
};

describe('Drive', () => {
    it('tells stall, heat and grade of pulling away', () => {
        render(<Drive spec={spec({ converterMatch: { ...match, launch } })} />);
        const text = screen.getByRole('region', { name: 'Pulling away and shifting' }).textContent!;
        for (const words of [
            '1980',
            'matches',
            'pulls 1980 kg on a grade of 12 % away to 46 km/h in 5.5 s',
            '117 kJ',
            '6.6 °C',
            'up to 57 %',
        ])
            expect(text).toContain(words);
    });
    it('tells where it hangs, and that the stall does not match', () => {
        render(
            <Drive
                spec={spec({
                    converterMatch: {
                        ...match,
                        fits: false,
                        message: 'With this engine it stalls too high.',
                        launch: { ...launch, reaches: false, hangs: { speedRatio: 0.2, speed_kmh: 4.2, heat_kw: 61 } },
                    },
                })}
            />,
        );
        const text = screen.getByRole('region', { name: 'Pulling away and shifting' }).textContent!;
        for (const words of ['does not match', 'stalls too high', 'Hangs', '4 km/h', '61 kW'])
            expect(text).toContain(words);
    });
    it('asks for mass, axle and tyre where they are missing', () => {
        render(<Drive spec={spec({ converterMatch: match })} />);
        expect(screen.getByText(/With mass, axle and tyre/)).toBeTruthy();
    });
    it('lists the heat of each shift against its lining, too hot in words', () => {
        const shift = (over: boolean) => ({
            from: '1',
            to: '2',
            on: ['B2'],
            off: [],
            inputDrop_rpm: 1900,
            outputTorque_nm: { before: 773, during: 616, after: 442 },
            elements: [
                {
                    element: 'B2',
                    slipBefore_rpm: -3000,
                    torque_nm: 250,
                    energy_j: 19900,
                    meanPower_kw: 19.9 / 0.45,
                    perArea_j_mm2: 0.89,
                    limit_j_mm2: over ? 0.5 : 2.4,
                    over,
                },
            ],
        });
        const { rerender } = render(<Drive spec={spec({ margins: margins({ shifts: [shift(false)] }) })} />);
        expect(screen.getByText('19.9 kJ')).toBeTruthy();
        expect(screen.getByText('0.45 s assumed')).toBeTruthy();
        expect(screen.getByText('0.89 of 2.4 J/mm²')).toBeTruthy();
        expect(screen.getByText('773, 616, then 442 N.m')).toBeTruthy();
        rerender(<Drive spec={spec({ margins: margins({ shifts: [shift(true)] }) })} />);
        expect(screen.getByText('0.89 of 0.5 J/mm², too hot')).toBeTruthy();
    });
    it('tells how long an accumulator lets a shift take, and one that never takes over', () => {
        const feel = {
            completes: true,
            start_kpa: 312,
            end_kpa: 867,
            line_kpa: 1000,
            fills: true,
            fill_s: 0.6,
            endsInStroke: false,
            takeOver_s: 0.19,
            duration_s: 0.44,
            bump: 1.9,
            outputTorque_nm: { before: 854, lowest: 488, peak: 931, after: 488 },
        };
        const shift = (f: object) => ({
            from: '1',
            to: '2',
            on: ['B2'],
            off: [],
            inputDrop_rpm: 1900,
            outputTorque_nm: { before: 854, during: 616, after: 488 },
            elements: [
                { element: 'B2', slipBefore_rpm: -3000, torque_nm: 250, energy_j: 30600, feel: { ...feel, ...f } },
            ],
        });
        const { rerender } = render(<Drive spec={spec({ margins: margins({ shifts: [shift({})] }) })} />);
        const row = () => screen.getByRole('row', { name: /1 to 2/ }).textContent!;
        expect(row()).toContain('0.63 s, carries after 0.19 s; ends at line pressure');
        expect(row()).toContain('854, 931, then 488 N.m');
        rerender(<Drive spec={spec({ margins: margins({ shifts: [shift({ endsInStroke: true })] }) })} />);
        expect(row()).not.toContain('line pressure');
        rerender(<Drive spec={spec({ margins: margins({ shifts: [shift({ completes: false })] }) })} />);
        expect(row()).toContain('does not take over');
    });
    it('stays away where there is nothing to say', () => {
        const { container } = render(<Drive spec={spec({ margins: null })} />);
        expect(container.textContent).toBe('');
    });
});

describe('A search that ended at its limit', () => {
    it('says what no other choice can beat, and nothing when every choice was tried', () => {
        const { container, rerender } = render(<SearchEnded spec={{ optimal: true }} />);
        expect(container.textContent).toBe('');
        rerender(<SearchEnded spec={{ optimal: false, bound: { packageLeftOut: 0, cost: 1234.5 } }} />);
        expect(container.textContent).toContain('Not every choice was tried');
        expect(container.textContent).toMatch(/none can cost less than .*1[,. ]?234/);
        rerender(<SearchEnded spec={{ optimal: false }} />);
        expect(container.textContent).toContain('smaller set of wishes');
    });
});
