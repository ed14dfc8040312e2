import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';

const seen = vi.hoisted(() => ({ fetch: null as null | ((r: Request) => Promise<Response>) }));
vi.mock('openapi-fetch', async (original) => {
    const real = (await original()) as { default: (o: object) => unknown };
    return {
        ...real,
        default: (o: object) =>
            real.default({ ...o, baseUrl: 'http://yard.test/api', fetch: (r: Request) => seen.fetch?.(r) }),
    };
});

import { api } from '../../api/client';
import { useIdleLock, useSession } from '../../api/session';
import { Locked } from './SignIn';

const JOSS = { badge: '101', name: 'Joss', role: 'receiver', abilities: [], shortestPin: null };
let server: { person: object | null; locked: object | null; idleMinutes: number };
let client: QueryClient;

beforeEach(() => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
    server = { person: JOSS, locked: null, idleMinutes: 10 };
    seen.fetch = async (r) => {
        const path = new URL(r.url).pathname;
        if (path === '/api/session/lock') server = { ...server, person: null, locked: { badge: '101', name: 'Joss' } };
        else if (path === '/api/session' && r.method === 'POST') {
            const { pin } = (await r.clone().json()) as { pin: string };
            if (pin !== '193742') {
                const detail = 'Badge and PIN do not go together.';
                return Response.json({ status: 422, detail, errors: [{ pointer: '/pin', detail }] }, { status: 422 });
            }
            server = { ...server, person: JOSS, locked: null };
        } else if (path === '/api/units' && !server.person)
            return Response.json({ status: 401, detail: 'Show a badge.' }, { status: 401 });
        return Response.json(server);
    };
});
afterEach(() => {
    cleanup();
    vi.useRealTimers();
});

function Tablet() {
    const { person, locked } = useSession();
    useIdleLock();
    if (!person) return <p>Sign in</p>;
    return (
        <>
            <textarea aria-label="Complaint" defaultValue="" />
            {locked && <Locked {...locked} />}
        </>
    );
}

const take = async () => {
    render(
        <QueryClientProvider client={client}>
            <Tablet />
        </QueryClientProvider>,
    );
    fireEvent.change(await screen.findByLabelText('Complaint'), { target: { value: 'no third, no four' } });
};
const wait = (minutes: number) => act(() => vi.advanceTimersByTimeAsync(minutes * 60_000));
const typed = () => screen.getByLabelText<HTMLTextAreaElement>('Complaint').value;

it('locks after the minutes of the house, not while somebody works, and keeps what was typed', async () => {
    await take();
    await wait(9);
    fireEvent.keyDown(window, { key: 'x' });
    await wait(9);
    expect(screen.queryByText('Locked: Joss')).toBeNull();
    await wait(1.2);
    expect(await screen.findByText('Locked: Joss')).toBeTruthy();
    expect(typed()).toBe('no third, no four');

    fireEvent.change(screen.getByLabelText('PIN'), { target: { value: '111111' } });
    fireEvent.click(screen.getByRole('button', { name: 'Go on' }));
    expect(await screen.findByText('Badge and PIN do not go together.')).toBeTruthy();
    fireEvent.change(screen.getByLabelText('PIN'), { target: { value: '193742' } });
    fireEvent.click(screen.getByRole('button', { name: 'Go on' }));
    await waitFor(() => expect(screen.queryByText('Locked: Joss')).toBeNull());
    expect(typed()).toBe('no third, no four');
});

it('asks for a badge at once when the server knows nobody any more', async () => {
    await take();
    server = { ...server, person: null };
    await act(async () => void (await api.GET('/units')));
    expect(await screen.findByText('Sign in')).toBeTruthy();
});

it('shows no page of another badge under the lock', async () => {
    server = { person: null, locked: { badge: '102', name: 'Pell' }, idleMinutes: 10 };
    client.setQueryData(['session'], { person: JOSS, locked: null, idleMinutes: 10 }, { updatedAt: 1 });
    render(
        <QueryClientProvider client={client}>
            <Tablet />
        </QueryClientProvider>,
    );
    expect(await screen.findByText('Sign in')).toBeTruthy();
});
