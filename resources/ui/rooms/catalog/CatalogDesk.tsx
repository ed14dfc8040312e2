import { Tab, TabGroup, TabList, TabPanel, TabPanels } from '@headlessui/react';
import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { answer, api, isProblem, type Schemas } from '../../api/client';
import { day, moment } from '../../kit/format';
import { useSession } from '../../api/session';
import { useWrite } from '../../api/useWrite';
import { Field, Loading, Mark, Panel, ProblemNote, Select } from '../../kit/basics';
import { Pending } from '../../kit/Fetched';
import { CsvFiles } from './CsvFiles';
import { blank, SchemaForm, type Schema } from '../../kit/SchemaForm';
import { OperationPicture } from './OperationPicture';

type Kinds = Schemas['CatalogKinds'];
type Entry = Schemas['CatalogEntry'];

const TABS = ['Entries', 'What changed', 'Packs and CSV'] as const;

/** The catalog on the desk: every entry with its history, what changed between two days, packs and files in and out. */
export function CatalogDesk() {
    const [params, setParams] = useSearchParams();
    const kinds = useQuery({
        queryKey: ['catalog-kinds'],
        queryFn: () => answer(api.GET('/catalog/kinds')),
        staleTime: 300_000,
    });
    const tab = TABS.findIndex((name) => name === params.get('tab'));
    if (!kinds.data) return <Pending of={[kinds]} what="the catalog desk" />;
    return (
        <TabGroup selectedIndex={Math.max(0, tab)} onChange={(i) => setParams(i === 0 ? {} : { tab: TABS[i] ?? '' })}>
            <div className="mb-2 flex flex-wrap items-center gap-3">
                <h1 className="text-3xl">Catalog desk</h1>
                <Link to="/catalog" className="underline">
                    trains and windows at a glance
                </Link>
                <span className="flex-1" />
                <TabList className="flex gap-1.5">
                    {TABS.map((name) => (
                        <Tab key={name} className={({ selected }) => `btn ${selected ? 'btn-chosen' : ''}`}>
                            {name}
                        </Tab>
                    ))}
                </TabList>
            </div>
            <TabPanels>
                <TabPanel>
                    <Entries kinds={kinds.data} />
                </TabPanel>
                <TabPanel>
                    <Changes kinds={kinds.data} />
                </TabPanel>
                <TabPanel>
                    <CsvFiles kinds={kinds.data} />
                </TabPanel>
            </TabPanels>
        </TabGroup>
    );
}

function Entries({ kinds }: { kinds: Kinds }) {
    const [params, setParams] = useSearchParams();
    const { can } = useSession();
    const kind = params.get('kind') || 'packs';
    const [family, q, asOf, key] = ['family', 'q', 'asOf', 'key'].map((k) => params.get(k) ?? '') as [
        string,
        string,
        string,
        string,
    ];
    const [typed, setTyped] = useState(q);
    const info = kinds.kinds.find((k) => k.kind === kind) ?? kinds.kinds[0]!;
    const set = (change: Record<string, string>) =>
        setParams(
            Object.fromEntries(Object.entries({ kind, family, q, asOf, key, ...change }).filter(([, v]) => v !== '')),
        );
    const list = useInfiniteQuery({
        queryKey: ['catalog-entries', kind, family, q, asOf],
        initialPageParam: undefined as string | undefined,
        getNextPageParam: (p: Schemas['CatalogEntries']) => p.after ?? undefined,
        queryFn: ({ pageParam }) =>
            answer(
                api.GET('/catalog/entries', {
                    params: {
                        query: {
                            kind,
                            ...(family && info.inFamily ? { family } : {}),
                            ...(q ? { q } : {}),
                            ...(asOf ? { asOf } : {}),
                            ...(pageParam ? { after: pageParam } : {}),
                        },
                    },
                }),
            ),
    });
    return (
        <div className="grid items-start gap-3 lg:grid-cols-[2fr_3fr]">
            <Panel title={info.title}>
                <div className="grid gap-2 sm:grid-cols-2">
                    <Select
                        label="Kind"
                        value={kind}
                        onChange={(v) => set({ kind: v, key: '', q: '' })}
                        options={kinds.kinds.map((k) => ({ value: k.kind, text: k.title }))}
                    />
                    {info.inFamily ? (
                        <Select
                            label="Family"
                            value={family}
                            onChange={(v) => set({ family: v })}
                            empty="all"
                            options={kinds.families.map((f) => ({ value: f.code, text: f.code }))}
                        />
                    ) : (
                        <span />
                    )}
                    <form
                        onSubmit={(e) => {
                            e.preventDefault();
                            set({ q: typed.trim() });
                        }}
                    >
                        <Field label="Find" value={typed} onChange={setTyped} hint="Enter searches" />
                    </form>
                    <Field
                        label="As it was on"
                        type="date"
                        value={asOf}
                        onChange={(v) => set({ asOf: v })}
                        hint={asOf ? undefined : 'empty: as it is now'}
                    />
                </div>
                {asOf && (
                    <p className="mt-1">
                        <Mark kind="warn">Looking back to {asOf}</Mark>{' '}
                        <button type="button" className="min-h-11 px-2 underline" onClick={() => set({ asOf: '' })}>
                            back to now
                        </button>
                    </p>
                )}
                {can('catalog.edit') && !asOf && (
                    <button type="button" className="btn my-2" onClick={() => set({ key: 'new' })}>
                        New entry
                    </button>
                )}
                {list.isError && <ProblemNote problem={isProblem(list.error) ? list.error : null} />}
                <ul className="mt-1 max-h-[32rem] overflow-y-auto">
                    {list.data?.pages
                        .flatMap((p) => p.entries)
                        .map((e) => (
                            <li key={e.key}>
                                <button
                                    type="button"
                                    aria-pressed={e.key === key}
                                    className={`flex min-h-11 w-full items-baseline gap-2 border-b border-rule px-2 py-1 text-left ${e.key === key ? 'bg-enamel text-enamel-ink' : ''}`}
                                    onClick={() => set({ key: e.key })}
                                >
                                    <strong className="num">{e.key.replaceAll('|', ' · ')}</strong>
                                    <span className="flex-1 truncate text-sm">{e.label}</span>
                                    {e.claims > 0 && <span className="text-sm">◆ {e.claims + 1} specifications</span>}
                                </button>
                            </li>
                        ))}
                </ul>
                {list.data?.pages[0]?.entries.length === 0 && <p className="text-faint">Nothing is found.</p>}
                {list.hasNextPage && (
                    <button type="button" className="btn mt-2" onClick={() => void list.fetchNextPage()}>
                        More
                    </button>
                )}
            </Panel>
            {key ? (
                <EntryView
                    key={`${kind}/${key}/${asOf}`}
                    kind={kind}
                    entryKey={key === 'new' ? null : key}
                    family={family}
                    kinds={kinds}
                    asOf={asOf}
                    editable={can('catalog.edit') && !asOf}
                    onKey={(k) => set({ key: k })}
                />
            ) : (
                <p className="sheet p-4 text-faint">Choose an entry to see it, its source and its history.</p>
            )}
        </div>
    );
}

function EntryView({
    kind,
    entryKey,
    family,
    kinds,
    asOf,
    editable,
    onKey,
}: {
    kind: string;
    entryKey: string | null;
    family: string;
    kinds: Kinds;
    asOf: string;
    editable: boolean;
    onKey: (key: string) => void;
}) {
    const entry = useQuery({
        queryKey: ['catalog-entry', kind, entryKey, asOf],
        queryFn: () =>
            answer(
                api.GET('/catalog/entry', {
                    params: { query: { kind, ...(entryKey ? { key: entryKey } : {}), ...(asOf ? { asOf } : {}) } },
                }),
            ),
    });
    if (entry.isError)
        return (
            <div className="sheet p-4">
                <ProblemNote problem={isProblem(entry.error) ? entry.error : null} />
            </div>
        );
    if (!entry.data) return <Pending of={[entry]} what="the entry" />;
    return (
        <div className="flex flex-col gap-3">
            <Editor
                key={entry.data.seen ?? 'new'}
                entry={entry.data}
                family={entryKey?.split('|')[0] ?? family}
                kinds={kinds}
                editable={editable}
                onKey={onKey}
            />
            {entryKey && <History kind={kind} entryKey={entryKey} />}
        </div>
    );
}

/** Kinds of entries that are work at a bench. */
const OPERATIONS = new Set(['teardown', 'assembly']);

function Editor({
    entry,
    family,
    kinds,
    editable,
    onKey,
}: {
    entry: Entry;
    family: string;
    kinds: Kinds;
    editable: boolean;
    onKey: (key: string) => void;
}) {
    const schema = entry.schema as Schema;
    const [node, setNode] = useState<unknown>(entry.node ?? blank(schema));
    const [at, setAt] = useState(family);
    const [removing, setRemoving] = useState(false);
    const { busy, problem, write } = useWrite();
    const client = useQueryClient();
    const info = kinds.kinds.find((k) => k.kind === entry.kind)!;
    const changed = JSON.stringify(node) !== JSON.stringify(entry.node);
    const done = async (key: string) => {
        await Promise.all(
            ['catalog-entries', 'catalog-entry', 'catalog-history', 'family', 'families'].map((k) =>
                client.invalidateQueries({ queryKey: [k] }),
            ),
        );
        onKey(key);
    };
    const save = () =>
        write(
            () =>
                api.POST('/catalog/entry', {
                    body: {
                        kind: entry.kind,
                        family: info.inFamily ? at : null,
                        key: entry.key,
                        seen: entry.seen,
                        node: node as Record<string, never>,
                    },
                }),
            (e) => void done(e.key!),
        );
    const remove = () =>
        write(
            () => api.DELETE('/catalog/entry', { body: { kind: entry.kind, key: entry.key! } }),
            () => void done(''),
        );
    return (
        <Panel title={entry.key?.replaceAll('|', ' · ') ?? `New: ${info.title.toLowerCase()}`} aside={info.title}>
            {entry.key === null && info.inFamily && (
                <Select
                    label="Family"
                    value={at}
                    onChange={setAt}
                    empty="choose"
                    options={kinds.families.map((f) => ({ value: f.code, text: f.name }))}
                    problem={problem?.errors?.find((e) => e.pointer === '/family')?.detail}
                />
            )}
            {info.claims && entry.key !== null && (
                <Claims entry={entry} editable={editable} onDone={() => void done(entry.key!)} />
            )}
            {at && OPERATIONS.has(entry.kind) && (
                <OperationPicture family={at} node={node as object} editable={editable} onChange={setNode} />
            )}
            <SchemaForm
                schema={schema}
                value={node}
                onChange={setNode}
                problems={problem?.errors ?? []}
                readOnly={!editable}
            />
            <ProblemNote problem={problem} />
            {editable && (
                <div className="sticky bottom-0 mt-3 flex flex-wrap gap-2 border-t border-rule bg-paper py-2">
                    <button
                        type="button"
                        className="btn btn-main"
                        disabled={busy || (entry.key !== null && !changed)}
                        onClick={() => void save()}
                    >
                        {entry.key === null ? 'Write it in' : changed ? 'Save the change' : 'Nothing changed yet'}
                    </button>
                    {changed && (
                        <button type="button" className="btn" onClick={() => setNode(entry.node ?? blank(schema))}>
                            Undo
                        </button>
                    )}
                    <span className="flex-1" />
                    {entry.key !== null &&
                        (removing ? (
                            <>
                                <button type="button" className="btn" disabled={busy} onClick={() => void remove()}>
                                    Yes, take it out
                                </button>
                                <button type="button" className="btn" onClick={() => setRemoving(false)}>
                                    Keep it
                                </button>
                            </>
                        ) : (
                            <button type="button" className="btn" onClick={() => setRemoving(true)}>
                                Take it out
                            </button>
                        ))}
                </div>
            )}
        </Panel>
    );
}

type Claim = {
    body: { window?: { min: number; max: number }; target?: number; unit?: string; torque?: string };
    source: string;
    edition: string;
    confidence: string;
    note?: string;
};

/** Conflicting specifications side by side; the house picks one and signs it. */
function Claims({ entry, editable, onDone }: { entry: Entry; editable: boolean; onDone: () => void }) {
    const node = entry.node as Claim & {
        claims?: Claim[];
        signed?: { by: string; on: string; reason: string };
    };
    const [reason, setReason] = useState('');
    const { busy, problem, write } = useWrite();
    if (!node.claims?.length) return node.signed ? <Signed {...node.signed} /> : null;
    const text = (c: Claim) =>
        c.body.window
            ? `${c.body.window.min} to ${c.body.window.max} ${c.body.unit ?? ''}${c.body.target !== undefined ? `, target ${c.body.target}` : ''}`
            : (c.body.torque ?? 'another body');
    return (
        <div className="mb-3 border-2 border-dashed border-warn p-3">
            <p>
                <Mark kind="warn">Two sources disagree</Mark> Both are kept, never averaged; the house picks one and
                signs it.
            </p>
            <table className="my-2 w-full">
                <tbody>
                    <tr>
                        <td className="td">
                            <Mark kind="good">in force</Mark>
                        </td>
                        <td className="td font-head text-xl num">{text(node)}</td>
                        <td className="td text-sm">
                            {node.confidence}: {node.source}
                            {node.signed && <Signed {...node.signed} />}
                        </td>
                        <td className="td" />
                    </tr>
                    {node.claims.map((c, i) => (
                        <tr key={i}>
                            <td className="td">
                                <Mark kind="idle">beside it</Mark>
                            </td>
                            <td className="td font-head text-xl num">{text(c)}</td>
                            <td className="td text-sm">
                                {c.confidence}: {c.source}
                                {c.note && <span className="block">{c.note}</span>}
                            </td>
                            <td className="td">
                                {editable && (
                                    <button
                                        type="button"
                                        className="btn"
                                        disabled={busy || !reason.trim()}
                                        onClick={() =>
                                            void write(
                                                () =>
                                                    api.POST('/catalog/entry/choice', {
                                                        body: {
                                                            kind: entry.kind,
                                                            key: entry.key!,
                                                            claim: i,
                                                            reason,
                                                            seen: entry.seen!,
                                                        },
                                                    }),
                                                onDone,
                                            )
                                        }
                                    >
                                        Pick this one
                                    </button>
                                )}
                            </td>
                        </tr>
                    ))}
                </tbody>
            </table>
            {editable && <Field label="Why the house picks it" value={reason} onChange={setReason} />}
            <ProblemNote problem={problem} />
        </div>
    );
}

const Signed = ({ by, on, reason }: { by: string; on: string; reason: string }) => (
    <span className="block text-sm">
        signed by {by} on {on}: {reason}
    </span>
);

function Change({ c }: { c: Schemas['CatalogChange'] }) {
    const show = (v: unknown) =>
        v === null || v === undefined ? 'nothing' : typeof v === 'object' ? JSON.stringify(v) : String(v);
    return (
        <li className="text-sm">
            <span className="text-faint">{c.at.slice(1).replaceAll('/', ' › ')}:</span>{' '}
            <span className="num line-through decoration-1">{show(c.before).slice(0, 120)}</span>{' '}
            <span aria-hidden="true">→</span>
            <span className="sr-only">became</span> <strong className="num">{show(c.after).slice(0, 120)}</strong>
        </li>
    );
}

function History({ kind, entryKey }: { kind: string; entryKey: string }) {
    const history = useQuery({
        queryKey: ['catalog-history', kind, entryKey],
        queryFn: () => answer(api.GET('/catalog/entry/history', { params: { query: { kind, key: entryKey } } })),
    });
    return (
        <Panel title="History" aside="who wrote which version when">
            {!history.data && <Loading what="the history" />}
            <ol>
                {history.data?.versions.map((v) => (
                    <li key={v.from} className="border-b border-rule py-1.5">
                        <strong>
                            {moment(v.from)} {day(v.from).slice(0, 4)}
                        </strong>{' '}
                        {v.by ?? 'by import'}
                        {v.node === null && (
                            <>
                                {' '}
                                <Mark kind="bad">taken out</Mark>
                            </>
                        )}
                        {v.changes.length === 0 && v.node !== null && (
                            <span className="text-sm text-faint"> first written</span>
                        )}
                        <ul>
                            {v.changes.slice(0, 12).map((c) => (
                                <Change key={c.at} c={c} />
                            ))}
                        </ul>
                    </li>
                ))}
            </ol>
        </Panel>
    );
}

function Changes({ kinds }: { kinds: Kinds }) {
    const [params, setParams] = useSearchParams();
    const [fortnight] = useState(() =>
        [Date.now() - 14 * 86400e3, Date.now()].map((t) => new Date(t).toISOString().slice(0, 10)),
    );
    const from = params.get('from') ?? fortnight[0]!;
    const to = params.get('to') ?? fortnight[1]!;
    const set = (change: Record<string, string>) => setParams({ tab: TABS[1], from, to, ...change });
    const diff = useQuery({
        queryKey: ['catalog-diff', from, to],
        queryFn: () => answer(api.GET('/catalog/diff', { params: { query: { from, to } } })),
    });
    const title = (k: string) => kinds.kinds.find((x) => x.kind === k)?.title ?? k;
    return (
        <>
            <div className="mb-3 flex flex-wrap items-end gap-3">
                <Field label="From the end of" type="date" value={from} onChange={(v) => set({ from: v })} />
                <Field label="to the end of" type="date" value={to} onChange={(v) => set({ to: v })} />
            </div>
            {diff.isError && <ProblemNote problem={isProblem(diff.error) ? diff.error : null} />}
            {diff.data && (
                <Panel
                    title={
                        diff.data.entries.length === 1
                            ? '1 entry differs'
                            : `${diff.data.entries.length} entries differ`
                    }
                >
                    {diff.data.entries.slice(0, 300).map((e) => (
                        <div key={e.kind + e.key} className="border-b border-rule py-1.5">
                            <Mark kind={e.change === 'new' ? 'good' : e.change === 'removed' ? 'bad' : 'warn'}>
                                {e.change}
                            </Mark>{' '}
                            {title(e.kind)}:{' '}
                            <Link
                                className="num font-semibold underline"
                                to={`/catalog/entries?kind=${e.kind}&key=${encodeURIComponent(e.key)}`}
                            >
                                {e.key.replaceAll('|', ' · ')}
                            </Link>
                            <ul>
                                {e.changes.slice(0, 8).map((c) => (
                                    <Change key={c.at} c={c} />
                                ))}
                            </ul>
                        </div>
                    ))}
                    {diff.data.entries.length > 300 && (
                        <p className="text-faint">and {diff.data.entries.length - 300} more.</p>
                    )}
                    {diff.data.entries.length === 0 && (
                        <p className="text-faint">The catalog is the same at both ends.</p>
                    )}
                </Panel>
            )}
        </>
    );
}
