import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { useState } from 'react';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { QuantityReader, quantityOf, unitOf, type ReadQuantity } from '../../kit/quantity';
import { SchemaForm, words, type Schema } from '../../kit/SchemaForm';
import { Answer, Beside } from './CalculatorAnswer';
import { HouseRules } from './HouseRules';

// The client keeps the fetch it finds when it is made; the calls go through the one of the window.
const seen = vi.hoisted(() => ({ fetch: null as null | ((r: Request) => Promise<Response>) }));
vi.mock('openapi-fetch', async (original) => {
    const real = (await original()) as { default: (o: object) => unknown };
    return {
        ...real,
        default: (o: object) =>
            real.default({ ...o, baseUrl: 'http://yard.test/api', fetch: (r: Request) => seen.fetch!(r) }),
    };
});

const sent: { method: string; path: string; body: unknown }[] = [];
let abilities: string[] = [];
let rules: object[] = [];
let refuse: object | null = null;

beforeEach(() => {
    sent.length = 0;
    abilities = ['shop.set-rules'];
    refuse = null;
    seen.fetch = async (r) => {
        const path = new URL(r.url).pathname;
        if (path === '/api/session')
            return Response.json({ person: { badge: '1', name: 'Mara', role: 'manager', abilities } });
        if (path.endsWith('/reach'))
            return Response.json({
                unitsAhead: 19,
                ordersOpen: 2,
                buildsFrozen: 17,
                thin: path.includes('margin') ? { limit: 1.15, builds: 3, serial: 'VY-1', margin: 1.1044 } : null,
            });
        if (r.method === 'PUT') {
            sent.push({ method: r.method, path, body: await r.clone().json() });
            if (refuse) return Response.json(refuse, { status: 422 });
        }
        return Response.json({ rules });
    };
});
afterEach(cleanup);

const mount = (ui: React.ReactNode) =>
    render(
        <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
            <MemoryRouter>{ui}</MemoryRouter>
        </QueryClientProvider>,
    );

const schema: Schema = {
    type: 'object',
    required: ['torque_nm', 'kind', 'slots', 'bare'],
    properties: {
        torque_nm: { type: 'number' },
        kind: { enum: ['clutch', 'band'] },
        bare: { type: 'boolean' },
        slots: {
            type: 'array',
            items: { type: 'object', required: ['part'], properties: { part: { type: 'string' } } },
        },
        note: { type: 'string' },
    },
};

function Form({ start, read }: { start: unknown; read?: ReadQuantity }) {
    const [value, setValue] = useState(start);
    return (
        <QuantityReader.Provider value={read ?? null}>
            <SchemaForm
                schema={schema}
                value={value}
                onChange={setValue}
                problems={[{ pointer: '/slots/0/part', detail: 'There is no such part.' }]}
            />
            <output>{JSON.stringify(value)}</output>
        </QuantityReader.Provider>
    );
}
const value = () => JSON.parse(screen.getByRole('status').textContent!);

describe('the form made from a schema', () => {
    const start = { torque_nm: 20, kind: 'clutch', slots: [{ part: 'P-1' }], bare: false };

    it('writes names as words and knows the unit a name ends in', () => {
        expect(words('engineTorque_nm')).toBe('engine torque (N.m)');
        expect(words('clearance_in')).toBe('clearance (in)');
        expect(words('F1')).toBe('F1');
        expect(quantityOf('temp_degc')).toEqual({ unit: 'degC', kind: 'temperature' });
        expect([quantityOf('area_mm2'), quantityOf('count')], 'plain numbers only').toEqual([null, null]);
        expect([unitOf('line_kpa'), unitOf('speed_rpm'), unitOf('count')]).toEqual(['kPa', 'rpm', null]);
    });

    it('takes a typed quantity into the unit of the field and keeps what cannot be read, with its sentence', async () => {
        const read = vi.fn(async (typed: string) =>
            typed === '18 ft-lb' ? 24.4 : '"3 psi" is a pressure, not a torque.',
        );
        mount(<Form start={start} read={read} />);
        const field = screen.getByLabelText(/torque \(N\.m\)/);
        fireEvent.change(field, { target: { value: '18 ft-lb' } });
        fireEvent.blur(field);
        await waitFor(() => expect(value().torque_nm).toBe(24.4));
        expect(read).toHaveBeenCalledWith('18 ft-lb', { unit: 'N.m', kind: 'torque' });
        fireEvent.change(field, { target: { value: '3 psi' } });
        fireEvent.blur(field);
        expect(await screen.findByText('"3 psi" is a pressure, not a torque.')).toBeTruthy();
        expect(value().torque_nm).toBe('3 psi');
        expect((field as HTMLInputElement).value).toBe('3 psi');
    });

    it('asks for a decimal point instead of guessing what a comma means', () => {
        mount(<Form start={start} read={async () => 1} />);
        fireEvent.change(screen.getByLabelText(/torque/), { target: { value: '0,024' } });
        expect(screen.getByText('Write a decimal point: 0.024')).toBeTruthy();
    });

    it('puts the problem of a nested field at that field', () => {
        mount(<Form start={start} />);
        const alert = screen.getByText('There is no such part.');
        expect(alert.closest('div')!.querySelector('input')!.value).toBe('P-1');
    });

    it('adds what is optional and takes it away again', () => {
        mount(<Form start={start} />);
        expect(value()).not.toHaveProperty('note');
        fireEvent.click(screen.getByRole('button', { name: 'add note' }));
        expect(value().note).toBe('');
        fireEvent.click(screen.getByRole('button', { name: 'Remove note' }));
        expect(value()).not.toHaveProperty('note');
    });
});

describe('the answer of a calculator', () => {
    const decides = { path: '/best/clearance_in', words: 'Clearance' };
    const out = (clearance: number, more: object = {}) => ({
        best: { clearance_in: clearance, picks: [{ slot: 'backing, "thick"', part: 'BP-1' }] },
        ok: true,
        none: null,
        ...more,
    });

    it('shows the number that decides, what it was made from, and tables as CSV after RFC 4180', () => {
        mount(<Answer name="fit.stack" decides={decides} out={out(0.0251239)} onKeep={() => {}} />);
        expect(screen.getByText(/^0\.0251239/, { selector: 'strong' }).textContent).toContain('0.0251239');
        expect(screen.getByText('yes')).toBeTruthy();
        const csv = screen.getByRole('link', { name: 'as CSV' });
        expect(csv.getAttribute('download')).toBe('fit.stack-best-picks.csv');
        expect(decodeURIComponent(csv.getAttribute('href')!.split(',').slice(1).join(','))).toBe(
            'slot,part\r\n"backing, ""thick""",BP-1',
        );
    });

    it('says when an input has no answer of the kind', () => {
        mount(<Answer name="fit.stack" decides={decides} out={{ status: 'none' }} onKeep={() => {}} />);
        expect(screen.getByText('no answer of this kind')).toBeTruthy();
    });

    it('lays answers side by side with what was changed for each', () => {
        const drop = vi.fn();
        const input = (depth: number, part: string) => ({ depth, slots: [{ part }] });
        mount(
            <Beside
                decides={decides}
                kept={[
                    { input: input(1.2, 'A'), out: out(0.02) },
                    { input: input(1.3, 'B'), out: out(0.12) },
                    { input: input(1.2, 'A'), out: out(0.02) },
                ]}
                onDrop={drop}
            />,
        );
        const text = screen.getByRole('region', { name: 'Side by side' }).textContent!;
        expect(text).toContain('the first one kept');
        expect(text).toContain('depth: 1.3; slots 1, part: B');
        expect(text).toContain('the same input');
        fireEvent.click(screen.getAllByRole('button', { name: 'take away' })[1]!);
        expect(drop).toHaveBeenCalledWith(1);
    });
});

const rule = (code: string, more: object = {}) => ({
    code,
    station: 'ordering',
    question: `Question of ${code}`,
    kind: 'number',
    unit: 'times',
    choices: [],
    default: '1.15',
    min: 1,
    max: 5,
    source: 'common practice, no source',
    changes: 'Whether it holds.',
    choice: '1.15',
    reason: '',
    setBy: null,
    version: 0,
    ...more,
});

describe('the house rules', () => {
    beforeEach(() => {
        rules = [
            rule('labour-rate', { station: 'money', unit: 'an hour' }),
            rule('margin-limit'),
            rule('steels', {
                station: 'assembly',
                kind: 'choice',
                unit: '',
                choices: [
                    { value: 'always new', means: 'never argued with' },
                    { value: 'reuse bright flat ones', means: 'they are bedded in' },
                ],
                choice: 'reuse bright flat ones',
                reason: 'Forty years of it.',
                setBy: 'Mara Quill',
                version: 2,
            }),
        ];
    });

    it('stand by station in the order of the work, money last, each with value and signature', async () => {
        mount(<HouseRules />);
        await screen.findByText('Question of margin-limit');
        expect(screen.getAllByRole('heading', { level: 2 }).map((h) => h.textContent)).toEqual([
            'Ordering',
            'Assembly',
            'Money',
        ]);
        expect(screen.getByRole('button', { name: /Question of margin-limit/ }).textContent).toContain('as shipped');
        expect(screen.getByRole('button', { name: /Question of steels/ }).textContent).toContain('Mara Quill');
    });

    it('say what a change would meet today before it is signed', async () => {
        mount(<HouseRules />);
        fireEvent.click(await screen.findByRole('button', { name: /Question of margin-limit/ }));
        await screen.findByText(/units with this still ahead/);
        const touched = screen.getByLabelText('What it touches today').textContent!;
        expect(touched).toContain('19');
        expect(touched).toContain('builds in work below 1.15; thinnest 1.10 on VY-1');
    });

    it('are signed with value, reason and the version that was seen; a refusal stands at its field', async () => {
        mount(<HouseRules />);
        fireEvent.click(await screen.findByRole('button', { name: /Question of margin-limit/ }));
        const field = await screen.findByLabelText('Value, times');
        expect((screen.getByRole('button', { name: 'Sign it' }) as HTMLButtonElement).disabled).toBe(true);
        refuse = {
            title: 'Not accepted',
            status: 422,
            detail: 'It must lie from 1 to 5 times.',
            errors: [{ pointer: '/choice', detail: 'It must lie from 1 to 5 times.' }],
        };
        fireEvent.change(field, { target: { value: '9' } });
        fireEvent.change(screen.getByLabelText(/Why the house/), { target: { value: 'Hot summers' } });
        fireEvent.click(screen.getByRole('button', { name: 'Sign it' }));
        await waitFor(() => expect(field.getAttribute('aria-invalid')).toBe('true'));
        expect((field as HTMLInputElement).value).toBe('9');
        expect(sent).toEqual([
            {
                method: 'PUT',
                path: '/api/house-rules/margin-limit',
                body: { choice: '9', reason: 'Hot summers', version: 0 },
            },
        ]);
    });

    it('show the schools side by side; who may not set them reads only', async () => {
        abilities = [];
        mount(<HouseRules />);
        fireEvent.click(await screen.findByRole('button', { name: /Question of steels/ }));
        const schools = await screen.findByRole('radiogroup', { name: 'Question of steels' });
        expect(
            within(schools)
                .getAllByRole('radio')
                .map((r) => r.getAttribute('aria-checked')),
        ).toEqual(['false', 'true']);
        expect(schools.textContent).toContain('never argued with');
        expect(screen.getByText(/Forty years of it/)).toBeTruthy();
        expect(screen.queryByRole('button', { name: 'Sign it' })).toBeNull();
    });
});
