import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Problem } from '../api/client';
import { Choice, Field, Mark, ProblemNote, Select } from './basics';
import { GaugeBar } from './GaugeBar';
import { More } from './More';
import { StackDrawing } from './StackDrawing';

afterEach(cleanup);

const problem = (more: Partial<Problem>): Problem => ({
    type: 'about:blank',
    title: 'Not accepted',
    status: 422,
    detail: 'No.',
    ...more,
});

describe('GaugeBar', () => {
    it('says in words what it draws', () => {
        render(<GaugeBar label="Forward pack" unit="in" min={0.02} max={0.03} target={0.025} reading={0.024} />);
        expect(screen.getByRole('img').getAttribute('aria-label')).toBe(
            'Forward pack: 0.024 in, inside the window 0.020 to 0.030 in',
        );
    });
    it('counts the edge of the window as inside and the next step as outside', () => {
        const { rerender } = render(<GaugeBar label="x" unit="in" min={0.02} max={0.03} reading={0.03} />);
        expect(screen.getByRole('img').getAttribute('aria-label')).toContain('inside');
        rerender(<GaugeBar label="x" unit="in" min={0.02} max={0.03} reading={0.031} />);
        expect(screen.getByRole('img').getAttribute('aria-label')).toContain('outside');
    });
    it('keeps a far reading on the drawing and says when there is none', () => {
        const { container, rerender } = render(<GaugeBar label="x" unit="in" min={0.02} max={0.03} reading={9} />);
        const x = Number(/M ([\d.]+)/.exec(container.querySelector('path')!.getAttribute('d')!)![1]);
        expect(x).toBeLessThanOrEqual(296);
        rerender(<GaugeBar label="x" unit="in" min={0.02} max={0.03} />);
        expect(container.querySelector('path')).toBeNull();
        expect(screen.getByRole('img').getAttribute('aria-label')).toContain('no reading');
    });
});

describe('StackDrawing', () => {
    it('draws every plate to one scale with the gap on top', () => {
        const plates = [
            { name: 'ST-069', thickness: 0.069, kind: 'picked' as const },
            { name: 'friction', thickness: 0.08, kind: 'fixed' as const },
            { name: 'ST-069', thickness: 0.069, kind: 'picked' as const },
        ];
        const { container } = render(<StackDrawing plates={plates} clearance={0.024} depth={0.242} unit="in" />);
        const heights = [...container.querySelectorAll('g rect')].map((r) => Number(r.getAttribute('height')) + 0.8);
        expect(heights[1]! / heights[0]!).toBeCloseTo(0.08 / 0.069, 6);
        const gap = Number(container.querySelector('svg > rect')!.getAttribute('height'));
        expect(gap / heights[0]!).toBeCloseTo(0.024 / 0.069, 6);
        expect(screen.getByText('ST-069 0.069 × 2')).toBeTruthy();
        expect(screen.getByText('gap 0.024 in')).toBeTruthy();
    });
    it('draws no gap for a stack that is too thick', () => {
        const { container } = render(
            <StackDrawing
                plates={[{ name: 'a', thickness: 1, kind: 'fixed' }]}
                clearance={-0.01}
                depth={0.99}
                unit="in"
            />,
        );
        expect(Number(container.querySelector('svg > rect')!.getAttribute('height'))).toBe(0);
    });
});

describe('Field', () => {
    it('ties its problem and hint to the input', () => {
        render(<Field label="VIN" value="X" onChange={() => {}} hint="17 characters" problem="Misread." />);
        const input = screen.getByLabelText('VIN');
        expect(input.getAttribute('aria-invalid')).toBe('true');
        const described = input
            .getAttribute('aria-describedby')!
            .split(' ')
            .map((id) => document.getElementById(id)!.textContent);
        expect(described).toEqual(['Misread.', '17 characters']);
    });
    it('takes a gauge that types digits and Enter', () => {
        const enter = vi.fn();
        const change = vi.fn();
        render(<Field label="Reading" value="" onChange={change} onEnter={enter} />);
        fireEvent.change(screen.getByLabelText('Reading'), { target: { value: '.024' } });
        fireEvent.keyDown(screen.getByLabelText('Reading'), { key: 'Enter' });
        expect(change).toHaveBeenCalledWith('.024');
        expect(enter).toHaveBeenCalledOnce();
    });
});

describe('Choice and Select', () => {
    it('shows what is chosen by word, tick and state', () => {
        const change = vi.fn();
        render(<Choice label="Gear 3" value="slips" values={['ok', 'slips', 'missing']} onChange={change} />);
        const gear = within(screen.getByRole('radiogroup', { name: 'Gear 3' }));
        expect(gear.getByRole('radio', { checked: true }).textContent).toBe('✓slips');
        fireEvent.click(gear.getByRole('radio', { name: 'missing' }));
        expect(change).toHaveBeenLastCalledWith('missing');
        fireEvent.click(gear.getByRole('radio', { name: 'slips' }));
        expect(change, 'pressed again it can be taken back').toHaveBeenLastCalledWith('slips');
    });
    it('offers an empty choice only when asked', () => {
        const { rerender } = render(
            <Select label="To" value="" onChange={() => {}} options={[{ value: 'a', text: 'A' }]} />,
        );
        expect(screen.getAllByRole('option')).toHaveLength(1);
        rerender(
            <Select
                label="To"
                value=""
                onChange={() => {}}
                empty="none"
                options={[{ value: 'a', text: 'A' }]}
                problem="Choose."
            />,
        );
        expect(screen.getAllByRole('option')).toHaveLength(2);
        expect(screen.getByRole('alert').textContent).toBe('Choose.');
    });
});

describe('Mark', () => {
    it('gives every kind of status a shape of its own', () => {
        render(
            <>
                {(['good', 'bad', 'warn', 'idle', 'next'] as const).map((k) => (
                    <Mark key={k} kind={k}>
                        {k}
                    </Mark>
                ))}
            </>,
        );
        const shapes = (['good', 'bad', 'warn', 'idle', 'next'] as const).map(
            (k) => screen.getByText(k).previousSibling!.textContent,
        );
        expect(new Set(shapes).size).toBe(5);
    });
});

describe('ProblemNote', () => {
    it('shows the sentence and further reasons', () => {
        render(
            <ProblemNote
                problem={problem({
                    detail: 'Refused.',
                    errors: [
                        { pointer: '', detail: 'Step A is not done.' },
                        { pointer: '', detail: 'Step B is not done.' },
                    ],
                })}
            />,
        );
        expect(screen.getByRole('alert').textContent).toContain('Refused.');
        expect(screen.getAllByRole('listitem').map((li) => li.textContent)).toEqual([
            'Step A is not done.',
            'Step B is not done.',
        ]);
    });
    it('points at the fields instead of saying everything twice', () => {
        render(
            <ProblemNote
                problem={problem({ detail: 'Misread.', errors: [{ pointer: '/vin', detail: 'Misread.' }] })}
                except={['/vin']}
            />,
        );
        expect(screen.getByRole('alert').textContent).toBe('One field needs another look; it is marked above.');
    });
    it('lays both versions side by side after a clash', () => {
        render(
            <ProblemNote
                problem={problem({
                    status: 409,
                    detail: 'Somebody else changed it.',
                    current: { rack: 'R1', note: 'same' },
                    yours: { rack: 'R2', note: 'same' },
                })}
            />,
        );
        const rows = screen.getAllByRole('row').map((r) => r.textContent);
        expect(rows).toEqual(['FieldThere nowYours', 'rackR1R2']);
    });
    it('is silent without a problem', () => {
        const { container } = render(<ProblemNote problem={null} />);
        expect(container.innerHTML).toBe('');
    });
});

describe('More', () => {
    it('builds what is late when it is opened, and keeps what was typed when it is closed again', () => {
        render(
            <More late title="Ten thousand things">
                <input aria-label="first of them" />
            </More>,
        );
        const line = screen.getByRole('button', { name: 'Ten thousand things' });
        expect(document.querySelector('input')).toBeNull();
        fireEvent.click(line);
        fireEvent.change(screen.getByLabelText('first of them'), { target: { value: 'typed' } });
        fireEvent.click(line);
        expect(document.querySelector('input')?.value).toBe('typed');
    });
});
