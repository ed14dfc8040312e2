import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { Outline } from '../../kit/Outline';
import { CreditLines } from './CreditLines';
import { WalkRound, type Seen } from './WalkRound';

afterEach(cleanup);

type Family = Schemas['IntakeForm']['families'][number];
const places = [
    {
        code: 'bell',
        name: 'Bell',
        shape: { kind: 'rect', x: 0, y: 0, w: 40, h: 80 },
        parts: ['OU-01', 'OU-02'],
        clues: [],
        features: [],
    },
    {
        code: 'pan',
        name: 'Pan',
        shape: {
            kind: 'polygon',
            points: [
                [40, 60],
                [160, 60],
                [160, 80],
                [40, 80],
            ],
        },
        parts: ['OU-03'],
        clues: ['fluid'],
        features: ['bolts', 'depth'],
    },
    {
        code: 'plug',
        name: 'Connector',
        shape: { kind: 'circle', x: 100, y: 30, r: 12 },
        parts: [],
        clues: [],
        features: [],
    },
] as Schemas['OutlinePlace'][];
// Only what the form reads of a family.
const family = {
    code: 'RD4',
    name: 'RD4',
    outline: { width: 200, height: 100, places },
    outsideParts: [
        { number: 'OU-01', name: 'dust shield', price: 28.5 },
        { number: 'OU-03', name: 'pan', price: 40 },
    ],
    hardParts: [{ number: 'OU-02', name: 'bell', price: 95 }],
    features: [
        { code: 'bolts', name: 'Pan bolts', kind: 'choice', values: ['14', '16'], how: 'count' },
        { code: 'depth', name: 'Pan depth', kind: 'number', unit: 'mm', values: [], how: 'rule on the flange' },
    ],
} as unknown as Family;
// Only what the form reads of its clues.
const clues = [
    { id: 'fluid', name: 'Fluid', values: ['red', 'black'], means: { black: 'burnt' } },
] as unknown as Schemas['IntakeForm']['clues'];
const nothing: Seen = { clues: {}, missing: [], observed: {}, damage: [] };

describe('Outline', () => {
    it('says at each place what is missing, noted and pictured', () => {
        render(
            <Outline
                drawing={family.outline!}
                chosen="pan"
                onChoose={() => {}}
                notes={{ bell: { bad: 2, seen: 1, photos: 1 }, plug: { bad: 0, seen: 0, photos: 3 } }}
            />,
        );
        expect(
            screen
                .getByRole('button', { name: 'Bell, 2 missing or damaged, 1 noted, 1 picture' })
                .getAttribute('aria-pressed'),
        ).toBe('false');
        expect(screen.getByRole('button', { name: 'Pan' }).getAttribute('aria-pressed')).toBe('true');
        expect(screen.getByRole('button', { name: 'Connector, 3 pictures' })).toBeTruthy();
    });
    it('is worked by keyboard as by finger', () => {
        const choose = vi.fn();
        render(<Outline drawing={family.outline!} chosen={null} onChoose={choose} notes={{}} />);
        fireEvent.keyDown(screen.getByRole('button', { name: 'Connector' }), { key: ' ' });
        fireEvent.keyDown(screen.getByRole('button', { name: 'Pan' }), { key: 'Enter' });
        fireEvent.keyDown(screen.getByRole('button', { name: 'Bell' }), { key: 'a' });
        fireEvent.click(screen.getByRole('button', { name: 'Bell' }));
        expect(choose.mock.calls).toEqual([['plug'], ['pan'], ['bell']]);
    });
});

describe('WalkRound', () => {
    const walk = (seen: Partial<Seen> = {}) => {
        const change = vi.fn();
        render(
            <WalkRound
                family={family}
                outline={family.outline!}
                clues={clues}
                seen={{ ...nothing, ...seen }}
                onChange={change}
            />,
        );
        return change;
    };
    it('offers the parts of the place with their price and takes one back at the second tap', () => {
        const change = walk({ missing: ['OU-02'] });
        const shield = screen.getByRole('button', { name: /dust shield/ });
        expect(shield.textContent).toContain('28.50');
        fireEvent.click(shield);
        expect(change).toHaveBeenLastCalledWith({ missing: ['OU-02', 'OU-01'] });
        const bell = within(screen.getByRole('group', { name: 'Missing here' })).getByRole('button', { name: /bell/ });
        expect(bell.getAttribute('aria-pressed')).toBe('true');
        fireEvent.click(bell);
        expect(change).toHaveBeenLastCalledWith({ missing: [] });
    });
    it('asks at each place what can be seen there, and says what a clue means', () => {
        const change = walk({ clues: { fluid: 'black' } });
        fireEvent.click(screen.getByRole('button', { name: /^Pan/ }));
        expect(screen.getByText('burnt')).toBeTruthy();
        fireEvent.click(
            within(screen.getByRole('radiogroup', { name: 'Fluid' })).getByRole('radio', { name: /black/ }),
        );
        expect(change).toHaveBeenLastCalledWith({ clues: {} });
        fireEvent.click(
            within(screen.getByRole('radiogroup', { name: 'Pan bolts' })).getByRole('radio', { name: '16' }),
        );
        expect(change).toHaveBeenLastCalledWith({ observed: { bolts: '16' } });
        fireEvent.change(screen.getByLabelText('Pan depth (mm)'), { target: { value: '61.2' } });
        expect(change).toHaveBeenLastCalledWith({ observed: { depth: '61.2' } });
    });
    it('keeps one damage for each place and drops it when the words are gone', () => {
        const change = walk({
            damage: [
                { place: 'pan', what: 'dent' },
                { place: 'bell', what: 'crack' },
            ],
        });
        const field = screen.getByLabelText('Damage that was there on arrival');
        expect((field as HTMLInputElement).value).toBe('crack');
        fireEvent.change(field, { target: { value: 'cracked ear' } });
        expect(change).toHaveBeenLastCalledWith({
            damage: [
                { place: 'pan', what: 'dent' },
                { place: 'bell', what: 'cracked ear' },
            ],
        });
        fireEvent.change(field, { target: { value: '' } });
        expect(change).toHaveBeenLastCalledWith({ damage: [{ place: 'pan', what: 'dent' }] });
    });
});

describe('CreditLines', () => {
    it('writes deductions with a minus sign and counts above one', () => {
        render(
            <CreditLines
                lines={[
                    { kind: 'charge', label: 'Core charge', quantity: 1, unitPrice: 450, amount: 450 },
                    { kind: 'missing', label: 'vent', quantity: 2, unitPrice: 12.4, amount: -24.8 },
                ]}
            />,
        );
        expect(screen.getByText('450.00')).toBeTruthy();
        expect(screen.getByText('vent × 2')).toBeTruthy();
        expect(screen.getByText('−24.80')).toBeTruthy();
    });
});
