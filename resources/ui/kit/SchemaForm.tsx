import { useContext, useId, useState } from 'react';
import { QuantityReader, quantityOf, unitOf } from './quantity';
import { More } from './More';

export type Schema = {
    type?: string | string[];
    enum?: string[];
    const?: unknown;
    properties?: Record<string, Schema>;
    required?: string[];
    items?: Schema;
    additionalProperties?: boolean | Schema;
    oneOf?: Schema[];
    minimum?: number;
    description?: string;
    format?: string;
};
type Json = unknown;
type Problems = { pointer: string; detail: string }[];

/** Words for field names of the pack: engineTorque_nm reads "engine torque (nm)"; an element keeps its mark, F1. */
export const words = (key: string) =>
    /^[A-Z]{1,3}\d*$/.test(key)
        ? key
        : key
              .replace(/_[a-z0-9]+$/, '')
              .replace(/([a-z])([A-Z])/g, '$1 $2')
              .toLowerCase() + suffix(key);

/** The unit a name ends in, as it is written: N.m, not nm. */
const suffix = (key: string) => {
    const ending = /_([a-z0-9]+)$/.exec(key)?.[1];
    return ending ? ` (${unitOf(key) ?? ending})` : '';
};

/** An empty value of a schema's kind, for new entries. */
export function blank(schema: Schema): Json {
    if (schema.oneOf) return blank(schema.oneOf[0]!);
    if (schema.enum) return schema.enum[0];
    if (schema.const !== undefined) return schema.const;
    if (schema.type === 'object')
        return Object.fromEntries((schema.required ?? []).map((k) => [k, blank(schema.properties?.[k] ?? {})]));
    if (schema.type === 'array') return [];
    if (schema.type === 'boolean') return false;
    if (schema.type === 'number' || schema.type === 'integer') return 0;
    return '';
}

/** A form for one entry of the catalog, made from its published schema; every problem stands at its field. */
export function SchemaForm({
    schema,
    value,
    onChange,
    problems,
    at = '',
    readOnly = false,
}: {
    schema: Schema;
    value: Json;
    onChange: (v: Json) => void;
    problems: Problems;
    at?: string;
    readOnly?: boolean;
}) {
    const node = (value ?? {}) as Record<string, Json>;
    const keys = [...new Set([...Object.keys(schema.properties ?? {}), ...Object.keys(node)])];
    return (
        <div className="grid items-start gap-x-3 gap-y-2 sm:grid-cols-2">
            {keys.map((k) => {
                const s =
                    schema.properties?.[k] ??
                    (typeof schema.additionalProperties === 'object' ? schema.additionalProperties : {});
                const required = schema.required?.includes(k) ?? false;
                if (!(k in node) && !required)
                    return (
                        !readOnly && (
                            <button
                                key={k}
                                type="button"
                                className="min-h-9 justify-self-start px-1 text-sm text-faint underline"
                                onClick={() => onChange({ ...node, [k]: blank(s) })}
                            >
                                add {words(k)}
                            </button>
                        )
                    );
                const drop = required
                    ? undefined
                    : () => onChange(Object.fromEntries(Object.entries(node).filter(([n]) => n !== k)));
                return (
                    <Part
                        key={k}
                        name={k}
                        schema={s}
                        value={node[k]}
                        onChange={(v) => onChange({ ...node, [k]: v })}
                        onDrop={readOnly ? undefined : drop}
                        problems={problems}
                        at={`${at}/${k}`}
                        readOnly={readOnly}
                    />
                );
            })}
            {typeof schema.additionalProperties === 'object' && !readOnly && (
                <AddKey onAdd={(k) => onChange({ ...node, [k]: blank(schema.additionalProperties as Schema) })} />
            )}
        </div>
    );
}

function AddKey({ onAdd }: { onAdd: (key: string) => void }) {
    const [key, setKey] = useState('');
    const id = useId();
    return (
        <div className="flex items-end gap-2">
            <label htmlFor={id} className="text-sm text-faint">
                new name
                <input id={id} className="input" value={key} onChange={(e) => setKey(e.target.value)} />
            </label>
            <button
                type="button"
                className="btn"
                disabled={!key}
                onClick={() => {
                    onAdd(key);
                    setKey('');
                }}
            >
                Add
            </button>
        </div>
    );
}

type PartProps = {
    name: string;
    schema: Schema;
    value: Json;
    onChange: (v: Json) => void;
    onDrop?: () => void;
    problems: Problems;
    at: string;
    readOnly: boolean;
};

function Part({ name, schema, value, onChange, onDrop, problems, at, readOnly }: PartProps) {
    const id = useId();
    const problem = problems.find((p) => p.pointer === at)?.detail;
    const kind = schema.oneOf
        ? 'free'
        : Array.isArray(value)
          ? 'array'
          : typeof value === 'object' && value !== null
            ? 'object'
            : schema.enum
              ? 'enum'
              : schema.type === 'boolean'
                ? 'boolean'
                : schema.type === 'number' || schema.type === 'integer' || typeof value === 'number'
                  ? 'number'
                  : 'text';
    const note = problem && (
        <p role="alert" className="font-semibold text-bad">
            {problem}
        </p>
    );
    const dropButton = onDrop && (
        <button
            type="button"
            className="min-h-9 px-2 text-sm text-faint underline"
            aria-label={`Remove ${words(name)}`}
            onClick={onDrop}
        >
            remove
        </button>
    );
    if (
        kind === 'free' ||
        (kind === 'object' && !schema.properties && typeof schema.additionalProperties !== 'object') ||
        (kind === 'array' && !schema.items)
    )
        return <FreeJson {...{ name, value, onChange, problem, dropButton, readOnly }} />;
    if (kind === 'object') {
        return (
            <fieldset className="border-l-4 border-rule pl-3 sm:col-span-2">
                <legend className="flex items-center gap-2 font-semibold">
                    {words(name)} {dropButton}
                </legend>
                {schema.description && <p className="text-sm text-faint">{schema.description}</p>}
                <SchemaForm
                    schema={schema}
                    value={value}
                    onChange={onChange}
                    problems={problems}
                    at={at}
                    readOnly={readOnly}
                />
                {note}
            </fieldset>
        );
    }
    if (kind === 'array') {
        const list = value as Json[];
        const simple =
            schema.items &&
            ['string', 'number', 'integer'].includes(String(schema.items.type ?? (schema.items.enum ? 'string' : '')));
        if (simple) {
            const numeric = schema.items!.type !== 'string' && !schema.items!.enum;
            return (
                <div>
                    <label htmlFor={id} className="block text-sm font-semibold text-faint">
                        {words(name)}, one a line {dropButton}
                    </label>
                    <textarea
                        id={id}
                        className="input"
                        readOnly={readOnly}
                        rows={Math.min(8, Math.max(2, list.length))}
                        value={list.join('\n')}
                        onChange={(e) =>
                            onChange(
                                e.target.value
                                    .split('\n')
                                    .filter((l, i, all) => l !== '' || i === all.length - 1)
                                    .map((l) =>
                                        numeric && l.trim() !== '' && !Number.isNaN(Number(l)) ? Number(l) : l,
                                    ),
                            )
                        }
                        onBlur={(e) =>
                            onChange(
                                e.target.value
                                    .split('\n')
                                    .filter(Boolean)
                                    .map((l) => (numeric && !Number.isNaN(Number(l)) ? Number(l) : l)),
                            )
                        }
                        aria-invalid={problem ? true : undefined}
                    />
                    {note}
                    {problems
                        .filter((p) => p.pointer.startsWith(`${at}/`))
                        .map((p) => (
                            <p key={p.pointer} role="alert" className="font-semibold text-bad">
                                Line {Number(p.pointer.slice(at.length + 1)) + 1}: {p.detail}
                            </p>
                        ))}
                </div>
            );
        }
        return (
            <fieldset className="border-l-4 border-rule pl-3 sm:col-span-2">
                <legend className="flex items-center gap-2 font-semibold">
                    {words(name)} ({list.length}) {dropButton}
                </legend>
                {list.map((item, i) => (
                    <More
                        key={i}
                        className="border-b border-rule"
                        open={list.length <= 2 || problems.some((p) => p.pointer.startsWith(`${at}/${i}/`))}
                        title={
                            <>
                                {i + 1}. {summary(item)}
                            </>
                        }
                    >
                        {schema.items!.type === 'object' || typeof item === 'object' ? (
                            <SchemaForm
                                schema={schema.items!}
                                value={item}
                                onChange={(v) => onChange(list.map((x, k) => (k === i ? v : x)))}
                                problems={problems}
                                at={`${at}/${i}`}
                                readOnly={readOnly}
                            />
                        ) : (
                            <FreeJson
                                name={String(i + 1)}
                                value={item}
                                onChange={(v) => onChange(list.map((x, k) => (k === i ? v : x)))}
                                readOnly={readOnly}
                            />
                        )}
                        {!readOnly && (
                            <button
                                type="button"
                                className="min-h-9 px-1 text-sm text-faint underline"
                                onClick={() => onChange(list.filter((_, k) => k !== i))}
                            >
                                take out {i + 1}
                            </button>
                        )}
                    </More>
                ))}
                {!readOnly && (
                    <button
                        type="button"
                        className="btn mt-1"
                        onClick={() => onChange([...list, blank(schema.items!)])}
                    >
                        Add one
                    </button>
                )}
                {note}
            </fieldset>
        );
    }
    if (kind === 'boolean')
        return (
            <label className="flex min-h-11 items-center gap-2">
                <input
                    type="checkbox"
                    disabled={readOnly}
                    className="size-5 accent-[var(--hand)]"
                    checked={Boolean(value)}
                    onChange={(e) => onChange(e.target.checked)}
                />
                {words(name)} {dropButton}
                {note}
            </label>
        );
    if (kind === 'enum')
        return (
            <div>
                <label htmlFor={id} className="block text-sm font-semibold text-faint">
                    {words(name)} {dropButton}
                </label>
                <select
                    id={id}
                    disabled={readOnly}
                    className="input"
                    value={String(value)}
                    onChange={(e) => onChange(e.target.value)}
                >
                    {schema.enum!.map((v) => (
                        <option key={v}>{v}</option>
                    ))}
                </select>
                {note}
            </div>
        );
    if (kind === 'number')
        return <NumberPart {...{ id, name, value: value as number, onChange, dropButton, note, readOnly }} />;
    const long = String(value ?? '').length > 34;
    return (
        <div className={long ? 'sm:col-span-2' : ''}>
            <label htmlFor={id} className="block text-sm font-semibold text-faint">
                {words(name)} {dropButton}
            </label>
            <input
                id={id}
                className="input"
                type={schema.format === 'date' ? 'date' : 'text'}
                readOnly={readOnly}
                value={String(value ?? '')}
                aria-invalid={problem ? true : undefined}
                onChange={(e) => onChange(e.target.value)}
            />
            {note}
        </div>
    );
}

const summary = (item: Json) => {
    const o = item as Record<string, Json>;
    return typeof item === 'object' && item !== null
        ? Object.values(o)
              .filter((v) => typeof v === 'string' || typeof v === 'number')
              .slice(0, 3)
              .join(', ')
        : String(item);
};

/**
 * Keeps what is typed while it is not yet a number; where quantities are read, "24 thou" becomes the field's own unit.
 * The server's sentence comes to a text that never becomes one.
 */
function NumberPart({
    id,
    name,
    value,
    onChange,
    dropButton,
    note,
    readOnly,
}: {
    id: string;
    name: string;
    value: number;
    onChange: (v: Json) => void;
    dropButton: React.ReactNode;
    note: React.ReactNode;
    readOnly: boolean;
}) {
    const [typed, setTyped] = useState(String(value));
    const [sentence, setSentence] = useState('');
    const read = useContext(QuantityReader);
    const quantity = quantityOf(name);
    const shown = Number(typed) === value || Number.isNaN(Number(typed)) || typed === '' ? typed : String(value);
    const bad = typed.trim() === '' || Number.isNaN(Number(typed));
    const settle = async () => {
        if (!read || !quantity || !bad || typed.trim() === '' || /^\d+,\d+$/.test(typed.trim())) return;
        const found = await read(typed, quantity);
        if (typeof found === 'string') return setSentence(found);
        setSentence('');
        setTyped(String(found));
        onChange(found);
    };
    const complaint = /^\d+,\d+$/.test(typed.trim())
        ? `Write a decimal point: ${typed.trim().replace(',', '.')}`
        : sentence || (read && quantity && typed.trim() !== '' ? '' : 'A number belongs here.');
    return (
        <div>
            <label htmlFor={id} className="block text-sm font-semibold text-faint">
                {words(name)} {dropButton}
            </label>
            <input
                id={id}
                className="input num"
                inputMode="decimal"
                readOnly={readOnly}
                value={shown}
                aria-invalid={bad || note ? true : undefined}
                onBlur={() => void settle()}
                onChange={(e) => {
                    const text = e.target.value;
                    setTyped(text);
                    setSentence('');
                    onChange(text.trim() === '' || Number.isNaN(Number(text)) ? text : Number(text));
                }}
            />
            {bad && complaint && (
                <p role="alert" className="font-semibold text-bad">
                    {complaint}
                </p>
            )}
            {note}
        </div>
    );
}

/** What has no fixed shape (gear trains, likelihoods, drawings) is edited as JSON text. */
function FreeJson({
    name,
    value,
    onChange,
    problem,
    dropButton,
    readOnly,
}: {
    name: string;
    value: Json;
    onChange: (v: Json) => void;
    problem?: string;
    dropButton?: React.ReactNode;
    readOnly: boolean;
}) {
    const [text, setText] = useState(() => JSON.stringify(value, null, 2));
    const [bad, setBad] = useState('');
    const id = useId();
    return (
        <More
            className="sm:col-span-2"
            open={!!problem || text.length < 300}
            title={
                <>
                    {words(name)} <span className="text-sm font-normal text-faint">as JSON</span>
                </>
            }
        >
            {dropButton}
            <label htmlFor={id} className="sr-only">
                {words(name)} as JSON
            </label>
            <textarea
                id={id}
                className="input num text-sm"
                readOnly={readOnly}
                rows={Math.min(24, text.split('\n').length + 1)}
                spellCheck={false}
                value={text}
                aria-invalid={bad || problem ? true : undefined}
                onChange={(e) => {
                    setText(e.target.value);
                    try {
                        onChange(JSON.parse(e.target.value));
                        setBad('');
                    } catch (error) {
                        setBad(error instanceof Error ? error.message : 'This is no JSON.');
                    }
                }}
            />
            {(bad || problem) && (
                <p role="alert" className="font-semibold text-bad">
                    {bad || problem}
                </p>
            )}
        </More>
    );
}
