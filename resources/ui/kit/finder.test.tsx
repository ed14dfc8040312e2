import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { Finder, type Choices } from './Finder';

const MANY = Array.from({ length: 600 }, (_, n) => ({ value: `T-${n}`, text: `Tamsin ${String(n).padStart(4, '0')}` }));
let fails = false;
const asked: string[] = [];

const find = async (typed: string): Promise<Choices> => {
    asked.push(typed);
    if (fails) throw new Error('gone');
    const hit = MANY.filter((o) => o.value === typed || o.text.toLowerCase().startsWith(typed.toLowerCase()));
    return { options: hit.slice(0, 20), more: hit.length > 20 };
};

function Form({ first }: { first: string }) {
    const [value, setValue] = useState(first);
    return (
        <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
            <Finder label="Customer" of="customers" find={find} value={value} onChange={setValue} empty="none" />
            <output>{value}</output>
        </QueryClientProvider>
    );
}

// The list watches whether its field moves; here nothing has a size.
vi.stubGlobal(
    'ResizeObserver',
    class {
        observe() {}
        unobserve() {}
        disconnect() {}
    },
);

const field = () => screen.getByRole<HTMLInputElement>('combobox', { name: 'Customer' });

const choose = async (name: string) => {
    const option = await screen.findByRole('option', { name });
    fireEvent.mouseDown(option);
    fireEvent.click(option);
};

afterEach(() => {
    cleanup();
    fails = false;
    asked.length = 0;
});

describe('one out of too many for a list', () => {
    it('is looked for where they are, and says when there are more', async () => {
        render(<Form first="" />);
        fireEvent.change(field(), { target: { value: 'Tams' } });
        expect(await screen.findByText('There are more: type on.')).toBeTruthy();
        fireEvent.change(field(), { target: { value: 'Tamsin 0587' } });
        await choose('Tamsin 0587');
        expect(screen.getByRole('status').textContent).toBe('T-587');
        await waitFor(() => expect(field().value).toBe('Tamsin 0587'));
    });

    it('shows the name of what a draft had chosen, and lets it go', async () => {
        render(<Form first="T-599" />);
        await waitFor(() => expect(field().value).toBe('Tamsin 0599'));
        fireEvent.focus(field());
        await choose('none');
        expect(screen.getByRole('status').textContent).toBe('');
    });

    it('says that nothing begins so, and that the list did not come', async () => {
        render(<Form first="" />);
        fireEvent.change(field(), { target: { value: 'Xyz' } });
        expect(await screen.findByText('Nothing begins with “Xyz”.')).toBeTruthy();
        fails = true;
        fireEvent.change(field(), { target: { value: 'Xyzw' } });
        expect(await screen.findByText(/did not come/)).toBeTruthy();
    });
});
