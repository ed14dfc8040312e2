import type { ReactNode } from 'react';
import type { Problem } from '../../api/client';
import { Panel } from '../../kit/basics';
import { More } from '../../kit/More';
import type { Element, PlanetSet, Train } from './trains';

type List = 'sets' | 'elements' | 'gears';

/** How the tables reach the train: without `change` they only show it. */
type Editing = { train: Train; wrong: (pointer: string) => string | undefined; change?: (to: Partial<Train>) => void };

const rowsOf = (train: Train, list: List): object[] => train[list];

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
    const editing: Editing = {
        train,
        change: onChange,
        wrong: (pointer) =>
            problem?.errors?.find((e) => e.pointer === pointer || e.pointer.startsWith(`${pointer}/`))?.detail,
    };
    return (
        <Panel
            title="Teeth, shafts and chart"
            aside={
                onChange
                    ? 'solved as you type; kept on this tablet until it is written into the catalog'
                    : 'as the catalog has it'
            }
        >
            <h3 className="text-lg">Planetary sets</h3>
            <Sets editing={editing} />
            <h3 className="text-lg">Shift elements</h3>
            <Elements editing={editing} />
            <h3 className="text-lg">Apply chart</h3>
            <Chart editing={editing} />
            {onChange && <Ends editing={editing} />}
            <More className="mt-2" title="This train as text">
                <pre className="overflow-x-auto text-sm">{JSON.stringify(train)}</pre>
            </More>
        </Panel>
    );
}

function put<K extends List>({ train, change }: Editing, list: K, i: number, to: Partial<Train[K][number]>) {
    change?.({ [list]: rowsOf(train, list).map((row, k) => (k === i ? { ...row, ...to } : row)) });
}

// What is no number yet goes on as it is typed, so that the solver's sentence names it.
const number = (v: string): number =>
    v.trim() === '' || Number.isNaN(Number(v)) ? (v as unknown as number) : Number(v);

function Sets({ editing }: { editing: Editing }) {
    const { train } = editing;
    const add: PlanetSet = {
        id: `P${train.sets.length + 1}`,
        kind: 'simple',
        sun: 'sun',
        ring: 'ring',
        carrier: 'carrier',
        sunTeeth: 30,
        ringTeeth: 72,
    };
    return (
        <Rows
            editing={editing}
            list="sets"
            add={add}
            heads={['Set', 'Kind', 'Sun', 'Ring', 'Carrier', 'Sun teeth', 'Ring teeth']}
        >
            {train.sets.map((set, i) => (
                <SetRow key={i} editing={editing} set={set} i={i} />
            ))}
        </Rows>
    );
}

function SetRow({ editing, set, i }: { editing: Editing; set: PlanetSet; i: number }) {
    const cell = (label: string, key: keyof PlanetSet, as: (v: string) => unknown = (v) => v) => (
        <Cell
            key={key}
            editing={editing}
            label={label}
            value={String(set[key])}
            pointer={`/sets/${i}/${key}`}
            change={(v) => put(editing, 'sets', i, { [key]: as(v) })}
        />
    );
    return (
        <tr>
            {cell(`Name of set ${i + 1}`, 'id')}
            <Pick
                editing={editing}
                label={`Kind of ${set.id}`}
                value={set.kind}
                values={['simple', 'double'] as const}
                change={(kind) => put(editing, 'sets', i, { kind })}
            />
            {(['sun', 'ring', 'carrier'] as const).map((m) => cell(`${m} shaft of ${set.id}`, m))}
            {cell(`Sun teeth of ${set.id}`, 'sunTeeth', number)}
            {cell(`Ring teeth of ${set.id}`, 'ringTeeth', number)}
            <TakeOut editing={editing} list="sets" i={i} what={set.id} />
        </tr>
    );
}

function Elements({ editing }: { editing: Editing }) {
    const { train } = editing;
    const add: Element = { id: `E${train.elements.length + 1}`, kind: 'clutch', a: train.input, b: 'sun' };
    return (
        <Rows editing={editing} list="elements" add={add} heads={['Element', 'Kind', 'From', 'To', 'Refuses']}>
            {train.elements.map((element, i) => (
                <ElementRow key={i} editing={editing} element={element} i={i} />
            ))}
        </Rows>
    );
}

function ElementRow({ editing, element, i }: { editing: Editing; element: Element; i: number }) {
    const cell = (label: string, key: 'id' | 'a' | 'b') => (
        <Cell
            editing={editing}
            label={label}
            value={element[key]}
            pointer={`/elements/${i}/${key}`}
            change={(v) => put(editing, 'elements', i, { [key]: v })}
        />
    );
    return (
        <tr>
            {cell(`Name of element ${i + 1}`, 'id')}
            <Pick
                editing={editing}
                label={`Kind of ${element.id}`}
                value={element.kind}
                values={['clutch', 'brake', 'one-way'] as const}
                change={(kind) =>
                    put(editing, 'elements', i, kind === 'one-way' ? { kind } : { kind, locks: undefined })
                }
            />
            {cell(`First shaft of ${element.id}`, 'a')}
            {cell(`Second shaft of ${element.id}`, 'b')}
            {element.kind === 'one-way' ? (
                <Pick
                    editing={editing}
                    label={`Direction ${element.id} refuses`}
                    value={element.locks ?? 'negative'}
                    values={['negative', 'positive'] as const}
                    change={(locks) => put(editing, 'elements', i, { locks })}
                />
            ) : (
                <td className="td text-faint">–</td>
            )}
            <TakeOut editing={editing} list="elements" i={i} what={element.id} />
        </tr>
    );
}

function Chart({ editing }: { editing: Editing }) {
    const { train } = editing;
    return (
        <Rows
            editing={editing}
            list="gears"
            add={{ name: String(train.gears.length + 1), applied: [] }}
            heads={['Gear', ...train.elements.map((e) => e.id)]}
        >
            {train.gears.map((gear, i) => (
                <tr key={i}>
                    <Cell
                        editing={editing}
                        label={`Name of gear ${i + 1}`}
                        value={gear.name}
                        pointer={`/gears/${i}/name`}
                        change={(name) => put(editing, 'gears', i, { name })}
                    />
                    {train.elements.map((e) => (
                        <Applied
                            key={e.id}
                            editing={editing}
                            label={`${e.id} in gear ${gear.name}`}
                            on={gear.applied.includes(e.id)}
                            change={(on) =>
                                put(editing, 'gears', i, {
                                    applied: on ? [...gear.applied, e.id] : gear.applied.filter((x) => x !== e.id),
                                })
                            }
                        />
                    ))}
                    <TakeOut editing={editing} list="gears" i={i} what={`gear ${gear.name}`} />
                </tr>
            ))}
        </Rows>
    );
}

type AppliedProps = { editing: Editing; label: string; on: boolean; change: (on: boolean) => void };

function Applied({ editing, label, on, change }: AppliedProps) {
    return (
        <td className="td">
            <label className="flex min-h-11 min-w-11 items-center justify-center">
                <span className="sr-only">{label}</span>
                <input
                    type="checkbox"
                    disabled={!editing.change}
                    className="size-5 accent-[var(--hand)]"
                    checked={on}
                    onChange={() => change(!on)}
                />
            </label>
        </td>
    );
}

function Ends({ editing: { train, wrong, change } }: { editing: Editing }) {
    return (
        <div className="flex flex-wrap gap-3">
            {(['input', 'output'] as const).map((k) => (
                <label key={k} className="text-sm font-semibold text-faint">
                    {k === 'input' ? 'Input shaft' : 'Output shaft'}
                    <input
                        className="input w-32"
                        value={train[k]}
                        aria-invalid={wrong(`/${k}`) ? true : undefined}
                        onChange={(e) => change?.({ [k]: e.target.value })}
                    />
                </label>
            ))}
        </div>
    );
}

type CellProps = {
    editing: Editing;
    label: string;
    value: string;
    pointer: string;
    change: (v: string) => void;
};

function Cell({ editing, label, value, pointer, change }: CellProps) {
    const wrong = editing.wrong(pointer);
    return (
        <td className="td">
            <input
                aria-label={label}
                readOnly={!editing.change}
                className="input num w-24"
                value={value}
                aria-invalid={wrong ? true : undefined}
                title={wrong}
                onChange={(e) => change(e.target.value)}
            />
        </td>
    );
}

type PickProps<V extends string> = {
    editing: Editing;
    label: string;
    value: V;
    values: readonly V[];
    change: (v: V) => void;
};

function Pick<V extends string>({ editing, label, value, values, change }: PickProps<V>) {
    return (
        <td className="td">
            <select
                aria-label={label}
                disabled={!editing.change}
                className="input"
                value={value}
                onChange={(e) => change(values.find((v) => v === e.target.value) ?? value)}
            >
                {values.map((v) => (
                    <option key={v}>{v}</option>
                ))}
            </select>
        </td>
    );
}

type RowsProps = { editing: Editing; list: List; add: object; heads: string[]; children: ReactNode };

function Rows({ editing: { train, change }, list, add, heads, children }: RowsProps) {
    return (
        <div className="overflow-x-auto">
            <table className="w-full">
                <thead>
                    <tr>
                        {heads.map((h) => (
                            <th key={h} scope="col" className="th">
                                {h}
                            </th>
                        ))}
                        {change && (
                            <th className="th">
                                <span className="sr-only">take out</span>
                            </th>
                        )}
                    </tr>
                </thead>
                <tbody>{children}</tbody>
            </table>
            {change && (
                <button
                    type="button"
                    className="btn my-2"
                    onClick={() => change({ [list]: [...rowsOf(train, list), add] })}
                >
                    Add one
                </button>
            )}
        </div>
    );
}

function TakeOut({
    editing: { train, change },
    list,
    i,
    what,
}: {
    editing: Editing;
    list: List;
    i: number;
    what: string;
}) {
    if (!change) return null;
    return (
        <td className="td">
            <button
                type="button"
                className="min-h-11 px-2 underline"
                aria-label={`Take out ${what}`}
                onClick={() => change({ [list]: rowsOf(train, list).filter((_, k) => k !== i) })}
            >
                take out
            </button>
        </td>
    );
}
