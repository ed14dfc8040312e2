import { useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { answer, api, type Schemas } from '../../api/client';
import { formatMoney } from '../../kit/format';
import { Field, Loading, Mark, ProblemNote } from '../../kit/basics';

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
            {list.isPending && <Loading what="the shelf" />}
            <ProblemNote problem={(list.error as never) ?? null} />
            {list.data && (
                <div className="sheet mt-3 overflow-x-auto">
                    <table className="w-full">
                        <thead>
                            <tr>
                                {['Part', 'Name', 'Kind', 'Thickness', 'Price', 'On the shelf'].map((h) => (
                                    <th key={h} scope="col" className="th">
                                        {h}
                                    </th>
                                ))}
                            </tr>
                        </thead>
                        <tbody>
                            {list.data.pages
                                .flatMap((p) => p.parts)
                                .map((p) => (
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
                                        <td className="td num">
                                            {p.thickness != null && `${p.thickness} ${p.thicknessUnit}`}
                                        </td>
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
                    {list.hasNextPage && (
                        <button type="button" className="btn m-3" onClick={() => void list.fetchNextPage()}>
                            More parts
                        </button>
                    )}
                </div>
            )}
        </>
    );
}
