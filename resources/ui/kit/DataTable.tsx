import {
    flexRender,
    getCoreRowModel,
    getSortedRowModel,
    useReactTable,
    type Cell,
    type ColumnDef,
    type Header,
    type SortingState,
} from '@tanstack/react-table';
import { useState, type ReactNode } from 'react';
import { formatCount } from './format';

export type Column<Row> = {
    id: string;
    title: string;
    cell: (row: Row) => ReactNode;
    /** What the column is sorted by; without it, it is not. */
    sort?: (row: Row) => string | number;
    /** The database can sort by this column, under its id. */
    sorted?: true;
    /** Numbers stand right. */
    right?: boolean;
    /** Names the row. */
    head?: boolean;
};

/** By which column the database sorts, a minus before it for the other way round; null for the usual order. */
export type Order = { by: string | null; change: (by: string) => void };

type Props<Row> = {
    columns: Column<Row>[];
    rows: Row[];
    rowId: (row: Row) => string;
    /** The id of the row that is open beside the list. */
    chosen?: string | undefined;
    empty: string;
    /** How many there are in all, when not every row is here. */
    total?: number;
    /** Sorts the list where it lies, all pages of it; without it only a list that is here whole is sorted. */
    order?: Order;
    /** Fetches the next page; null at the end of the list. */
    more?: { text: string; fetch: (() => void) | null; busy: boolean };
};

const place = (c: Column<unknown>) => (c.right ? 'text-right' : 'text-left');

const definition = <Row,>(c: Column<Row>, sorts: boolean): ColumnDef<Row> => ({
    id: c.id,
    header: c.title,
    cell: ({ row }) => c.cell(row.original),
    enableSorting: sorts,
    sortDescFirst: false,
    accessorFn: c.sort ?? (() => null),
    meta: c,
});

const stateOf = ({ by }: Order): SortingState =>
    by === null ? [] : [{ id: by.replace(/^-/, ''), desc: by.startsWith('-') }];

type Sorted<Row> = Pick<Props<Row>, 'columns' | 'rows' | 'rowId' | 'total' | 'order'>;

/** The rows, sorted by the column the person chose: by the database, or here where every row is here. */
function useSorted<Row>({ columns, rows, rowId, total, order }: Sorted<Row>) {
    // A page sorted by itself would look like the whole list sorted.
    const whole = total === undefined || rows.length === total;
    const [own, setOwn] = useState<SortingState>([]);
    const sorting = order ? stateOf(order) : own;
    const change = (next: SortingState) => {
        const [by] = next;
        if (!order) setOwn(next);
        else if (by) order.change((by.desc ? '-' : '') + by.id);
    };
    // eslint-disable-next-line react-hooks/incompatible-library -- a list is drawn anew with its rows; nothing is kept
    return useReactTable({
        data: rows,
        columns: columns.map((c) => definition(c, order ? c.sorted === true : whole && c.sort !== undefined)),
        state: { sorting },
        manualSorting: order !== undefined,
        enableSortingRemoval: order === undefined,
        onSortingChange: (to) => change(typeof to === 'function' ? to(sorting) : to),
        getRowId: rowId,
        getCoreRowModel: getCoreRowModel(),
        getSortedRowModel: getSortedRowModel(),
    });
}

/** Every list of the shop: columns that sort, and more rows when there are more. */
export function DataTable<Row>({ columns, rows, rowId, chosen, empty, total, order, more }: Props<Row>) {
    const table = useSorted({ columns, rows, rowId, total, ...(order && { order }) });
    return (
        <div className="sheet overflow-x-auto">
            <table className="w-full">
                <thead>
                    {table.getHeaderGroups().map((group) => (
                        <tr key={group.id}>
                            {group.headers.map((header) => (
                                <Heading key={header.id} header={header} />
                            ))}
                        </tr>
                    ))}
                </thead>
                <tbody>
                    {table.getRowModel().rows.map((row) => (
                        <tr
                            key={row.id}
                            className="aria-[current]:bg-wall"
                            aria-current={row.id === chosen ? 'true' : undefined}
                        >
                            {row.getVisibleCells().map((cell) => (
                                <Value key={cell.id} cell={cell} />
                            ))}
                        </tr>
                    ))}
                </tbody>
            </table>
            {rows.length === 0 && <p className="p-4 text-faint">{empty}</p>}
            <Foot shown={rows.length} total={total} more={more} />
        </div>
    );
}

/** How much of the list is here, and the way to the rest. */
function Foot({ shown, total, more }: { shown: number } & Pick<Props<unknown>, 'total' | 'more'>) {
    return (
        <>
            {more?.fetch && (
                <button type="button" className="btn m-3" onClick={more.fetch} disabled={more.busy}>
                    {more.text}
                </button>
            )}
            {total !== undefined && shown > 0 && (
                <p className="px-3 py-2 text-faint num">
                    {shown === total ? `All ${formatCount(total)}` : `${formatCount(shown)} of ${formatCount(total)}`}
                </p>
            )}
        </>
    );
}

function Value<Row>({ cell }: { cell: Cell<Row, unknown> }) {
    const column = cell.column.columnDef.meta as Column<unknown>;
    const Tag = column.head ? 'th' : 'td';
    return (
        <Tag
            {...(column.head && { scope: 'row' })}
            className={`td align-middle ${place(column)} ${column.right ? 'num' : ''}`}
        >
            {flexRender(cell.column.columnDef.cell, cell.getContext())}
        </Tag>
    );
}

const ORDER = { asc: 'ascending', desc: 'descending' } as const;

function Heading<Row>({ header }: { header: Header<Row, unknown> }) {
    const sorted = header.column.getIsSorted();
    const title = flexRender(header.column.columnDef.header, header.getContext());
    return (
        <th
            scope="col"
            className={`th ${place(header.column.columnDef.meta as Column<unknown>)}`}
            aria-sort={sorted ? ORDER[sorted] : undefined}
        >
            {header.column.getCanSort() ? (
                <button
                    type="button"
                    className="inline-flex min-h-9 items-center gap-1 font-semibold"
                    onClick={header.column.getToggleSortingHandler()}
                >
                    {title}
                    <span aria-hidden="true">{sorted === 'asc' ? '▲' : sorted === 'desc' ? '▼' : '↕'}</span>
                </button>
            ) : (
                title
            )}
        </th>
    );
}
