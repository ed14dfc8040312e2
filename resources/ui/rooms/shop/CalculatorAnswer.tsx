import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/react';
import type { ReactNode } from 'react';
import { Panel } from '../../kit/basics';
import { unitOf } from '../../kit/quantity';
import { words } from '../../kit/SchemaForm';

type Decides = { path: string; words: string };
type Out = Record<string, unknown>;
export type Kept = { input: unknown; out: Out };

const isRecord = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v);

/** The value at a JSON pointer; undefined where the answer has none. */
function at(value: unknown, pointer: string): unknown {
    return pointer
        .split('/')
        .slice(1)
        .reduce<unknown>((v, key) => (Array.isArray(v) ? v[Number(key)] : isRecord(v) ? v[key] : undefined), value);
}

const shown = (v: unknown): string =>
    typeof v === 'number'
        ? String(Number(v.toPrecision(6)))
        : typeof v === 'boolean'
          ? v
              ? 'yes'
              : 'no'
          : v === null || v === undefined
            ? '–'
            : String(v);

const last = (pointer: string) => pointer.split('/').at(-1) ?? '';

function Headline({ decides, out }: { decides: Decides; out: Out }) {
    const value = at(out, decides.path);
    if (value === undefined) return <strong className="font-head text-4xl">no answer of this kind</strong>;
    return (
        <strong className="font-head text-5xl num">
            {shown(value)} <span className="text-3xl">{unitOf(last(decides.path)) ?? ''}</span>
        </strong>
    );
}

/** The one number that decides, large; what it was made from below; tables to take along. */
export function Answer({
    name,
    decides,
    out,
    onKeep,
}: {
    name: string;
    decides: Decides;
    out: Out;
    onKeep: () => void;
}) {
    return (
        <Panel title="Answer" aside={decides.words}>
            <div className="flex flex-wrap items-end gap-4">
                <Headline decides={decides} out={out} />
                <span className="flex-1" />
                <button type="button" className="btn" onClick={onKeep}>
                    Keep it to compare
                </button>
            </div>
            <Values value={out} name={name} />
            <Disclosure>
                <DisclosureButton className="min-h-11 py-2 underline">The answer as JSON</DisclosureButton>
                <DisclosurePanel>
                    <pre className="num max-h-80 overflow-auto text-sm" tabIndex={0}>
                        {JSON.stringify(out, null, 2)}
                    </pre>
                </DisclosurePanel>
            </Disclosure>
        </Panel>
    );
}

/** Plain values as a list, lists of objects as tables, the rest nested: the working of the answer. */
function Values({ value, name }: { value: Out; name: string }) {
    const plain = Object.entries(value).filter(([, v]) => !isRecord(v) && !(Array.isArray(v) && isRecord(v[0])));
    const tables = Object.entries(value).filter(([, v]) => Array.isArray(v) && isRecord(v[0]));
    const nested = Object.entries(value).filter(([, v]) => isRecord(v));
    return (
        <div className="mt-2 flex flex-col gap-2">
            <dl className="grid grid-cols-[repeat(auto-fill,minmax(13rem,1fr))] gap-x-4 gap-y-1">
                {plain.map(([k, v]) => (
                    <div key={k}>
                        <dt className="text-sm text-faint">{words(k)}</dt>
                        <dd className="font-semibold num">
                            {Array.isArray(v) ? v.map(shown).join(', ') || '–' : shown(v)}
                        </dd>
                    </div>
                ))}
            </dl>
            {tables.map(([k, v]) => (
                <ValueTable key={k} name={`${name}-${k}`} title={words(k)} rows={(v as unknown[]).filter(isRecord)} />
            ))}
            {nested.map(([k, v]) => (
                <fieldset key={k} className="border-l-4 border-rule pl-3">
                    <legend className="font-semibold">{words(k)}</legend>
                    <Values value={v as Out} name={`${name}-${k}`} />
                </fieldset>
            ))}
        </div>
    );
}

const cell = (v: unknown): string => (Array.isArray(v) || isRecord(v) ? JSON.stringify(v) : shown(v));

function ValueTable({ name, title, rows }: { name: string; title: string; rows: Out[] }) {
    const columns = [...new Set(rows.flatMap((r) => Object.keys(r)))];
    return (
        <div className="overflow-x-auto" tabIndex={0} role="group" aria-label={title}>
            <table className="w-full text-sm">
                <caption className="text-left font-semibold">
                    {title}{' '}
                    <a className="font-normal underline" download={`${name}.csv`} href={csvOf(columns, rows)}>
                        as CSV
                    </a>
                </caption>
                <thead>
                    <tr>
                        {columns.map((c) => (
                            <th key={c} scope="col" className="th">
                                {words(c)}
                            </th>
                        ))}
                    </tr>
                </thead>
                <tbody>
                    {rows.slice(0, 60).map((r, i) => (
                        <tr key={i}>
                            {columns.map((c) => (
                                <td key={c} className="td max-w-64 truncate num">
                                    {cell(r[c])}
                                </td>
                            ))}
                        </tr>
                    ))}
                </tbody>
            </table>
            {rows.length > 60 && <p className="text-sm text-faint">{rows.length - 60} more rows in the CSV.</p>}
        </div>
    );
}

/** RFC 4180: quotes doubled, lines ended by CRLF. */
function csvOf(columns: string[], rows: Out[]): string {
    const quoted = (v: string) => (/[",\r\n]/.test(v) ? `"${v.replaceAll('"', '""')}"` : v);
    const lines = [columns, ...rows.map((r) => columns.map((c) => cell(r[c])))];
    return `data:text/csv;charset=utf-8,${encodeURIComponent(lines.map((l) => l.map(quoted).join(',')).join('\r\n'))}`;
}

/** What differs between two inputs, as "field: value"; whole where nothing is like the first. */
function differing(input: unknown, first: unknown, path = ''): string[] {
    if (JSON.stringify(input) === JSON.stringify(first)) return [];
    if (isRecord(input) && isRecord(first)) {
        return [...new Set([...Object.keys(input), ...Object.keys(first)])].flatMap((k) =>
            differing(input[k], first[k], path === '' ? words(k) : `${path}, ${words(k)}`),
        );
    }
    if (Array.isArray(input) && Array.isArray(first) && input.length === first.length) {
        return input.flatMap((v, i) => differing(v, first[i], `${path} ${i + 1}`));
    }
    return [`${path}: ${cell(input)}`];
}

/** Answers kept side by side, each with what was changed for it. */
export function Beside({
    decides,
    kept,
    onDrop,
}: {
    decides: Decides;
    kept: Kept[];
    onDrop: (i: number) => void;
}): ReactNode {
    const first = kept[0];
    if (!first) return null;
    return (
        <section aria-label="Side by side" className="grid grid-cols-[repeat(auto-fill,minmax(15rem,1fr))] gap-3">
            {kept.map((k, i) => (
                <div key={i} className="sheet px-4 py-2">
                    <span className="block text-sm text-faint">{decides.words}</span>
                    <Headline decides={decides} out={k.out} />
                    <p className="text-sm">
                        {i === 0
                            ? 'the first one kept'
                            : differing(k.input, first.input).slice(0, 6).join('; ') || 'the same input'}
                    </p>
                    <button type="button" className="min-h-9 text-sm underline" onClick={() => onDrop(i)}>
                        take away
                    </button>
                </div>
            ))}
        </section>
    );
}
