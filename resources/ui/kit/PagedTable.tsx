import type { InfiniteData, UseInfiniteQueryResult } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import { Field } from './basics';
import { DataTable, type Column, type Order } from './DataTable';
import { Fetched } from './Fetched';

type Props<Page, Row> = {
    query: UseInfiniteQueryResult<InfiniteData<Page>>;
    /** What is fetched, in the sentence when it does not come. */
    what: string;
    columns: Column<Row>[];
    rows: (page: Page) => Row[];
    rowId: (row: Row) => string;
    total?: (page: Page) => number;
    empty: string;
    order?: Order;
    more: string;
    /** Stands above the rows once they are there. */
    above?: (first: Page) => ReactNode;
};

/** A list that comes in pages: as much as was asked for, with its true total. */
export function PagedTable<Page, Row>({ query, what, rows, total, more, above, ...table }: Props<Page, Row>) {
    return (
        <Fetched query={query} what={what}>
            {({ pages }) => (
                <div className="mt-3">
                    {pages[0] !== undefined && above?.(pages[0])}
                    <DataTable
                        {...table}
                        rows={pages.flatMap(rows)}
                        {...(total && pages[0] !== undefined && { total: total(pages[0]) })}
                        more={{
                            text: more,
                            fetch: query.hasNextPage ? () => void query.fetchNextPage() : null,
                            busy: query.isFetchingNextPage,
                        }}
                    />
                </div>
            )}
        </Fetched>
    );
}

/** The order of a list as the address of the page keeps it. */
export function useOrder(): Order & { asked: { sort?: string } } {
    const [params, setParams] = useSearchParams();
    const by = params.get('sort');
    return {
        by,
        asked: by === null ? {} : { sort: by },
        change: (sort) => setParams({ ...Object.fromEntries(params), sort }),
    };
}

/** One line to search a list by; Enter or the button asks. */
export function SearchLine({ label, asked, ask }: { label: string; asked: string; ask: (q: string) => void }) {
    const [typed, setTyped] = useState(asked);
    return (
        <form
            className="flex max-w-lg items-end gap-2"
            onSubmit={(e) => {
                e.preventDefault();
                ask(typed);
            }}
        >
            <Field className="flex-1" label={label} value={typed} onChange={setTyped} />
            <button type="submit" className="btn">
                Search
            </button>
        </form>
    );
}
