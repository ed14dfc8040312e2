import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { DataTable, type Column } from './DataTable';

afterEach(cleanup);

type Row = { name: string; owed: number };
const columns: Column<Row>[] = [
    { id: 'name', title: 'Customer', head: true, sort: (r) => r.name, cell: (r) => r.name },
    { id: 'owed', title: 'Owes', right: true, sort: (r) => r.owed, cell: (r) => r.owed },
    { id: 'open', title: 'Open', cell: () => 'open' },
];
const rows = [
    { name: 'Birch', owed: 10 },
    { name: 'Alder', owed: 9 },
    { name: 'Cedar', owed: 100 },
];
const names = () => screen.getAllByRole('rowheader').map((h) => h.textContent);

describe('DataTable', () => {
    it('sorts by what a column means, not by its letters, and says so', () => {
        render(<DataTable columns={columns} rows={rows} rowId={(r) => r.name} empty="none" />);
        expect(names()).toEqual(['Birch', 'Alder', 'Cedar']);
        const owes = screen.getByRole('columnheader', { name: /Owes/ });
        fireEvent.click(within(owes).getByRole('button'));
        expect(names()).toEqual(['Alder', 'Birch', 'Cedar']);
        expect(owes.getAttribute('aria-sort')).toBe('ascending');
        fireEvent.click(within(owes).getByRole('button'));
        expect(names()).toEqual(['Cedar', 'Birch', 'Alder']);
        expect(owes.getAttribute('aria-sort')).toBe('descending');
    });
    it('offers no sorting where a column has no order', () => {
        render(<DataTable columns={columns} rows={rows} rowId={(r) => r.name} empty="none" />);
        expect(within(screen.getByRole('columnheader', { name: 'Open' })).queryByRole('button')).toBeNull();
    });
    it('sorts nothing while only a part of the list is here, and says how much is', () => {
        render(<DataTable columns={columns} rows={rows} rowId={(r) => r.name} empty="none" total={4000} />);
        expect(within(screen.getByRole('columnheader', { name: 'Owes' })).queryByRole('button')).toBeNull();
        expect(screen.getByText('3 of 4,000')).toBeTruthy();
    });
    it('lets the database sort a list that is here in part, and keeps its order', () => {
        const change = vi.fn();
        const served = columns.map((c) => (c.id === 'owed' ? { ...c, sorted: true as const } : c));
        const list = (by: string | null) => (
            <DataTable
                columns={served}
                rows={rows}
                rowId={(r) => r.name}
                empty="none"
                total={4000}
                order={{ by, change }}
            />
        );
        const { rerender } = render(list(null));
        const owes = () => screen.getByRole('columnheader', { name: /Owes/ });
        expect(within(screen.getByRole('columnheader', { name: 'Customer' })).queryByRole('button')).toBeNull();
        fireEvent.click(within(owes()).getByRole('button'));
        expect(change).toHaveBeenLastCalledWith('owed');
        rerender(list('owed'));
        expect(owes().getAttribute('aria-sort')).toBe('ascending');
        expect(names()).toEqual(['Birch', 'Alder', 'Cedar']);
        fireEvent.click(within(owes()).getByRole('button'));
        expect(change).toHaveBeenLastCalledWith('-owed');
        rerender(list('-owed'));
        fireEvent.click(within(owes()).getByRole('button'));
        expect(change).toHaveBeenLastCalledWith('owed');
    });
    it('says when there is nothing, and fetches more while there is more', () => {
        const fetch = vi.fn();
        const { rerender } = render(
            <DataTable
                columns={columns}
                rows={[]}
                rowId={(r) => r.name}
                empty="No customer yet."
                more={{ text: 'More', fetch, busy: false }}
            />,
        );
        expect(screen.getByText('No customer yet.')).toBeTruthy();
        fireEvent.click(screen.getByRole('button', { name: 'More' }));
        expect(fetch).toHaveBeenCalledOnce();
        rerender(
            <DataTable
                columns={columns}
                rows={rows}
                rowId={(r) => r.name}
                empty="No customer yet."
                more={{ text: 'More', fetch: null, busy: false }}
            />,
        );
        expect(screen.queryByText('No customer yet.')).toBeNull();
        expect(screen.queryByRole('button', { name: 'More' })).toBeNull();
    });
});
