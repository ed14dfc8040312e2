import { Radio, RadioGroup } from '@headlessui/react';
import { useId, type ReactNode, type Ref } from 'react';
import type { Problem } from '../api/client';

/** Status is a word and a shape, never colour alone. */
const MARKS = {
    good: { shape: '●', color: 'text-good' },
    bad: { shape: '▲', color: 'text-bad' },
    warn: { shape: '◆', color: 'text-warn' },
    idle: { shape: '○', color: 'text-faint' },
    next: { shape: '▶', color: 'text-hand' },
} as const;

export function Mark({ kind, children }: { kind: keyof typeof MARKS; children: ReactNode }) {
    const mark = MARKS[kind];
    return (
        <span className={`inline-flex items-baseline gap-1.5 font-semibold ${mark.color}`}>
            <span aria-hidden="true">{mark.shape}</span>
            <span>{children}</span>
        </span>
    );
}

export function ProblemNote({ problem, except = [] }: { problem: Problem | null; except?: string[] }) {
    if (!problem) return null;
    const errors = problem.errors ?? [];
    const atFields = errors.length > 0 && errors.every((e) => except.includes(e.pointer));
    const rest = errors.filter((e) => !except.includes(e.pointer) && e.detail !== problem.detail);
    return (
        <div role="alert" className="border-l-4 border-bad bg-sheet px-4 py-2 text-bad">
            <strong>
                {atFields
                    ? errors.length === 1
                        ? 'One field needs another look; it is marked above.'
                        : `${errors.length} fields need another look; they are marked above.`
                    : problem.detail}
            </strong>
            {rest.length > 0 && (
                <ul className="mt-1 list-disc pl-5 text-ink">
                    {rest.map((e, i) => (
                        <li key={i}>{e.detail}</li>
                    ))}
                </ul>
            )}
            {problem.current && <Versions current={problem.current} yours={problem.yours ?? {}} />}
        </div>
    );
}

function Versions({ current, yours }: { current: Record<string, unknown>; yours: Record<string, unknown> }) {
    const rows = Object.keys(yours).filter(
        (k) => k in current && JSON.stringify(current[k]) !== JSON.stringify(yours[k]),
    );
    return (
        <table className="mt-2 w-full text-sm text-ink">
            <thead>
                <tr>
                    <th className="th">Field</th>
                    <th className="th">There now</th>
                    <th className="th">Yours</th>
                </tr>
            </thead>
            <tbody>
                {rows.map((k) => (
                    <tr key={k}>
                        <td className="td">{k.replaceAll('_', ' ')}</td>
                        <td className="td">
                            {String(typeof current[k] === 'object' ? JSON.stringify(current[k]) : current[k])}
                        </td>
                        <td className="td">
                            {String(typeof yours[k] === 'object' ? JSON.stringify(yours[k]) : yours[k])}
                        </td>
                    </tr>
                ))}
            </tbody>
        </table>
    );
}

/** The sentence at a field; the field names it by its id. */
export function FieldProblem({ id, children }: { id?: string; children: ReactNode }) {
    if (!children) return null;
    return (
        <p id={id} role="alert" className="font-semibold text-bad">
            {children}
        </p>
    );
}

type FieldProps = {
    label: string;
    value: string;
    onChange: (v: string) => void;
    problem?: string;
    hint?: string;
    type?: string;
    list?: string[];
    autoFocus?: boolean;
    inputMode?: 'numeric' | 'decimal';
    onEnter?: () => void;
    className?: string;
    inputRef?: Ref<HTMLInputElement>;
};

export function Field({ label, problem, hint, list, className = '', ...input }: FieldProps) {
    const id = useId();
    const notes = [problem && `${id}-p`, hint && `${id}-h`].filter(Boolean).join(' ');
    return (
        <div className={className}>
            <label htmlFor={id} className="block text-sm font-semibold text-faint">
                {label}
            </label>
            <TextLine id={id} notes={notes} wrong={!!problem} list={list && `${id}-l`} {...input} />
            {list && (
                <datalist id={`${id}-l`}>
                    {list.map((v) => (
                        <option key={v} value={v} />
                    ))}
                </datalist>
            )}
            {hint && (
                <p id={`${id}-h`} className="text-sm text-faint">
                    {hint}
                </p>
            )}
            <FieldProblem id={`${id}-p`}>{problem}</FieldProblem>
        </div>
    );
}

type TextLineProps = Pick<
    FieldProps,
    'value' | 'onChange' | 'type' | 'autoFocus' | 'inputMode' | 'onEnter' | 'inputRef'
> & {
    id: string;
    notes: string;
    wrong: boolean;
    list?: string;
};

function TextLine({ notes, wrong, onChange, onEnter, inputRef, type = 'text', ...input }: TextLineProps) {
    return (
        <input
            {...input}
            ref={inputRef}
            type={type}
            className="input"
            autoComplete="off"
            aria-invalid={wrong ? true : undefined}
            aria-describedby={notes || undefined}
            onChange={(e) => onChange(e.target.value)}
            onKeyDown={(e) => {
                if (e.key === 'Enter' && onEnter) {
                    e.preventDefault();
                    onEnter();
                }
            }}
        />
    );
}

export function TextArea({
    label,
    value,
    onChange,
    problem,
    rows = 2,
}: {
    label: string;
    value: string;
    onChange: (v: string) => void;
    problem?: string;
    rows?: number;
}) {
    const id = useId();
    return (
        <div>
            <label htmlFor={id} className="block text-sm font-semibold text-faint">
                {label}
            </label>
            <textarea
                id={id}
                className="input"
                rows={rows}
                value={value}
                aria-invalid={problem ? true : undefined}
                aria-describedby={problem && `${id}-p`}
                onChange={(e) => onChange(e.target.value)}
            />
            <FieldProblem id={`${id}-p`}>{problem}</FieldProblem>
        </div>
    );
}

export function Select({
    label,
    value,
    onChange,
    options,
    problem,
    empty,
}: {
    label: string;
    value: string;
    onChange: (v: string) => void;
    options: { value: string; text: string }[];
    problem?: string;
    empty?: string;
}) {
    const id = useId();
    return (
        <div>
            <label htmlFor={id} className="block text-sm font-semibold text-faint">
                {label}
            </label>
            <select
                id={id}
                className="input"
                value={value}
                aria-invalid={problem ? true : undefined}
                aria-describedby={problem && `${id}-p`}
                onChange={(e) => onChange(e.target.value)}
            >
                {empty !== undefined && <option value="">{empty}</option>}
                {options.map((o) => (
                    <option key={o.value} value={o.value}>
                        {o.text}
                    </option>
                ))}
            </select>
            <FieldProblem id={`${id}-p`}>{problem}</FieldProblem>
        </div>
    );
}

/** Any of a few, each with its box. */
export function Checks({
    label,
    values,
    chosen,
    onChange,
    problem,
}: {
    label?: string;
    values: { value: string; text: ReactNode }[];
    chosen: string[];
    onChange: (v: string[]) => void;
    problem?: string;
}) {
    const id = useId();
    return (
        <fieldset aria-describedby={problem && `${id}-p`}>
            {label && <legend className="text-sm font-semibold text-faint">{label}</legend>}
            {values.map(({ value, text }) => (
                <label key={value} className="flex min-h-11 items-center gap-2">
                    <input
                        type="checkbox"
                        className="size-5 shrink-0 accent-[var(--hand)]"
                        checked={chosen.includes(value)}
                        onChange={() =>
                            onChange(chosen.includes(value) ? chosen.filter((v) => v !== value) : [...chosen, value])
                        }
                    />
                    {text}
                </label>
            ))}
            <FieldProblem id={`${id}-p`}>{problem}</FieldProblem>
        </fieldset>
    );
}

/** One answer out of a few, as big buttons; the one chosen can be pressed again. */
export function Choice({
    label,
    value,
    values,
    onChange,
    text = (v) => v,
    small,
}: {
    label: string;
    value: string | null;
    values: readonly string[];
    onChange: (v: string) => void;
    text?: (v: string) => string;
    small?: boolean;
}) {
    return (
        <RadioGroup value={value} onChange={(v) => v !== null && onChange(v)} aria-label={label}>
            {!small && (
                <span aria-hidden="true" className="block text-sm font-semibold text-faint">
                    {label}
                </span>
            )}
            <div className="flex flex-wrap gap-1.5">
                {values.map((v) => (
                    <Radio
                        key={v}
                        value={v}
                        className={`btn cursor-pointer px-3 ${v === value ? 'btn-chosen' : ''}`}
                        onClick={() => v === value && onChange(v)}
                    >
                        {v === value && <span aria-hidden="true">✓</span>}
                        {text(v)}
                    </Radio>
                ))}
            </div>
        </RadioGroup>
    );
}

/** On or off, as a big button. */
export function Toggle({ on, onToggle, children }: { on: boolean; onToggle: () => void; children: ReactNode }) {
    return (
        <button type="button" aria-pressed={on} className={`btn px-3 ${on ? 'btn-chosen' : ''}`} onClick={onToggle}>
            {on && <span aria-hidden="true">✓</span>}
            {children}
        </button>
    );
}

/** Answers that are written as soon as they are pressed: each a button of its own, so that no arrow key writes one. */
export function Answers({
    label,
    value,
    values,
    onAnswer,
    small,
}: {
    label: string;
    value: string | null;
    values: readonly string[];
    onAnswer: (v: string) => void;
    small?: boolean;
}) {
    return (
        <fieldset>
            <legend className={small ? 'sr-only' : 'text-sm font-semibold text-faint'}>{label}</legend>
            <div className="flex flex-wrap gap-1.5">
                {values.map((v) => (
                    <Toggle key={v} on={v === value} onToggle={() => onAnswer(v)}>
                        {v}
                    </Toggle>
                ))}
            </div>
        </fieldset>
    );
}

/** Which school is in force here, and why; set on the page of house rules. */
export function HouseNote({ house }: { house?: { question: string; choice: string; reason: string }[] }) {
    return (
        <>
            {(house ?? []).map((h) => (
                <p key={h.question} className="text-sm">
                    <span className="text-faint">House rule:</span> {h.question}: <strong>{h.choice}</strong>.{' '}
                    {h.reason}
                </p>
            ))}
        </>
    );
}

export function Caution({ children }: { children: ReactNode }) {
    return (
        <p className="border-2 border-dashed border-warn bg-sheet px-3 py-1.5 text-sm">
            <strong className="text-warn">
                <span aria-hidden="true">◆ </span>Take care.{' '}
            </strong>
            {children} The maker's procedure, local rules and licensed practice come first.
        </p>
    );
}

export function Panel({
    title,
    aside,
    children,
    id,
}: {
    title: string;
    aside?: ReactNode;
    children: ReactNode;
    id?: string;
}) {
    return (
        <section id={id} aria-label={title} className="sheet px-4 py-3">
            <header className="mb-2 flex flex-wrap items-baseline justify-between gap-x-4 border-b border-rule pb-1">
                <h2 className="text-xl">{title}</h2>
                {aside && <div className="text-sm text-faint">{aside}</div>}
            </header>
            {children}
        </section>
    );
}

/** The head of a table: the names of its columns; an empty name for a column of marks or buttons. */
export function HeadRow({ of, numbersFrom = Infinity }: { of: readonly string[]; numbersFrom?: number }) {
    return (
        <thead>
            <tr>
                {of.map((name, i) => (
                    <th key={i} scope="col" className={i >= numbersFrom ? 'th text-right!' : 'th'}>
                        {name}
                    </th>
                ))}
            </tr>
        </thead>
    );
}

export function Loading({ what }: { what: string }) {
    return (
        <p role="status" className="p-6 text-faint">
            Fetching {what} …
        </p>
    );
}

export function Source({ source, confidence }: { source: string; confidence: string }) {
    return (
        <span className="text-sm text-faint">
            {confidence}: {source}
        </span>
    );
}
