import { Tab, TabGroup, TabList, TabPanel, TabPanels } from '@headlessui/react';
import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import { answer, api, fieldProblem, isProblem, type Schemas } from '../../api/client';
import { day, moment } from '../../kit/format';
import { useSession } from '../../api/session';
import { useWrite } from '../../api/useWrite';
import { Field, Loading, Mark, Panel, ProblemNote, Select } from '../../kit/basics';
import { Pending } from '../../kit/Fetched';
import { CsvFiles } from './CsvFiles';
import { DryRun } from './DryRun';
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

/** What is asked for, as the address says it. */
type Asked = { kind: string; family: string; q: string; asOf: string; key: string };

const asFound = (params: URLSearchParams): Omit<Asked, 'kind'> => {
    const of = (k: string) => params.get(k) ?? '';
    return { family: of('family'), q: of('q'), asOf: of('asOf'), key: of('key') };
};

const filled = (asked: Record<string, string | undefined>) =>
    Object.fromEntries(Object.entries(asked).flatMap(([k, v]) => (v ? [[k, v]] : [])));

function useEntries({ kind, family, q, asOf }: Asked, inFamily: boolean) {
    return useInfiniteQuery({
        queryKey: ['catalog-entries', kind, family, q, asOf],
        initialPageParam: undefined as string | undefined,
        getNextPageParam: (p: Schemas['CatalogEntries']) => p.after ?? undefined,
        queryFn: ({ pageParam }) =>
            answer(
                api.GET('/catalog/entries', {
                    params: {
                        query: { kind, ...filled({ family: inFamily ? family : '', q, asOf, after: pageParam }) },
                    },
                }),
            ),
    });
}

function Entries({ kinds }: { kinds: Kinds }) {
    const [params, setParams] = useSearchParams();
    const { can } = useSession();
    const kind = params.get('kind') || 'packs';
    const asked = { kind, ...asFound(params) };
    const { family, asOf, key } = asked;
    const set = (change: Record<string, string>) => setParams(filled({ ...asked, ...change }));
    const editable = can('catalog.edit') && !asOf;
    return (
        <div className="grid items-start gap-3 lg:grid-cols-[2fr_3fr]">
            <EntryList kinds={kinds} asked={asked} set={set} editable={editable} />
            {key ? (
                <EntryView
                    key={`${kind}/${key}/${asOf}`}
                    kind={kind}
                    entryKey={key === 'new' ? null : key}
                    family={family}
                    kinds={kinds}
                    asOf={asOf}
                    editable={editable}
                    onKey={(k) => set({ key: k })}
                />
            ) : (
                <p className="sheet p-4 text-faint">Choose an entry to see it, its source and its history.</p>
            )}
        </div>
    );
}

type EntryListProps = {
    kinds: Kinds;
    asked: Asked;
    set: (change: Record<string, string>) => void;
    editable: boolean;
};

function EntryList({ kinds, asked, set, editable }: EntryListProps) {
    const info = kinds.kinds.find((k) => k.kind === asked.kind);
    const inFamily = info?.inFamily ?? false;
    return (
        <Panel title={info?.title ?? asked.kind}>
            <Sought kinds={kinds} asked={asked} inFamily={inFamily} set={set} />
            {asked.asOf && (
                <p className="mt-1">
                    <Mark kind="warn">Looking back to {asked.asOf}</Mark>{' '}
                    <button type="button" className="min-h-11 px-2 underline" onClick={() => set({ asOf: '' })}>
                        back to now
                    </button>
                </p>
            )}
            {editable && (
                <button type="button" className="btn my-2" onClick={() => set({ key: 'new' })}>
                    New entry
                </button>
            )}
            <Found asked={asked} inFamily={inFamily} onKey={(k) => set({ key: k })} />
        </Panel>
    );
}

type SoughtProps = {
    kinds: Kinds;
    asked: Asked;
    inFamily: boolean;
    set: (change: Record<string, string>) => void;
};

/** What is looked for: the kind, the family, a word, and the day it is looked at. */
function Sought({ kinds, asked: { kind, family, q, asOf }, inFamily, set }: SoughtProps) {
    const [typed, setTyped] = useState(q);
    return (
        <div className="grid gap-2 sm:grid-cols-2">
            <Select
                label="Kind"
                value={kind}
                onChange={(v) => set({ kind: v, key: '', q: '' })}
                options={kinds.kinds.map((k) => ({ value: k.kind, text: k.title }))}
            />
            {inFamily ? (
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
    );
}

const ROW = 'flex min-h-11 w-full items-baseline gap-2 border-b border-rule px-2 py-1 text-left';

function Found({ asked, inFamily, onKey }: { asked: Asked; inFamily: boolean; onKey: (key: string) => void }) {
    const list = useEntries(asked, inFamily);
    const entries = list.data?.pages.flatMap((p) => p.entries);
    return (
        <>
            {list.isError && <ProblemNote problem={isProblem(list.error) ? list.error : null} />}
            <ul className="mt-1 max-h-[32rem] overflow-y-auto">
                {entries?.map((e) => (
                    <li key={e.key}>
                        <button
                            type="button"
                            aria-pressed={e.key === asked.key}
                            className={`${ROW} ${e.key === asked.key ? 'bg-enamel text-enamel-ink' : ''}`}
                            onClick={() => onKey(e.key)}
                        >
                            <strong className="num">{e.key.replaceAll('|', ' · ')}</strong>
                            <span className="flex-1 truncate text-sm">{e.label}</span>
                            {e.claims > 0 && <span className="text-sm">◆ {e.claims + 1} specifications</span>}
                        </button>
                    </li>
                ))}
            </ul>
            {entries?.length === 0 && <p className="text-faint">Nothing is found.</p>}
            {list.hasNextPage && (
                <button type="button" className="btn mt-2" onClick={() => void list.fetchNextPage()}>
                    More
                </button>
            )}
        </>
    );
}

type EntryViewProps = {
    kind: string;
    entryKey: string | null;
    family: string;
    kinds: Kinds;
    asOf: string;
    editable: boolean;
    onKey: (key: string) => void;
};

function EntryView({ kind, entryKey, family, kinds, asOf, editable, onKey }: EntryViewProps) {
    const entry = useQuery({
        queryKey: ['catalog-entry', kind, entryKey, asOf],
        queryFn: () =>
            answer(
                api.GET('/catalog/entry', {
                    params: { query: { kind, ...filled({ key: entryKey ?? '', asOf }) } },
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

type EditorProps = {
    entry: Entry;
    family: string;
    kinds: Kinds;
    editable: boolean;
    onKey: (key: string) => void;
};

/** What the catalog showed is fetched anew after a write, wherever it is shown. */
const SHOWN = ['catalog-entries', 'catalog-entry', 'catalog-history', 'family', 'families'];

/** Writing an entry, or taking it out. */
function useEntryWrite(entry: Entry, onKey: (key: string) => void) {
    const { busy, problem, write } = useWrite();
    const client = useQueryClient();
    const done = async (key: string) => {
        await Promise.all(SHOWN.map((k) => client.invalidateQueries({ queryKey: [k] })));
        onKey(key);
    };
    const { kind, key, seen } = entry;
    const save = (family: string | null, node: object) =>
        write(
            () =>
                api.POST('/catalog/entry', { body: { kind, family, key, seen, node: node as Record<string, never> } }),
            (e) => void done(e.key ?? ''),
        );
    const remove = async () =>
        key !== null &&
        write(
            () => api.DELETE('/catalog/entry', { body: { kind, key } }),
            () => void done(''),
        );
    return { busy, problem, save, remove, done };
}

const kindOf = (kinds: Kinds, { kind }: Entry) =>
    kinds.kinds.find((k) => k.kind === kind) ?? { title: kind, inFamily: false, claims: false };

const nameOf = ({ key }: Entry, title: string) => key?.replaceAll('|', ' · ') ?? `New: ${title.toLowerCase()}`;

type BesideProps = {
    kind: string;
    family: string;
    node: unknown;
    editable: boolean;
    onChange: (node: unknown) => void;
};

/** What helps to see an entry: the parts of an operation, the course of a program. */
function Beside({ kind, family, node, editable, onChange }: BesideProps) {
    if (OPERATIONS.has(kind)) return <OperationPicture {...{ family, editable, onChange }} node={node as object} />;
    if (kind !== 'testPrograms') return null;
    return <DryRun family={family} body={(node as { body: Record<string, unknown> }).body} />;
}

function Editor({ entry, family, kinds, editable, onKey }: EditorProps) {
    const schema = entry.schema as Schema;
    const first = entry.node ?? blank(schema);
    const [node, setNode] = useState<unknown>(first);
    const [at, setAt] = useState(family);
    const { busy, problem, save, remove, done } = useEntryWrite(entry, onKey);
    const { title, inFamily, claims } = kindOf(kinds, entry);
    const changed = JSON.stringify(node) !== JSON.stringify(entry.node);
    const problems = problem?.errors ?? [];
    return (
        <Panel title={nameOf(entry, title)} aside={title}>
            {entry.key === null && inFamily && (
                <Select
                    label="Family"
                    value={at}
                    onChange={setAt}
                    empty="choose"
                    options={kinds.families.map((f) => ({ value: f.code, text: f.name }))}
                    problem={fieldProblem(problem, '/family')}
                />
            )}
            {claims && <Claims entry={entry} editable={editable} onDone={(key) => void done(key)} />}
            {at && <Beside {...{ kind: entry.kind, family: at, node, editable }} onChange={setNode} />}
            <SchemaForm {...{ schema, problems }} value={node} onChange={setNode} readOnly={!editable} />
            <ProblemNote problem={problem} />
            {editable && (
                <EditorButtons
                    isNew={entry.key === null}
                    {...{ busy, changed }}
                    onSave={() => void save(inFamily ? at : null, node as object)}
                    onUndo={() => setNode(first)}
                    onRemove={() => void remove()}
                />
            )}
        </Panel>
    );
}

type EditorButtonsProps = {
    isNew: boolean;
    busy: boolean;
    changed: boolean;
    onSave: () => void;
    onUndo: () => void;
    onRemove: () => void;
};

function EditorButtons({ isNew, busy, changed, onSave, onUndo, onRemove }: EditorButtonsProps) {
    const [removing, setRemoving] = useState(false);
    const save = changed ? 'Save the change' : 'Nothing changed yet';
    return (
        <div className="sticky bottom-0 mt-3 flex flex-wrap gap-2 border-t border-rule bg-paper py-2">
            <button type="button" className="btn btn-main" disabled={busy || !(isNew || changed)} onClick={onSave}>
                {isNew ? 'Write it in' : save}
            </button>
            {changed && (
                <button type="button" className="btn" onClick={onUndo}>
                    Undo
                </button>
            )}
            <span className="flex-1" />
            {!isNew && !removing && (
                <button type="button" className="btn" onClick={() => setRemoving(true)}>
                    Take it out
                </button>
            )}
            {removing && (
                <>
                    <button type="button" className="btn" disabled={busy} onClick={onRemove}>
                        Yes, take it out
                    </button>
                    <button type="button" className="btn" onClick={() => setRemoving(false)}>
                        Keep it
                    </button>
                </>
            )}
        </div>
    );
}

type Claim = {
    body: { window?: { min: number; max: number }; target?: number; unit?: string; torque?: string };
    source: string;
    edition: string;
    confidence: string;
    note?: string;
};

const claimed = ({ body: { window, unit, target, torque } }: Claim) =>
    window
        ? `${window.min} to ${window.max} ${unit ?? ''}${target !== undefined ? `, target ${target}` : ''}`
        : (torque ?? 'another body');

type ClaimsProps = { entry: Entry; editable: boolean; onDone: (key: string) => void };

/** Conflicting specifications side by side; the house picks one and signs it. */
function Claims({ entry, editable, onDone }: ClaimsProps) {
    const { kind, key, seen } = entry;
    const node = entry.node as (Claim & { claims?: Claim[]; signed?: SignedProps }) | null;
    const [reason, setReason] = useState('');
    const { busy, problem, write } = useWrite();
    if (!node || key === null || seen === null) return null;
    if (!node.claims?.length) return node.signed ? <Signed {...node.signed} /> : null;
    const pick = (claim: number) =>
        void write(
            () => api.POST('/catalog/entry/choice', { body: { kind, key, claim, reason, seen } }),
            () => onDone(key),
        );
    return (
        <div className="mb-3 border-2 border-dashed border-warn p-3">
            <Disagree />
            <table className="my-2 w-full">
                <tbody>
                    <ClaimRow claim={node} mark={<Mark kind="good">in force</Mark>}>
                        {node.signed && <Signed {...node.signed} />}
                    </ClaimRow>
                    {node.claims.map((c, i) => (
                        <ClaimRow
                            key={i}
                            claim={c}
                            mark={<Mark kind="idle">beside it</Mark>}
                            onPick={editable ? () => pick(i) : undefined}
                            disabled={busy || !reason.trim()}
                        >
                            {c.note && <span className="block">{c.note}</span>}
                        </ClaimRow>
                    ))}
                </tbody>
            </table>
            {editable && <Field label="Why the house picks it" value={reason} onChange={setReason} />}
            <ProblemNote problem={problem} />
        </div>
    );
}

const Disagree = () => (
    <p>
        <Mark kind="warn">Two sources disagree</Mark> Both are kept, never averaged; the house picks one and signs it.
    </p>
);

type ClaimRowProps = { claim: Claim; mark: ReactNode; children: ReactNode; onPick?: () => void; disabled?: boolean };

function ClaimRow({ claim, mark, children, onPick, disabled }: ClaimRowProps) {
    return (
        <tr>
            <td className="td">{mark}</td>
            <td className="td font-head text-xl num">{claimed(claim)}</td>
            <td className="td text-sm">
                {claim.confidence}: {claim.source}
                {children}
            </td>
            <td className="td">
                {onPick && (
                    <button type="button" className="btn" disabled={disabled} onClick={onPick}>
                        Pick this one
                    </button>
                )}
            </td>
        </tr>
    );
}

type SignedProps = { by: string; on: string; reason: string };

const Signed = ({ by, on, reason }: SignedProps) => (
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

const isoDay = (daysAgo: number) => new Date(Date.now() - daysAgo * 86400e3).toISOString().slice(0, 10);

function Changes({ kinds }: { kinds: Kinds }) {
    const [params, setParams] = useSearchParams();
    const [fortnight] = useState(() => ({ from: isoDay(14), to: isoDay(0) }));
    const from = params.get('from') ?? fortnight.from;
    const to = params.get('to') ?? fortnight.to;
    const set = (change: Record<string, string>) => setParams({ tab: TABS[1], from, to, ...change });
    const diff = useQuery({
        queryKey: ['catalog-diff', from, to],
        queryFn: () => answer(api.GET('/catalog/diff', { params: { query: { from, to } } })),
    });
    return (
        <>
            <div className="mb-3 flex flex-wrap items-end gap-3">
                <Field label="From the end of" type="date" value={from} onChange={(v) => set({ from: v })} />
                <Field label="to the end of" type="date" value={to} onChange={(v) => set({ to: v })} />
            </div>
            {diff.isError && <ProblemNote problem={isProblem(diff.error) ? diff.error : null} />}
            {diff.data && <Differences entries={diff.data.entries} kinds={kinds} />}
        </>
    );
}

type Difference = Schemas['CatalogDiff']['entries'][number];

const CHANGES = { new: 'good', removed: 'bad', changed: 'warn' } as const;

function Differences({ entries, kinds }: { entries: Difference[]; kinds: Kinds }) {
    const title = (k: string) => kinds.kinds.find((x) => x.kind === k)?.title ?? k;
    return (
        <Panel title={entries.length === 1 ? '1 entry differs' : `${entries.length} entries differ`}>
            {entries.slice(0, 300).map((e) => (
                <div key={e.kind + e.key} className="border-b border-rule py-1.5">
                    <Mark kind={CHANGES[e.change]}>{e.change}</Mark> {title(e.kind)}:{' '}
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
            {entries.length > 300 && <p className="text-faint">and {entries.length - 300} more.</p>}
            {entries.length === 0 && <p className="text-faint">The catalog is the same at both ends.</p>}
        </Panel>
    );
}
