import { useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { answer, api, type Schemas } from '../../api/client';
import { formatMoney } from '../../kit/format';
import { Field, Mark } from '../../kit/basics';
import { Fetched } from '../../kit/Fetched';

export function Stock() {
    const [params, setParams] = useSearchParams();
    const q = params.get('q') ?? '';
    const [typed, setTyped] = useState(q);
    const list = useInfiniteQuery({
        queryKey: ['stock', q],
        initialPageParam: undefined as string | undefined,
        getNextPageParam: (p: Schemas['StockPage']) => p.after ?? undefined,
        queryFn: ({ pageParam }) =>
            answer(api.GET('/stock', { params: { query: { q: q || undefined, after: pageParam } } })),
    });
    return (
        <>
            <h1 className="mb-2 text-3xl">Stock</h1>
            <form
                className="flex max-w-lg items-end gap-2"
                onSubmit={(e) => {
                    e.preventDefault();
                    setParams(typed ? { q: typed } : {});
                }}
            >
                <Field className="flex-1" label="Number, name or trade name" value={typed} onChange={setTyped} />
                <button type="submit" className="btn">
                    Search
                </button>
            </form>
            <Fetched query={list} what="the shelf">
                {(data) => (
                    <PartTable
                        parts={data.pages.flatMap((p) => p.parts)}
                        more={list.hasNextPage ? () => void list.fetchNextPage() : null}
                    />
                )}
            </Fetched>
        </>
    );
}

const COLUMNS = ['Part', 'Name', 'Kind', 'Thickness', 'Price', 'On the shelf'];

function PartTable({ parts, more }: { parts: Schemas['StockPage']['parts']; more: (() => void) | null }) {
    return (
        <div className="sheet mt-3 overflow-x-auto">
            <table className="w-full">
                <thead>
                    <tr>
                        {COLUMNS.map((h) => (
                            <th key={h} scope="col" className="th">
                                {h}
                            </th>
                        ))}
                    </tr>
                </thead>
                <tbody>
                    {parts.map((p) => (
                        <tr key={p.number}>
                            <td className="td font-semibold num">
                                <Link
                                    className="underline"
                                    to={`/interchange?desk=part&q=${encodeURIComponent(p.number)}`}
                                >
                                    {p.number}
                                </Link>
                            </td>
                            <td className="td">
                                {p.name}
                                {p.aliases.length > 0 && (
                                    <span className="text-sm text-faint"> also {p.aliases.join(', ')}</span>
                                )}
                            </td>
                            <td className="td">{p.kind}</td>
                            <td className="td num">{p.thickness != null && `${p.thickness} ${p.thicknessUnit}`}</td>
                            <td className="td num text-right">{formatMoney(p.price)}</td>
                            <td className="td num text-right">
                                {p.pieces > 0 ? (
                                    p.pieces
                                ) : (
                                    <Mark kind={p.kind === 'selective' ? 'warn' : 'idle'}>none</Mark>
                                )}
                            </td>
                        </tr>
                    ))}
                </tbody>
            </table>
            {parts.length === 0 && <p className="p-4 text-faint">No part is called that.</p>}
            {more && (
                <button type="button" className="btn m-3" onClick={more}>
                    More parts
                </button>
            )}
        </div>
    );
}
