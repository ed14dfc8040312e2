import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { answer, api, fieldProblem, type Schemas } from '../../api/client';
import { useSession } from '../../api/session';
import { useWrite } from '../../api/useWrite';
import { Choice, FieldProblem, HeadRow, Mark, Panel, ProblemNote } from '../../kit/basics';

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

const formOf = (fields: Record<string, string | File>) => () => {
    const form = new FormData();
    Object.entries(fields).forEach(([k, v]) => form.set(k, v));
    return form;
};

const isRunning = (i: Import) => i.state === 'checking' || i.state === 'importing';

/** Packs and CSV files, out and in. A file is checked and shown first, then written whole or not at all. */
export function CsvFiles({ kinds }: { kinds: Schemas['CatalogKinds'] }) {
    const { can } = useSession();
    const client = useQueryClient();
    const list = useQuery({
        queryKey: ['csv-imports'],
        queryFn: () => answer(api.GET('/catalog/uploads')),
        refetchInterval: (q) => (q.state.data?.imports.some(isRunning) ? 700 : false),
    });
    const refresh = () => void client.invalidateQueries({ queryKey: ['csv-imports'] });
    return (
        <div className="grid items-start gap-3 lg:grid-cols-[2fr_3fr]">
            <div className="flex flex-col gap-3">
                <Pack editable={can('catalog.edit')} />
                {can('catalog.edit') && <CsvUpload kinds={kinds} onSent={refresh} />}
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

function Pack({ editable }: { editable: boolean }) {
    const client = useQueryClient();
    const { busy, problem, write } = useWrite();
    const input = useRef<HTMLInputElement>(null);
    const [imported, setImported] = useState<Schemas['PackImported'] | null>(null);
    const send = () => {
        const pack = input.current?.files?.[0];
        if (!pack) return;
        void write(
            () => api.POST('/catalog/pack', { body: { pack: '' }, bodySerializer: formOf({ pack }) }),
            (done) => {
                setImported(done);
                void client.invalidateQueries();
            },
        );
    };
    return (
        <Panel title="Catalog pack" aside="the whole catalog in one file">
            <a className="btn" href="/api/catalog/pack" download>
                Export the catalog
            </a>
            {editable && (
                <div className="mt-3 flex flex-wrap items-end gap-2">
                    <label className="text-sm font-semibold text-faint">
                        Import a pack
                        <input ref={input} type="file" accept="application/json,.json" className="input" />
                    </label>
                    <button type="button" className="btn" disabled={busy} onClick={send}>
                        {busy ? 'Importing …' : 'Import'}
                    </button>
                </div>
            )}
            <ProblemNote problem={problem} />
            {imported && <Imported kinds={imported.kinds} />}
        </Panel>
    );
}

function Imported({ kinds }: { kinds: Schemas['PackImported']['kinds'] }) {
    const sum = (what: 'new' | 'changed' | 'same') => Object.values(kinds).reduce((n, k) => n + k[what], 0);
    return (
        <p className="mt-2">
            <Mark kind="good">Imported</Mark> {sum('new')} new, {sum('changed')} changed, {sum('same')} as they were.
        </p>
    );
}

/** Sends the file that is chosen; the field is empty again once it is taken. */
function useCsvUpload(kind: string, onSent: () => void) {
    const input = useRef<HTMLInputElement>(null);
    const { busy, problem, write } = useWrite();
    const send = async () => {
        const file = input.current?.files?.[0];
        if (!file) return;
        const body = { file: '', kind: kind as 'parts' };
        const taken = await write(
            () => api.POST('/catalog/uploads', { body, bodySerializer: formOf({ file, kind }) }),
            onSent,
        );
        if (taken && input.current) input.current.value = '';
    };
    return { input, busy, problem, send };
}

function Columns({ columns, optional }: { columns: string[]; optional: string[] }) {
    return (
        <p className="my-2 text-sm">
            <span className="num">{columns.join(', ')}</span>
            {optional.length > 0 && <span className="text-faint">; if wanted {optional.join(', ')}</span>}
        </p>
    );
}

function CsvUpload({ kinds, onSent }: { kinds: Schemas['CatalogKinds']; onSent: () => void }) {
    const [kind, setKind] = useState('prices');
    const { input, busy, problem, send } = useCsvUpload(kind, onSent);
    const chosen = kinds.csv.find((c) => c.kind === kind);
    return (
        <Panel title="CSV file" aside="UTF-8, comma or semicolon, first line names the columns">
            <Choice
                label="What is in it"
                value={kind}
                values={kinds.csv.map((c) => c.kind)}
                text={(k) => kinds.csv.find((c) => c.kind === k)?.title ?? k}
                onChange={setKind}
            />
            {chosen && <Columns {...chosen} />}
            <div className="flex flex-wrap items-end gap-2">
                <label className="text-sm font-semibold text-faint">
                    File
                    <input ref={input} type="file" accept=".csv,text/csv" className="input" />
                </label>
                <button type="button" className="btn btn-main" disabled={busy} onClick={() => void send()}>
                    Check it
                </button>
            </div>
            <ProblemNote problem={problem} except={['/file']} />
            <FieldProblem>{fieldProblem(problem, '/file')}</FieldProblem>
        </Panel>
    );
}

function ImportView({ i, open, onDone }: { i: Import; open: boolean; onDone: () => void }) {
    const state = STATES[i.state];
    return (
        <Panel title={i.filename} aside={<Mark kind={state.kind}>{state.text}</Mark>}>
            <p className="num">
                {i.kind}: {i.total} lines; {i.newRows} new, {i.changedRows} changed, {i.sameRows} as they were
                {i.errorRows > 0 && <strong className="text-bad">, {i.errorRows} wrong</strong>}
            </p>
            {isRunning(i) && (
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
            {open && i.preview.length > 0 && i.state !== 'done' && <Preview lines={i.preview} />}
            <Decision i={i} onDone={onDone} />
        </Panel>
    );
}

function Preview({ lines }: { lines: Import['preview'] }) {
    const columns = Object.keys(lines[0]?.row ?? {});
    return (
        <div className="overflow-x-auto">
            <table className="w-full text-sm">
                <HeadRow of={['', ...columns]} />
                <tbody>
                    {lines.map((line, n) => (
                        <tr key={n}>
                            <td className="td">
                                <Mark kind={line.change === 'new' ? 'good' : 'warn'}>{line.change}</Mark>
                            </td>
                            {columns.map((c) => (
                                <td key={c} className="td num">
                                    <BeforeAfter before={line.before?.[c]} after={line.row[c]} />
                                </td>
                            ))}
                        </tr>
                    ))}
                </tbody>
            </table>
        </div>
    );
}

/** What a line changes is struck out beside what it becomes; 1.50 and 1.5 are the same number. */
function BeforeAfter({ before, after }: { before: unknown; after: string | undefined }) {
    if (before === undefined || before === after || Number(before) === Number(after)) return after;
    return (
        <>
            <span className="line-through">{String(before)}</span> <strong>{after}</strong>
        </>
    );
}

function Decision({ i, onDone }: { i: Import; onDone: () => void }) {
    const { busy, problem, write } = useWrite();
    const params = { path: { import: i.id } };
    const lines = i.newRows + i.changedRows;
    const button = (text: string, act: () => Parameters<typeof write>[0], main = false) => (
        <button
            type="button"
            className={main ? 'btn btn-main' : 'btn'}
            disabled={busy}
            onClick={() => void write(act(), onDone)}
        >
            {text}
        </button>
    );
    const confirm = () => () => api.POST('/catalog/uploads/{import}/confirm', { params });
    const cancel = () => () => api.POST('/catalog/uploads/{import}/cancel', { params });
    return (
        <>
            <ProblemNote problem={problem} />
            <div className="mt-2 flex gap-2">
                {i.state === 'ready' && button(`Write ${lines} ${lines === 1 ? 'line' : 'lines'}`, confirm, true)}
                {(i.state === 'ready' || isRunning(i)) && button(isRunning(i) ? 'Stop it' : 'Leave it', cancel)}
            </div>
        </>
    );
}
