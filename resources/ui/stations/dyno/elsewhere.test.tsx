import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

const seen = vi.hoisted(() => ({ fetch: null as null | ((r: Request) => Promise<Response>) }));
vi.mock('openapi-fetch', async (load) => {
    const real = await load<typeof import('openapi-fetch')>();
    const fetch = (r: Request) => seen.fetch?.(r) ?? Promise.reject(new Error('no answer'));
    return { ...real, default: (o: object) => real.default({ ...o, baseUrl: 'http://yard.test/api', fetch }) };
});

import { columnsOf } from './columns';
import { Elsewhere } from './Elsewhere';

describe('the columns of a file', () => {
    it.each([
        ['plain', 't_s,input_rpm\n0,800\n', ['t_s', 'input_rpm']],
        [
            'below a preamble',
            'Logger 7\nmade;in spring\nTime;Engine;Out\n[s];[rpm];[rpm]\n0,0;800;1\n',
            ['Time', 'Engine', 'Out'],
        ],
        ['quoted, with tabs and a mark', '\uFEFF"Time"\t"Engine"\n0\t800\n', ['Time', 'Engine']],
        ['none', 'dear diary\ntoday it rained', []],
        ['numbers alone', '1,2\n3,4\n', []],
    ])('%s', (_, text, columns) => expect(columnsOf(text)).toEqual(columns));
});

let sent: { as: unknown; file: string }[];
const onCard = vi.fn();
const onTaken = vi.fn();
const shown = (can = true) => {
    const props = { card: { coreTag: 'C-1' }, can: () => can, onCard, onTaken };
    return render(
        <QueryClientProvider client={new QueryClient()}>
            <Elsewhere {...props} />
        </QueryClientProvider>,
    );
};
const choose = (text: string) => {
    const file = new File([text], 'drive.csv', { type: 'text/csv' });
    fireEvent.change(screen.getByLabelText(/CSV file/), { target: { files: [file] } });
};
const pick = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } });

beforeEach(() => {
    sent = [];
    seen.fetch = async (r) => {
        if (r.method === 'GET') return Response.json({ coreTag: 'C-1' });
        const form = await r.formData();
        sent.push({ as: JSON.parse(form.get('as') as string), file: typeof form.get('file') });
        return Response.json({ id: 7 }, { status: 201 });
    };
});
afterEach(cleanup);

describe('a recording of another rig', () => {
    it('sends what was said of its columns, and nothing of what was not', async () => {
        shown();
        fireEvent.click(screen.getByRole('button', { name: /Look at a recording/ }));
        choose('Time;Engine;Out;Oil\n0;80;500;70\n');
        await screen.findByLabelText('Speed in');
        pick('Speed in', 'Engine');
        pick('Speed in, in', 'rad/s');
        pick('Speed out', 'Out');
        pick('Speed out, in', 'rpm');
        pick('Time', 'Time');
        pick('Time, in', 'ms');
        fireEvent.click(screen.getByRole('button', { name: 'Read it' }));
        await waitFor(() => expect(sent).toHaveLength(1));
        expect(sent[0]).toEqual({
            file: 'object',
            as: {
                time: { column: 'Time', unit: 'ms' },
                rate_hz: null,
                channels: {
                    input_rpm: { column: 'Engine', unit: 'rad/s' },
                    output_rpm: { column: 'Out', unit: 'rpm' },
                },
            },
        });
        await waitFor(() => expect(onCard).toHaveBeenCalled());
        expect(onTaken).toHaveBeenCalledWith(7);
    });

    it('knows the names of the house, and says when there are none', async () => {
        shown();
        fireEvent.click(screen.getByRole('button', { name: /Look at a recording/ }));
        choose('t_s,input_rpm,output_rpm\n0,1,2\n');
        const input = await screen.findByLabelText<HTMLSelectElement>('Speed in');
        expect([input.value, screen.getByLabelText<HTMLSelectElement>('Speed in, in').value]).toEqual([
            'input_rpm',
            'rpm',
        ]);
        expect(screen.getByLabelText<HTMLSelectElement>('Oil').value).toBe('');
        choose('dear diary');
        expect((await screen.findByRole('alert')).textContent).toContain('No line of names');
    });

    it('is not for who may not run a unit', () => {
        shown(false);
        expect(screen.queryByRole('button')).toBeNull();
    });
});
