import type { ReactNode } from 'react';
import type { Problem } from '../../api/client';
import { Panel } from '../../kit/basics';
import type { Element, PlanetSet, Train } from './trains';
import { More } from '../../kit/More';

/** Teeth, shafts, elements and chart as tables; without onChange they are shown only. */
export function TrainEditor({
    train,
    onChange,
    problem,
}: {
    train: Train;
    onChange?: (change: Partial<Train>) => void;
    problem: Problem | null;
}) {
    const editable = onChange !== undefined;
    const wrong = (pointer: string) =>
        problem?.errors?.find((e) => e.pointer === pointer || e.pointer.startsWith(`${pointer}/`))?.detail;
    const put = <K extends 'sets' | 'elements' | 'gears'>(list: K, i: number, change: Partial<Train[K][number]>) =>
        onChange?.({
            [list]: (train[list] as object[]).map((x, k) => (k === i ? { ...x, ...change } : x)),
        } as Partial<Train>);
    const drop = (list: 'sets' | 'elements' | 'gears', i: number) =>
        onChange?.({ [list]: (train[list] as object[]).filter((_, k) => k !== i) } as Partial<Train>);
    const cell = (label: string, value: string, change: (v: string) => void, pointer: string, narrow = true) => (
        <td className="td">
            <input
                aria-label={label}
                readOnly={!editable}
                className={`input num ${narrow ? 'w-24' : ''}`}
                value={value}
                aria-invalid={wrong(pointer) ? true : undefined}
                title={wrong(pointer)}
                onChange={(e) => change(e.target.value)}
            />
        </td>
    );
    // What is no number yet goes on as it is typed, so that the solver's sentence names it.
    const number = (v: string): number =>
        v.trim() === '' || Number.isNaN(Number(v)) ? (v as unknown as number) : Number(v);
    const pick = (label: string, value: string, values: readonly string[], change: (v: string) => void) => (
        <td className="td">
            <select
                aria-label={label}
                disabled={!editable}
                className="input"
                value={value}
                onChange={(e) => change(e.target.value)}
            >
                {values.map((v) => (
                    <option key={v}>{v}</option>
                ))}
            </select>
        </td>
    );
    const rows = (list: 'sets' | 'elements' | 'gears', add: object, heads: string[], body: ReactNode) => (
        <>
            <table className="w-full">
                <thead>
                    <tr>
                        {heads.map((h) => (
                            <th key={h} scope="col" className="th">
                                {h}
                            </th>
                        ))}
                        {editable && (
                            <th className="th">
                                <span className="sr-only">take out</span>
                            </th>
                        )}
                    </tr>
                </thead>
                <tbody>{body}</tbody>
            </table>
            {editable && (
                <button
                    type="button"
                    className="btn my-2"
                    onClick={() => onChange({ [list]: [...(train[list] as object[]), add] } as Partial<Train>)}
                >
                    Add one
                </button>
            )}
        </>
    );
    const out = (list: 'sets' | 'elements' | 'gears', i: number, what: string) =>
        editable && (
            <td className="td">
                <button
                    type="button"
                    className="min-h-11 px-2 underline"
                    aria-label={`Take out ${what}`}
                    onClick={() => drop(list, i)}
                >
                    take out
                </button>
            </td>
        );
    return (
        <Panel
            title="Teeth, shafts and chart"
            aside={
                editable
                    ? 'solved as you type; kept on this tablet until it is written into the catalog'
                    : 'as the catalog has it'
            }
        >
            <h3 className="text-lg">Planetary sets</h3>
            <div className="overflow-x-auto">
                {rows(
                    'sets',
                    {
                        id: `P${train.sets.length + 1}`,
                        kind: 'simple',
                        sun: 'sun',
                        ring: 'ring',
                        carrier: 'carrier',
                        sunTeeth: 30,
                        ringTeeth: 72,
                    } satisfies PlanetSet,
                    ['Set', 'Kind', 'Sun', 'Ring', 'Carrier', 'Sun teeth', 'Ring teeth'],
                    train.sets.map((s, i) => (
                        <tr key={i}>
                            {cell(`Name of set ${i + 1}`, s.id, (id) => put('sets', i, { id }), `/sets/${i}/id`)}
                            {pick(`Kind of ${s.id}`, s.kind, ['simple', 'double'], (kind) =>
                                put('sets', i, { kind: kind as 'simple' }),
                            )}
                            {(['sun', 'ring', 'carrier'] as const).map((m) => (
                                <FragmentCell key={m}>
                                    {cell(
                                        `${m} shaft of ${s.id}`,
                                        s[m],
                                        (v) => put('sets', i, { [m]: v }),
                                        `/sets/${i}/${m}`,
                                    )}
                                </FragmentCell>
                            ))}
                            {(['sunTeeth', 'ringTeeth'] as const).map((m) => (
                                <FragmentCell key={m}>
                                    {cell(
                                        `${m === 'sunTeeth' ? 'Sun' : 'Ring'} teeth of ${s.id}`,
                                        String(s[m]),
                                        (v) => put('sets', i, { [m]: number(v) }),
                                        `/sets/${i}/${m}`,
                                    )}
                                </FragmentCell>
                            ))}
                            {out('sets', i, s.id)}
                        </tr>
                    )),
                )}
            </div>
            <h3 className="text-lg">Shift elements</h3>
            <div className="overflow-x-auto">
                {rows(
                    'elements',
                    { id: `E${train.elements.length + 1}`, kind: 'clutch', a: train.input, b: 'sun' } satisfies Element,
                    ['Element', 'Kind', 'From', 'To', 'Refuses'],
                    train.elements.map((e, i) => (
                        <tr key={i}>
                            {cell(
                                `Name of element ${i + 1}`,
                                e.id,
                                (id) => put('elements', i, { id }),
                                `/elements/${i}/id`,
                            )}
                            {pick(`Kind of ${e.id}`, e.kind, ['clutch', 'brake', 'one-way'], (kind) =>
                                put('elements', i, {
                                    kind: kind as 'clutch',
                                    ...(kind === 'one-way' ? {} : { locks: undefined }),
                                }),
                            )}
                            {cell(`First shaft of ${e.id}`, e.a, (a) => put('elements', i, { a }), `/elements/${i}/a`)}
                            {cell(`Second shaft of ${e.id}`, e.b, (b) => put('elements', i, { b }), `/elements/${i}/b`)}
                            {e.kind === 'one-way' ? (
                                pick(
                                    `Direction ${e.id} refuses`,
                                    e.locks ?? 'negative',
                                    ['negative', 'positive'],
                                    (locks) => put('elements', i, { locks: locks as 'negative' }),
                                )
                            ) : (
                                <td className="td text-faint">–</td>
                            )}
                            {out('elements', i, e.id)}
                        </tr>
                    )),
                )}
            </div>
            <h3 className="text-lg">Apply chart</h3>
            <div className="overflow-x-auto">
                {rows(
                    'gears',
                    { name: String(train.gears.length + 1), applied: [] },
                    ['Gear', ...train.elements.map((e) => e.id)],
                    train.gears.map((g, i) => (
                        <tr key={i}>
                            {cell(
                                `Name of gear ${i + 1}`,
                                g.name,
                                (name) => put('gears', i, { name }),
                                `/gears/${i}/name`,
                            )}
                            {train.elements.map((e) => (
                                <td key={e.id} className="td">
                                    <label className="flex min-h-11 min-w-11 items-center justify-center">
                                        <span className="sr-only">
                                            {e.id} in gear {g.name}
                                        </span>
                                        <input
                                            type="checkbox"
                                            disabled={!editable}
                                            className="size-5 accent-[var(--hand)]"
                                            checked={g.applied.includes(e.id)}
                                            onChange={() =>
                                                put('gears', i, {
                                                    applied: g.applied.includes(e.id)
                                                        ? g.applied.filter((x) => x !== e.id)
                                                        : [...g.applied, e.id],
                                                })
                                            }
                                        />
                                    </label>
                                </td>
                            ))}
                            {out('gears', i, `gear ${g.name}`)}
                        </tr>
                    )),
                )}
            </div>
            {editable && (
                <div className="flex flex-wrap gap-3">
                    {(['input', 'output'] as const).map((k) => (
                        <label key={k} className="text-sm font-semibold text-faint">
                            {k === 'input' ? 'Input shaft' : 'Output shaft'}
                            <input
                                className="input w-32"
                                value={train[k]}
                                aria-invalid={wrong(`/${k}`) ? true : undefined}
                                onChange={(e) => onChange({ [k]: e.target.value })}
                            />
                        </label>
                    ))}
                </div>
            )}
            <More className="mt-2" title="This train as text">
                <pre className="overflow-x-auto text-sm">{JSON.stringify(train)}</pre>
            </More>
        </Panel>
    );
}

const FragmentCell = ({ children }: { children: ReactNode }) => <>{children}</>;
