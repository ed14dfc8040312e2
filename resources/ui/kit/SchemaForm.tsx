import { useContext, useId, useState, type ReactNode } from 'react';
import { QuantityReader, quantityOf, unitOf } from './quantity';
import { FieldProblem } from './basics';
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
    const first = schema.oneOf?.[0];
    if (first) return blank(first);
    if (schema.enum) return schema.enum[0];
    if (schema.const !== undefined) return schema.const;
    if (schema.type === 'object')
        return Object.fromEntries((schema.required ?? []).map((k) => [k, blank(schema.properties?.[k] ?? {})]));
    return typeof schema.type === 'string' ? EMPTY[schema.type]?.() : '';
}

const EMPTY: Record<string, () => Json> = {
    array: () => [],
    boolean: () => false,
    number: () => 0,
    integer: () => 0,
    string: () => '',
};

type FormProps = {
    schema: Schema;
    value: Json;
    onChange: (v: Json) => void;
    problems: Problems;
    at?: string;
    readOnly?: boolean;
};

/** What a name that the schema does not list may hold; null when it may not be there. */
const othersOf = (schema: Schema) =>
    typeof schema.additionalProperties === 'object' ? schema.additionalProperties : null;

/** A form for one entry of the catalog, made from its published schema; every problem stands at its field. */
export function SchemaForm({ schema, value, onChange, problems, at = '', readOnly = false }: FormProps) {
    const node = (value ?? {}) as Record<string, Json>;
    const others = othersOf(schema);
    const keys = [...new Set([...Object.keys(schema.properties ?? {}), ...Object.keys(node)])];
    return (
        <div className="grid items-start gap-x-3 gap-y-2 sm:grid-cols-2">
            {keys.map((k) => (
                <Entry
                    key={k}
                    name={k}
                    schema={schema.properties?.[k] ?? others ?? {}}
                    required={schema.required?.includes(k) ?? false}
                    node={node}
                    onNode={onChange}
                    problems={problems}
                    at={`${at}/${k}`}
                    readOnly={readOnly}
                />
            ))}
            {others && !readOnly && <AddKey onAdd={(k) => onChange({ ...node, [k]: blank(others) })} />}
        </div>
    );
}

type EntryProps = {
    name: string;
    schema: Schema;
    required: boolean;
    node: Record<string, Json>;
    onNode: (to: Record<string, Json>) => void;
    problems: Problems;
    at: string;
    readOnly: boolean;
};

/** One name of a node: its field, or the offer to add it. */
function Entry({ name, schema, required, node, onNode, problems, at, readOnly }: EntryProps) {
    const put = (v: Json) => onNode({ ...node, [name]: v });
    if (!(name in node) && !required) {
        if (readOnly) return null;
        return (
            <button
                type="button"
                className="min-h-9 justify-self-start px-1 text-sm text-faint underline"
                onClick={() => put(blank(schema))}
            >
                add {words(name)}
            </button>
        );
    }
    const drop = () => onNode(Object.fromEntries(Object.entries(node).filter(([n]) => n !== name)));
    return (
        <Part
            name={name}
            schema={schema}
            value={node[name]}
            onChange={put}
            onDrop={readOnly || required ? undefined : drop}
            problems={problems}
            at={at}
            readOnly={readOnly}
        />
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

/** What a field of every kind is given: its own sentence, and the button that takes it out. */
type FieldProps = PartProps & { problem: string | undefined; drop: ReactNode };

/** The fields by what they hold. */
const FIELDS = {
    free: FreeField,
    object: ObjectField,
    lines: LinesField,
    list: ListField,
    boolean: BooleanField,
    enum: EnumField,
    number: NumberField,
    text: TextField,
};

function kindOf(schema: Schema, value: Json): keyof typeof FIELDS {
    if (schema.oneOf) return 'free';
    if (Array.isArray(value)) return listKind(schema.items);
    if (isObject(value)) return schema.properties || othersOf(schema) ? 'object' : 'free';
    if (schema.enum) return 'enum';
    if (schema.type === 'boolean') return 'boolean';
    return isNumber(schema) || typeof value === 'number' ? 'number' : 'text';
}

const isObject = (value: Json) => typeof value === 'object' && value !== null;
const isNumber = (schema: Schema) => schema.type === 'number' || schema.type === 'integer';

function listKind(items: Schema | undefined): 'free' | 'lines' | 'list' {
    if (!items) return 'free';
    return ['string', 'number', 'integer'].includes(String(items.type ?? (items.enum ? 'string' : '')))
        ? 'lines'
        : 'list';
}

function Part(props: PartProps) {
    const Shown = FIELDS[kindOf(props.schema, props.value)];
    const problem = props.problems.find((p) => p.pointer === props.at)?.detail;
    const drop = props.onDrop && (
        <button
            type="button"
            className="min-h-9 px-2 text-sm text-faint underline"
            aria-label={`Remove ${words(props.name)}`}
            onClick={props.onDrop}
        >
            remove
        </button>
    );
    return <Shown {...props} problem={problem} drop={drop} />;
}

function ObjectField({ name, schema, value, onChange, problems, at, readOnly, problem, drop }: FieldProps) {
    return (
        <fieldset className="border-l-4 border-rule pl-3 sm:col-span-2">
            <legend className="flex items-center gap-2 font-semibold">
                {words(name)} {drop}
            </legend>
            {schema.description && <p className="text-sm text-faint">{schema.description}</p>}
            <SchemaForm {...{ schema, value, onChange, problems, at, readOnly }} />
            <FieldProblem>{problem}</FieldProblem>
        </fieldset>
    );
}

const numberOr = (text: string): Json => (text.trim() === '' || Number.isNaN(Number(text)) ? text : Number(text));

/** Texts or numbers, one a line; an empty last line stays while one is typing and goes when one leaves. */
function LinesField({ name, schema, value, onChange, problems, at, readOnly, problem, drop }: FieldProps) {
    const id = useId();
    const list = value as Json[];
    const numeric = schema.items?.type !== 'string' && !schema.items?.enum;
    const read = (lines: string[]) => onChange(numeric ? lines.map(numberOr) : lines);
    return (
        <div>
            <label htmlFor={id} className="block text-sm font-semibold text-faint">
                {words(name)}, one a line {drop}
            </label>
            <textarea
                id={id}
                className="input"
                readOnly={readOnly}
                rows={Math.min(8, Math.max(2, list.length))}
                value={list.join('\n')}
                onChange={(e) =>
                    read(e.target.value.split('\n').filter((l, i, all) => l !== '' || i === all.length - 1))
                }
                onBlur={(e) => read(e.target.value.split('\n').filter(Boolean))}
                aria-invalid={problem ? true : undefined}
            />
            <FieldProblem>{problem}</FieldProblem>
            {problems
                .filter((p) => p.pointer.startsWith(`${at}/`))
                .map((p) => (
                    <FieldProblem key={p.pointer}>
                        Line {Number(p.pointer.slice(at.length + 1)) + 1}: {p.detail}
                    </FieldProblem>
                ))}
        </div>
    );
}

function ListField({ name, schema, value, onChange, problems, at, readOnly, problem, drop }: FieldProps) {
    const list = value as Json[];
    const items = schema.items ?? {};
    return (
        <fieldset className="border-l-4 border-rule pl-3 sm:col-span-2">
            <legend className="flex items-center gap-2 font-semibold">
                {words(name)} ({list.length}) {drop}
            </legend>
            {list.map((item, i) => (
                <ListItem
                    key={i}
                    place={i}
                    schema={items}
                    value={item}
                    onChange={(v) => onChange(list.map((x, k) => (k === i ? v : x)))}
                    onDrop={() => onChange(list.filter((_, k) => k !== i))}
                    problems={problems}
                    at={`${at}/${i}`}
                    readOnly={readOnly}
                    open={list.length <= 2}
                />
            ))}
            {!readOnly && (
                <button type="button" className="btn mt-1" onClick={() => onChange([...list, blank(items)])}>
                    Add one
                </button>
            )}
            <FieldProblem>{problem}</FieldProblem>
        </fieldset>
    );
}

type ListItemProps = Omit<PartProps, 'name'> & { place: number; open: boolean };

function ListItem({ place, schema, value, onChange, onDrop, problems, at, readOnly, open }: ListItemProps) {
    const title = `${place + 1}. ${summary(value)}`;
    const structured = schema.type === 'object' || typeof value === 'object';
    return (
        <More
            late
            className="border-b border-rule"
            open={open || problems.some((p) => p.pointer.startsWith(`${at}/`))}
            title={title}
        >
            {structured ? (
                <SchemaForm {...{ schema, value, onChange, problems, at, readOnly }} />
            ) : (
                <FreeJson name={String(place + 1)} {...{ value, onChange, readOnly }} />
            )}
            {!readOnly && (
                <button type="button" className="min-h-9 px-1 text-sm text-faint underline" onClick={onDrop}>
                    take out {place + 1}
                </button>
            )}
        </More>
    );
}

function BooleanField({ name, value, onChange, readOnly, problem, drop }: FieldProps) {
    return (
        <label className="flex min-h-11 items-center gap-2">
            <input
                type="checkbox"
                disabled={readOnly}
                className="size-5 accent-[var(--hand)]"
                checked={Boolean(value)}
                onChange={(e) => onChange(e.target.checked)}
            />
            {words(name)} {drop}
            <FieldProblem>{problem}</FieldProblem>
        </label>
    );
}

function EnumField({ name, schema, value, onChange, readOnly, problem, drop }: FieldProps) {
    const id = useId();
    return (
        <div>
            <label htmlFor={id} className="block text-sm font-semibold text-faint">
                {words(name)} {drop}
            </label>
            <select
                id={id}
                disabled={readOnly}
                className="input"
                value={String(value)}
                onChange={(e) => onChange(e.target.value)}
            >
                {schema.enum?.map((v) => (
                    <option key={v}>{v}</option>
                ))}
            </select>
            <FieldProblem>{problem}</FieldProblem>
        </div>
    );
}

function TextField({ name, schema, value, onChange, readOnly, problem, drop }: FieldProps) {
    const id = useId();
    const text = String(value ?? '');
    return (
        <div className={text.length > 34 ? 'sm:col-span-2' : ''}>
            <label htmlFor={id} className="block text-sm font-semibold text-faint">
                {words(name)} {drop}
            </label>
            <input
                id={id}
                className="input"
                type={schema.format === 'date' ? 'date' : 'text'}
                readOnly={readOnly}
                value={text}
                aria-invalid={problem ? true : undefined}
                onChange={(e) => onChange(e.target.value)}
            />
            <FieldProblem>{problem}</FieldProblem>
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

/** A number as it is typed: what is no number yet, and the sentence a quantity that cannot be read has. */
function useTyped(name: string, value: Json, onChange: (v: Json) => void) {
    const [typed, setTyped] = useState(String(value));
    const [sentence, setSentence] = useState('');
    const read = useContext(QuantityReader);
    const quantity = quantityOf(name);
    const text = typed.trim();
    const bad = typeof numberOr(text) === 'string';
    const decimalComma = /^\d+,\d+$/.test(text);
    const reads = read && quantity && text !== '' && !decimalComma;
    const settle = async () => {
        if (!reads || !bad) return;
        const found = await read(typed, quantity);
        if (typeof found === 'string') return setSentence(found);
        setSentence('');
        setTyped(String(found));
        onChange(found);
    };
    const type = (to: string) => {
        setTyped(to);
        setSentence('');
        onChange(numberOr(to));
    };
    const complaint = sentence || (reads ? '' : notANumber(text, decimalComma));
    return {
        shown: bad || Number(typed) === value ? typed : String(value),
        complaint: bad ? complaint : '',
        bad,
        settle,
        type,
    };
}

const notANumber = (text: string, decimalComma: boolean) =>
    decimalComma ? `Write a decimal point: ${text.replace(',', '.')}` : 'A number belongs here.';

/**
 * Keeps what is typed while it is not yet a number; where quantities are read, "24 thou" becomes the field's own unit.
 * The server's sentence comes to a text that never becomes one.
 */
function NumberField({ name, value, onChange, readOnly, problem, drop }: FieldProps) {
    const id = useId();
    const { shown, complaint, bad, settle, type } = useTyped(name, value, onChange);
    return (
        <div>
            <label htmlFor={id} className="block text-sm font-semibold text-faint">
                {words(name)} {drop}
            </label>
            <input
                id={id}
                className="input num"
                inputMode="decimal"
                readOnly={readOnly}
                value={shown}
                aria-invalid={bad || problem ? true : undefined}
                onBlur={() => void settle()}
                onChange={(e) => type(e.target.value)}
            />
            <FieldProblem>{complaint}</FieldProblem>
            <FieldProblem>{problem}</FieldProblem>
        </div>
    );
}

function FreeField({ name, value, onChange, readOnly, problem, drop }: FieldProps) {
    return <FreeJson {...{ name, value, onChange, readOnly, problem, drop }} />;
}

type FreeJsonProps = Pick<PartProps, 'name' | 'value' | 'onChange' | 'readOnly'> & {
    problem?: string;
    drop?: ReactNode;
};

/** What has no fixed shape (gear trains, likelihoods, drawings) is edited as JSON text. */
function FreeJson({ name, value, onChange, problem, drop, readOnly }: FreeJsonProps) {
    const [text, setText] = useState(() => JSON.stringify(value, null, 2));
    const [bad, setBad] = useState('');
    const id = useId();
    const type = (to: string) => {
        setText(to);
        try {
            onChange(JSON.parse(to));
            setBad('');
        } catch (error) {
            setBad(error instanceof Error ? error.message : 'This is no JSON.');
        }
    };
    const title = (
        <>
            {words(name)} <span className="text-sm font-normal text-faint">as JSON</span>
        </>
    );
    return (
        <More className="sm:col-span-2" open={!!problem || text.length < 300} title={title}>
            {drop}
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
                onChange={(e) => type(e.target.value)}
            />
            <FieldProblem>{bad || problem}</FieldProblem>
        </More>
    );
}
