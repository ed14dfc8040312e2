import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { answer, api, fieldProblem, type Schemas } from '../../api/client';
import { useSession } from '../../api/session';
import { useWrite } from '../../api/useWrite';
import { Choice, Mark, Panel, ProblemNote } from '../../kit/basics';

type Import = Schemas['CsvImport'];

const STATES: Record<Import['state'], { kind: 'good' | 'bad' | 'warn' | 'idle' | 'next'; text: string }> = {
    checking: { kind: 'next', text: 'being checked' },
    ready: { kind: 'warn', text: 'waits for you to have seen it' },
    refused: { kind: 'bad', text: 'not taken' },
    importing: { kind: 'next', text: 'being written' },
    done: { kind: 'good', text: 'written' },
    cancelled: { kind: 'idle', text: 'cancelled' },
    failed: { kind: 'bad', text: 'broke off' },
};

/** Packs and CSV files, out and in. A file is checked and shown first, then written whole or not at all. */
export function CsvFiles({ kinds }: { kinds: Schemas['CatalogKinds'] }) {
    const { can } = useSession();
    const client = useQueryClient();
    const list = useQuery({
        queryKey: ['csv-imports'],
        queryFn: () => answer(api.GET('/catalog/uploads')),
        refetchInterval: (q) =>
            q.state.data?.imports.some((i) => i.state === 'checking' || i.state === 'importing') ? 700 : false,
    });
    const [kind, setKind] = useState('prices');
    const csv = useRef<HTMLInputElement>(null);
    const pack = useRef<HTMLInputElement>(null);
    const upload = useWrite();
    const packed = useWrite();
    const [imported, setImported] = useState<Schemas['PackImported'] | null>(null);
    const chosen = kinds.csv.find((c) => c.kind === kind)!;
    const refresh = () => void client.invalidateQueries({ queryKey: ['csv-imports'] });
    const form = (fields: Record<string, string | File>) => () => {
        const f = new FormData();
        Object.entries(fields).forEach(([k, v]) => f.set(k, v));
        return f;
    };
    const send = async () => {
        const file = csv.current?.files?.[0];
        if (
            file &&
            (await upload.write(
                () =>
                    api.POST('/catalog/uploads', {
                        body: { file: '', kind: kind as 'parts' },
                        bodySerializer: form({ file, kind }),
                    }),
                refresh,
            )) &&
            csv.current
        )
            csv.current.value = '';
    };
    const sendPack = async () => {
        const file = pack.current?.files?.[0];
        if (file)
            await packed.write(
                () => api.POST('/catalog/pack', { body: { pack: '' }, bodySerializer: form({ pack: file }) }),
                (r) => {
                    setImported(r);
                    void client.invalidateQueries();
                },
            );
    };
    const sum = (what: 'new' | 'changed' | 'same') =>
        Object.values(imported?.kinds ?? {}).reduce((n, k) => n + k[what], 0);
    return (
        <div className="grid items-start gap-3 lg:grid-cols-[2fr_3fr]">
            <div className="flex flex-col gap-3">
                <Panel title="Catalog pack" aside="the whole catalog in one file">
                    <a className="btn" href="/api/catalog/pack" download>
                        Export the catalog
                    </a>
                    {can('catalog.edit') && (
                        <div className="mt-3 flex flex-wrap items-end gap-2">
                            <label className="text-sm font-semibold text-faint">
                                Import a pack
                                <input ref={pack} type="file" accept="application/json,.json" className="input" />
                            </label>
                            <button
                                type="button"
                                className="btn"
                                disabled={packed.busy}
                                onClick={() => void sendPack()}
                            >
                                {packed.busy ? 'Importing …' : 'Import'}
                            </button>
                        </div>
                    )}
                    <ProblemNote problem={packed.problem} />
                    {imported && (
                        <p className="mt-2">
                            <Mark kind="good">Imported</Mark> {sum('new')} new, {sum('changed')} changed, {sum('same')}{' '}
                            as they were.
                        </p>
                    )}
                </Panel>
                {can('catalog.edit') && (
                    <Panel title="CSV file" aside="UTF-8, comma or semicolon, first line names the columns">
                        <Choice
                            label="What is in it"
                            value={kind}
                            values={kinds.csv.map((c) => c.kind)}
                            text={(k) => kinds.csv.find((c) => c.kind === k)!.title}
                            onChange={setKind}
                        />
                        <p className="my-2 text-sm">
                            <span className="num">{chosen.columns.join(', ')}</span>
                            {chosen.optional.length > 0 && (
                                <span className="text-faint">; if wanted {chosen.optional.join(', ')}</span>
                            )}
                        </p>
                        <div className="flex flex-wrap items-end gap-2">
                            <label className="text-sm font-semibold text-faint">
                                File
                                <input ref={csv} type="file" accept=".csv,text/csv" className="input" />
                            </label>
                            <button
                                type="button"
                                className="btn btn-main"
                                disabled={upload.busy}
                                onClick={() => void send()}
                            >
                                Check it
                            </button>
                        </div>
                        <ProblemNote problem={upload.problem} except={['/file']} />
                        {fieldProblem(upload.problem, '/file') && (
                            <p role="alert" className="font-semibold text-bad">
                                {fieldProblem(upload.problem, '/file')}
                            </p>
                        )}
                    </Panel>
                )}
            </div>
            <div className="flex flex-col gap-3">
                {list.data?.imports.map((i, n) => (
                    <ImportView key={i.id} i={i} open={n === 0} onDone={refresh} />
                ))}
                {list.data?.imports.length === 0 && <p className="sheet p-4 text-faint">No file has been sent yet.</p>}
            </div>
        </div>
    );
}

function ImportView({ i, open, onDone }: { i: Import; open: boolean; onDone: () => void }) {
    const { busy, problem, write } = useWrite();
    const state = STATES[i.state];
    const running = i.state === 'checking' || i.state === 'importing';
    const columns = Object.keys(i.preview[0]?.row ?? {});
    return (
        <Panel title={i.filename} aside={<Mark kind={state.kind}>{state.text}</Mark>}>
            <p className="num">
                {i.kind}: {i.total} lines; {i.newRows} new, {i.changedRows} changed, {i.sameRows} as they were
                {i.errorRows > 0 && <strong className="text-bad">, {i.errorRows} wrong</strong>}
            </p>
            {running && (
                <progress
                    className="h-4 w-full"
                    max={Math.max(i.total, i.done, 1)}
                    value={i.done}
                    aria-label="Lines done"
                />
            )}
            {i.failure && <p className="text-bad">{i.failure}</p>}
            {open && i.errors.length > 0 && (
                <ul className="max-h-60 overflow-y-auto">
                    {i.errors.map((e) => (
                        <li key={e.line}>
                            Line {e.line}: {e.detail}
                        </li>
                    ))}
                </ul>
            )}
            {open && i.preview.length > 0 && i.state !== 'done' && (
                <div className="overflow-x-auto">
                    <table className="w-full text-sm">
                        <thead>
                            <tr>
                                <th scope="col" className="th" />
                                {columns.map((c) => (
                                    <th key={c} scope="col" className="th">
                                        {c}
                                    </th>
                                ))}
                            </tr>
                        </thead>
                        <tbody>
                            {i.preview.map((r, n) => (
                                <tr key={n}>
                                    <td className="td">
                                        <Mark kind={r.change === 'new' ? 'good' : 'warn'}>{r.change}</Mark>
                                    </td>
                                    {columns.map((c) => (
                                        <td key={c} className="td num">
                                            {r.before &&
                                            Number(r.before[c]) !== Number(r.row[c]) &&
                                            r.before[c] !== r.row[c] ? (
                                                <>
                                                    <span className="line-through">{String(r.before[c])}</span>{' '}
                                                    <strong>{r.row[c]}</strong>
                                                </>
                                            ) : (
                                                r.row[c]
                                            )}
                                        </td>
                                    ))}
                                </tr>
                            ))}
                        </tbody>
                    </table>
                </div>
            )}
            <ProblemNote problem={problem} />
            <div className="mt-2 flex gap-2">
                {i.state === 'ready' && (
                    <button
                        type="button"
                        className="btn btn-main"
                        disabled={busy}
                        onClick={() =>
                            void write(
                                () =>
                                    api.POST('/catalog/uploads/{import}/confirm', {
                                        params: { path: { import: i.id } },
                                    }),
                                onDone,
                            )
                        }
                    >
                        Write {i.newRows + i.changedRows} {i.newRows + i.changedRows === 1 ? 'line' : 'lines'}
                    </button>
                )}
                {(i.state === 'ready' || running) && (
                    <button
                        type="button"
                        className="btn"
                        disabled={busy}
                        onClick={() =>
                            void write(
                                () =>
                                    api.POST('/catalog/uploads/{import}/cancel', {
                                        params: { path: { import: i.id } },
                                    }),
                                onDone,
                            )
                        }
                    >
                        {running ? 'Stop it' : 'Leave it'}
                    </button>
                )}
            </div>
        </Panel>
    );
}
