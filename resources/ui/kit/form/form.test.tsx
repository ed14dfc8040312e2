import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { z } from 'zod';
import type { Problem } from '../../api/client';
import { fieldsOf, FormFields, FormProblem, useForm } from '.';
import { fieldOf, sentencesOf } from './problems';
import { maybe, said, typedNumber, words } from './values';

afterEach(cleanup);
beforeEach(() => localStorage.clear());

const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={new QueryClient()}>{children}</QueryClientProvider>
);
const problem = (errors: Problem['errors']): Problem => ({
    type: 'about:blank',
    title: 'Not accepted',
    status: 422,
    detail: 'Two things are wrong.',
    ...(errors && { errors }),
});
const refused = (errors: Problem['errors']) => ({
    error: problem(errors),
    response: new Response(null, { status: 422 }),
});

const schema = z.object({
    codes: words,
    rack: maybe,
    hours: typedNumber('Type a number.'),
    why: said('Say why.'),
    converter: z.object({ serial: z.string() }),
    checked: z.array(z.string()),
});
type Typed = z.input<typeof schema>;
const { Text, Area, Checks } = fieldsOf<Typed>();
const START: Typed = {
    codes: '',
    rack: '',
    hours: '0',
    why: '',
    converter: { serial: '' },
    checked: [],
};

function Sheet({ call, done, draft }: { call: (typed: unknown) => unknown; done?: () => void; draft?: string }) {
    const form = useForm({ schema, start: START, ...(draft !== undefined && { draft }) });
    return (
        <FormFields of={form}>
            <Text name="codes" label="Codes" upper />
            <Text name="rack" label="Rack" />
            <Text name="hours" label="Hours" />
            <Area name="why" label="Why" />
            <Text name="converter.serial" label="Serial" />
            <Checks name="checked" label="Checked" values={[{ value: 'oil', text: 'Oil' }]} />
            <FormProblem of={form} />
            {/* The answers of these tests belong to no route of the contract. */}
            <button type="button" onClick={form.submit(call as never, done)}>
                Send
            </button>
            <button type="button" onClick={form.clear}>
                Begin anew
            </button>
        </FormFields>
    );
}

const type = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } });
const send = () => fireEvent.click(screen.getByRole('button', { name: 'Send' }));

describe('problem documents', () => {
    it('name a field by its pointer, escapes and all', () => {
        expect(fieldOf('/converter/serial')).toBe('converter.serial');
        expect(fieldOf('/missing/0/part')).toBe('missing.0.part');
        expect(fieldOf('/a~1b/c~0d')).toBe('a/b.c~d');
    });
    it('say the first sentence of a field', () => {
        const two = [
            { pointer: '/why', detail: 'first' },
            { pointer: '/why', detail: 'second' },
        ];
        expect(sentencesOf(problem(two))).toEqual({ why: 'first' });
        expect(sentencesOf(null)).toEqual({});
    });
});

describe('a form', () => {
    it('turns what was typed into what the contract takes', async () => {
        const call = vi.fn(() => Promise.resolve({ data: {}, response: new Response() }));
        const done = vi.fn();
        render(<Sheet call={call} done={done} />, { wrapper });
        type('Codes', 'p0741, p0730');
        type('Hours', ' 1.5 ');
        type('Why', 'because');
        fireEvent.click(screen.getByLabelText('Oil'));
        send();
        await waitFor(() => expect(done).toHaveBeenCalled());
        expect(call).toHaveBeenCalledWith({
            codes: ['P0741', 'P0730'],
            rack: null,
            hours: 1.5,
            why: 'because',
            converter: { serial: '' },
            checked: ['oil'],
        });
    });
    it('sends nothing while a field says what is wrong with it', async () => {
        const call = vi.fn();
        render(<Sheet call={call} />, { wrapper });
        type('Hours', '1,5');
        send();
        await waitFor(() => expect(screen.getByText('Type a number.')).toBeTruthy());
        expect(screen.getByText('Say why.')).toBeTruthy();
        const hours = screen.getByLabelText('Hours');
        expect(hours.getAttribute('aria-invalid')).toBe('true');
        expect(document.getElementById(hours.getAttribute('aria-describedby') ?? '')?.textContent).toBe(
            'Type a number.',
        );
        expect(call).not.toHaveBeenCalled();
    });
    it('shows a refusal at its field and what belongs to none below, and keeps what was typed', async () => {
        const errors = [
            { pointer: '/converter/serial', detail: 'This converter is already here.' },
            { pointer: '/elsewhere', detail: 'Nothing of that is on the shelf.' },
        ];
        render(<Sheet call={() => Promise.resolve(refused(errors))} />, { wrapper });
        type('Serial', 'CV-1');
        type('Why', 'because');
        send();
        await waitFor(() => expect(screen.getByText('This converter is already here.')).toBeTruthy());
        const serial = screen.getByLabelText<HTMLInputElement>('Serial');
        expect([serial.getAttribute('aria-invalid'), serial.value]).toEqual(['true', 'CV-1']);
        expect(screen.getByText('Nothing of that is on the shelf.')).toBeTruthy();
        expect(screen.getAllByText('This converter is already here.')).toHaveLength(1);
    });
    it('keeps a draft on the tablet until it is begun anew', () => {
        const { unmount } = render(<Sheet call={vi.fn()} draft="sheet" />, { wrapper });
        type('Rack', 'R2-3');
        unmount();
        render(<Sheet call={vi.fn()} draft="sheet" />, { wrapper });
        expect(screen.getByLabelText<HTMLInputElement>('Rack').value).toBe('R2-3');
        fireEvent.click(screen.getByRole('button', { name: 'Begin anew' }));
        expect(screen.getByLabelText<HTMLInputElement>('Rack').value).toBe('');
        cleanup();
        render(<Sheet call={vi.fn()} draft="sheet" />, { wrapper });
        expect(screen.getByLabelText<HTMLInputElement>('Rack').value).toBe('');
    });
});
