import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';

const seen = vi.hoisted(() => ({ sent: [] as [string, unknown][], answer: Response.json({}) }));
vi.mock('openapi-fetch', async (load) => {
    const real = await load<typeof import('openapi-fetch')>();
    const fetch = async (r: Request) => {
        seen.sent.push([new URL(r.url).pathname, await r.json()]);
        return seen.answer.clone();
    };
    return { ...real, default: (o: object) => real.default({ ...o, baseUrl: 'http://yard.test/api', fetch }) };
});

import { Life } from './Life';

const onCard = vi.fn();
type Props = Parameters<typeof Life>[0];

function shown(station = 'teardown') {
    const entry = { km: 142000, typed: '142000', kind: 'complaint', said: 'flares into third', by: 'Mara Quill' };
    const life = { entries: [entry], says: ['It began at 142 000 km: flares into third.'] };
    // Only what the panel reads of a card.
    const props = { section: { life }, card: { coreTag: 'C-1', station }, onCard, can: () => true } as unknown as Props;
    render(
        <QueryClientProvider client={new QueryClient()}>
            <Life {...props} />
        </QueryClientProvider>,
    );
}

beforeEach(() => {
    seen.sent = [];
    onCard.mockClear();
    seen.answer = Response.json({ coreTag: 'C-1' });
});
afterEach(cleanup);

it('tells what began when, and what that says', async () => {
    shown();
    expect(screen.getByText('It began at 142 000 km: flares into third.')).toBeTruthy();
    const button = screen.getByRole('button', { name: 'Tell it' }) as HTMLButtonElement;
    expect(button.disabled, 'what it was is never preselected').toBe(true);
    fireEvent.change(screen.getByLabelText('At about (km)'), { target: { value: '90 000 mi' } });
    fireEvent.change(screen.getByLabelText('What it was'), { target: { value: 'upgrade' } });
    fireEvent.change(screen.getByLabelText('In a few words'), { target: { value: 'deep pan' } });
    fireEvent.click(button);
    await waitFor(() => expect(onCard).toHaveBeenCalled());
    expect(seen.sent).toEqual([
        ['/api/units/C-1/teardown/timeline', { at: '90 000 mi', kind: 'upgrade', said: 'deep pan' }],
    ]);
    fireEvent.click(screen.getByRole('button', { name: 'Strike: flares into third' }));
    await waitFor(() => expect(seen.sent).toHaveLength(2));
    expect(seen.sent[1]).toEqual([
        '/api/units/C-1/teardown/timeline/struck',
        { km: 142000, kind: 'complaint', said: 'flares into third' },
    ]);
});

it('puts a refusal beside its field and keeps what was typed', async () => {
    const detail = 'That is after it came in, at 120000 km.';
    seen.answer = Response.json(
        { type: 'about:blank', title: 'No', status: 422, detail, errors: [{ pointer: '/at', detail }] },
        { status: 422, headers: { 'Content-Type': 'application/problem+json' } },
    );
    shown();
    fireEvent.change(screen.getByLabelText('At about (km)'), { target: { value: '999999' } });
    fireEvent.change(screen.getByLabelText('What it was'), { target: { value: 'service' } });
    fireEvent.click(screen.getByRole('button', { name: 'Tell it' }));
    expect(await screen.findByText(detail)).toBeTruthy();
    expect((screen.getByLabelText('At about (km)') as HTMLInputElement).value).toBe('999999');
});

it('is read only where its story is over', () => {
    shown('field');
    expect(screen.queryByRole('button', { name: /Strike/ })).toBeNull();
    expect(screen.queryByLabelText('At about (km)')).toBeNull();
});
