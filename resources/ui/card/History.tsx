import { useInfiniteQuery } from '@tanstack/react-query';
import { answer, api, type Schemas } from '../api/client';
import { moment } from '../kit/format';
import { HeadRow, Panel } from '../kit/basics';
import { Pending } from '../kit/Fetched';
import type { CardProps } from './section';

/** A payload as people read it: words for keys, yes and no, lists with commas; seals of frozen papers are left to the ledger. */
const spoken = (v: unknown): string =>
    typeof v === 'boolean'
        ? v
            ? 'yes'
            : 'no'
        : Array.isArray(v)
          ? v.map(spoken).join(', ')
          : typeof v === 'object' && v !== null
            ? Object.entries(v)
                  .map(([k, x]) => `${k} ${spoken(x)}`)
                  .join(' ')
            : String(v);
const words = (key: string) => key.replace(/([A-Z])/g, ' $1').toLowerCase();
const flat = (payload: unknown) =>
    Object.entries((payload ?? {}) as Record<string, unknown>)
        .filter(([k, v]) => v !== null && spoken(v) !== '' && !k.endsWith('Sha256'))
        .map(([k, v]) => `${words(k)}: ${spoken(v)}`)
        .join(' · ');

/** Every event of the unit, from the ledger. */
export function History({ card }: CardProps) {
    const list = useInfiniteQuery({
        queryKey: ['history', card.coreTag, card.version, card.station],
        initialPageParam: undefined as number | undefined,
        getNextPageParam: (p: Schemas['History']) => p.before ?? undefined,
        queryFn: ({ pageParam }) =>
            answer(
                api.GET('/units/{number}/history', {
                    params: { path: { number: card.coreTag }, query: { before: pageParam } },
                }),
            ),
    });
    if (!list.data) return <Pending of={[list]} what="the history" />;
    return (
        <Panel title="History" aside="append-only, each event chained to the one before">
            <table className="w-full text-sm">
                <HeadRow of={['No.', 'When', 'Who', 'What', 'Details', 'Seal']} />
                <tbody>
                    {list.data.pages
                        .flatMap((p) => p.events)
                        .map((e) => (
                            <tr key={e.seq}>
                                <td className="td num">{e.seq}</td>
                                <td className="td num whitespace-nowrap">{moment(e.at)}</td>
                                <td className="td whitespace-nowrap">{e.by}</td>
                                <td className="td font-semibold whitespace-nowrap">{e.kind.replace('.', ' ')}</td>
                                <td className="td max-w-xl break-words">{flat(e.payload).slice(0, 260)}</td>
                                <td className="td font-mono text-faint">{e.hash}</td>
                            </tr>
                        ))}
                </tbody>
            </table>
            {list.hasNextPage && (
                <button type="button" className="btn mt-2" onClick={() => void list.fetchNextPage()}>
                    Older events
                </button>
            )}
        </Panel>
    );
}
