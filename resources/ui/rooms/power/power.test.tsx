import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { PowerFlow, SpeedDiagram } from './PowerFlow';
import { TrainEditor } from './TrainEditor';
import { shafts, type SolvedGear, type Train } from './trains';

afterEach(cleanup);

/** One simple set, ring in, carrier out, sun held: ratio (S + R)/R by the Willis equation. */
const train: Train = {
    input: 'in',
    output: 'out',
    sets: [{ id: 'P', kind: 'simple', sun: 'sun', ring: 'in', carrier: 'out', sunTeeth: 30, ringTeeth: 70 }],
    elements: [
        { id: 'B', kind: 'brake', a: 'sun', b: 'case' },
        { id: 'C', kind: 'clutch', a: 'in', b: 'sun', name: 'Direct clutch' },
    ],
    gears: [
        { name: '1', applied: ['B'] },
        { name: '2', applied: ['C'] },
    ],
};
const low: SolvedGear = {
    name: '1',
    state: 'driven',
    ratio: 100 / 70,
    speeds: { in: 1, sun: 0, out: 0.7 },
    elementTorque: { B: 30 / 70 },
    slip: { C: 1 },
    setTorque: { P: { sun: 30 / 70, ring: 1, carrier: -100 / 70 } },
    outputTorque: 100 / 70,
};
const direct: SolvedGear = {
    name: '2',
    state: 'driven',
    ratio: 1,
    speeds: { in: 1, sun: 1, out: 1 },
    elementTorque: { C: -0.3 },
    slip: { B: 1 },
    setTorque: { P: { sun: 0.3, ring: 0.7, carrier: -1 } },
    outputTorque: 1,
};

describe('shafts', () => {
    it('names every shaft once, the output last and the case not at all', () => {
        expect(shafts(train)).toEqual(['in', 'sun', 'out']);
    });
});

it('says which element was tapped', () => {
    const taps: string[] = [];
    render(<PowerFlow train={train} gear={low} onPick={(e) => taps.push(e)} />);
    const first = train.elements[0]?.id ?? '';
    fireEvent.click(screen.getByText(first));
    expect(taps).toEqual([first]);
    expect(screen.getByText(/Tap an element to break it/)).toBeTruthy();
});

describe('PowerFlow', () => {
    it('says gear, ratio and what is applied, and writes speeds and torques', () => {
        render(<PowerFlow train={train} gear={low} />);
        expect(screen.getByRole('img').getAttribute('aria-label')).toBe('Power flow. Gear 1, ratio 1.429; applied B.');
        expect(screen.getByText('▶ 0.700, 1.43 T')).toBeTruthy();
        expect(screen.getByText('stands')).toBeTruthy();
        expect(screen.getByText('B : applied, 0.429 times the input torque')).toBeTruthy();
        expect(screen.getByText('C Direct clutch: released, slips 1.000')).toBeTruthy();
    });
    it('fills what is applied and draws what is released with a broken line', () => {
        const { container } = render(<PowerFlow train={train} gear={direct} />);
        const boxes = [...container.querySelectorAll('rect')].map((r) => r.getAttribute('fill'));
        expect(boxes).toEqual(['var(--paper)', 'var(--enamel)']);
        expect([...container.querySelectorAll('line[stroke-dasharray="3 4"]')]).toHaveLength(1);
    });
    it('marks a member that turns backwards and one that is free', () => {
        render(<PowerFlow train={train} gear={{ ...low, speeds: { in: 1, sun: -2.5 } }} />);
        expect(screen.getByText('◀ 2.500')).toBeTruthy();
        expect(screen.getByText(/^free/)).toBeTruthy();
    });
    it('names a tie-up instead of a ratio', () => {
        render(
            <PowerFlow
                train={train}
                gear={{
                    ...low,
                    state: 'locked',
                    ratio: null,
                    speeds: {},
                    elementTorque: {},
                    setTorque: {},
                    outputTorque: undefined,
                }}
            />,
        );
        expect(screen.getByRole('img').getAttribute('aria-label')).toBe('Power flow. Gear 1: locked.');
    });
});

describe('SpeedDiagram', () => {
    it('draws a line for every member through the driven gears only', () => {
        const { container } = render(
            <SpeedDiagram train={train} gears={[low, { ...low, name: 'x', state: 'neutral', ratio: null }, direct]} />,
        );
        const lines = [...container.querySelectorAll('polyline')];
        expect(lines).toHaveLength(3);
        lines.forEach((l) => expect(l.getAttribute('points')!.split(' ')).toHaveLength(2));
        expect(screen.queryByText('x')).toBeNull();
    });
});

describe('TrainEditor', () => {
    it('hands on what was typed, a number as a number and a slip as it stands', () => {
        const change = vi.fn();
        render(<TrainEditor train={train} onChange={change} problem={null} />);
        fireEvent.change(screen.getByLabelText('Sun teeth of P'), { target: { value: '33' } });
        expect(change).toHaveBeenLastCalledWith({ sets: [{ ...train.sets[0], sunTeeth: 33 }] });
        fireEvent.change(screen.getByLabelText('Sun teeth of P'), { target: { value: '3x' } });
        expect(change).toHaveBeenLastCalledWith({ sets: [{ ...train.sets[0], sunTeeth: '3x' }] });
        fireEvent.click(screen.getByLabelText('C in gear 1'));
        expect(change).toHaveBeenLastCalledWith({ gears: [{ name: '1', applied: ['B', 'C'] }, train.gears[1]] });
        fireEvent.click(screen.getByLabelText('Take out gear 2'));
        expect(change).toHaveBeenLastCalledWith({ gears: [train.gears[0]] });
    });
    it('marks the field a fault points at', () => {
        render(
            <TrainEditor
                train={train}
                onChange={() => {}}
                problem={{
                    type: '',
                    title: '',
                    status: 422,
                    detail: 'x',
                    errors: [{ pointer: '/sets/0/ringTeeth', detail: 'The ring must have more teeth than the sun.' }],
                }}
            />,
        );
        const field = screen.getByLabelText('Ring teeth of P');
        expect([field.getAttribute('aria-invalid'), field.title]).toEqual([
            'true',
            'The ring must have more teeth than the sun.',
        ]);
        expect(screen.getByLabelText('Sun teeth of P').getAttribute('aria-invalid')).toBeNull();
    });
    it('is only shown without a way to change it', () => {
        render(<TrainEditor train={train} problem={null} />);
        expect(screen.queryByText('Add one')).toBeNull();
        expect((screen.getByLabelText('Sun teeth of P') as HTMLInputElement).readOnly).toBe(true);
        expect(
            within(screen.getByRole('region', { name: 'Teeth, shafts and chart' })).getByText('This train as text'),
        ).toBeTruthy();
    });
});
