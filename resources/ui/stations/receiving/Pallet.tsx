import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { answer, api, fieldProblem } from '../../api/client';
import { formatMoney } from '../../kit/format';
import { useDraft } from '../../kit/useDraft';
import { useWrite } from '../../api/useWrite';
import { Choice, Field, Mark, Panel, ProblemNote, Select } from '../../kit/basics';
import { Pending } from '../../kit/Fetched';

type Row = { tag: string; tagCode: string; grade: string; credit: number };

const EMPTY = {
    pallet: '',
    customer: '',
    family: '',
    rack: '',
    complaint: 'Pallet of cores, no complaint known',
    clues: {} as Record<string, string>,
    missing: [] as string[],
    rows: [] as Row[],
};

/** A pallet of cores by scanner: what is alike is set once, then each scanned tag is a core taken in. */
export function Pallet() {
    const form = useQuery({ queryKey: ['receiving/form'], queryFn: () => answer(api.GET('/receiving/form')) });
    const [d, set, clear] = useDraft('pallet', EMPTY);
    const [tag, setTag] = useState('');
    const [tagCode, setTagCode] = useState('');
    const { busy, problem, write } = useWrite();
    const scan = useRef<HTMLDivElement>(null);
    if (!form.data) return <Pending of={[form]} what="the form" />;
    const f = form.data;
    const family = f.families.find((x) => x.code === d.family);
    const take = async () => {
        const coreTag = tag.trim().toUpperCase();
        if (!coreTag) return;
        await write(
            () =>
                api.POST('/receiving', {
                    body: {
                        coreTag,
                        jobType: 'rebuild',
                        ownership: 'exchange',
                        customer: d.customer || null,
                        family: d.family || null,
                        rack: d.rack,
                        pallet: d.pallet,
                        complaint: d.complaint,
                        clues: d.clues,
                        missing: d.missing.map((part) => ({ part, count: 1 })),
                        tagCode,
                    },
                }),
            (card) => {
                set({ rows: [{ tag: card.coreTag, tagCode, grade: card.grade, credit: card.credit }, ...d.rows] });
                setTag('');
                setTagCode('');
            },
        );
        scan.current?.querySelector('input')?.focus();
    };
    const total = d.rows.reduce((sum, r) => sum + r.credit, 0);
    return (
        <>
            <h1 className="mb-2 text-3xl">Receive a pallet</h1>
            <div className="grid items-start gap-3 lg:grid-cols-[1fr_1fr]">
                <Panel title="What is alike on all of them" aside="changed here, it counts from the next scan on">
                    <div className="grid gap-3 sm:grid-cols-2">
                        <Field label="Pallet" value={d.pallet} onChange={(v) => set({ pallet: v.toUpperCase() })} />
                        <Field label="Rack" value={d.rack} onChange={(v) => set({ rack: v })} />
                        <Select
                            label="Customer"
                            value={d.customer}
                            onChange={(v) => set({ customer: v })}
                            empty="none"
                            options={f.customers.map((c) => ({ value: c.code, text: `${c.name}, ${c.city}` }))}
                            problem={fieldProblem(problem, '/customer')}
                        />
                        <Select
                            label="Family"
                            value={d.family}
                            onChange={(v) => set({ family: v, missing: [] })}
                            empty="not clear yet"
                            options={f.families.map((x) => ({ value: x.code, text: x.name }))}
                        />
                        <div className="sm:col-span-2">
                            <Field
                                label="Complaint"
                                value={d.complaint}
                                onChange={(v) => set({ complaint: v })}
                                hint="left empty, every core goes on hold"
                            />
                        </div>
                    </div>
                    {family && (
                        <fieldset className="mt-2">
                            <legend className="text-sm font-semibold text-faint">Missing on all of them</legend>
                            <div className="flex flex-wrap gap-1.5">
                                {family.outsideParts.map((p) => {
                                    const gone = d.missing.includes(p.number);
                                    return (
                                        <button
                                            key={p.number}
                                            type="button"
                                            aria-pressed={gone}
                                            className={`btn px-3 ${gone ? 'btn-chosen' : ''}`}
                                            onClick={() =>
                                                set({
                                                    missing: gone
                                                        ? d.missing.filter((n) => n !== p.number)
                                                        : [...d.missing, p.number],
                                                })
                                            }
                                        >
                                            {gone && <span aria-hidden="true">✓</span>}
                                            {p.name}
                                        </button>
                                    );
                                })}
                            </div>
                        </fieldset>
                    )}
                    <details className="mt-2">
                        <summary className="min-h-11 py-2 font-semibold">Clues that are the same on all</summary>
                        <div className="flex flex-col gap-3">
                            {f.clues.map((c) => (
                                <Choice
                                    key={c.id}
                                    label={c.name}
                                    value={d.clues[c.id] ?? null}
                                    values={c.values}
                                    onChange={(v) => set({ clues: { ...d.clues, [c.id]: v } })}
                                />
                            ))}
                        </div>
                    </details>
                </Panel>
                <div className="flex flex-col gap-3">
                    <Panel title="Scan" aside="Enter takes the core in">
                        <div ref={scan} className="grid gap-3 sm:grid-cols-[2fr_2fr_auto] sm:items-end">
                            <Field
                                label="Core tag"
                                value={tag}
                                onChange={setTag}
                                onEnter={() => void take()}
                                autoFocus
                                problem={fieldProblem(problem, '/coreTag')}
                            />
                            <Field
                                label="Stamped code, if read"
                                value={tagCode}
                                onChange={(v) => setTagCode(v.toUpperCase())}
                                onEnter={() => void take()}
                            />
                            <button
                                type="button"
                                className="btn btn-main"
                                disabled={busy || !tag.trim()}
                                onClick={() => void take()}
                            >
                                Take it in
                            </button>
                        </div>
                        <ProblemNote problem={problem} except={['/coreTag', '/customer']} />
                    </Panel>
                    <Panel
                        title={`Taken in: ${d.rows.length}`}
                        aside={
                            <>
                                credit <span className="num font-semibold">{formatMoney(total)}</span>
                            </>
                        }
                    >
                        {d.rows.length === 0 && <p className="text-faint">None yet.</p>}
                        <ul className="max-h-96 overflow-y-auto">
                            {d.rows.map((r) => (
                                <li key={r.tag} className="flex items-center gap-3 border-b border-rule py-1">
                                    <Mark kind="good">in</Mark>
                                    <Link className="num font-semibold underline" to={`/units/${r.tag}`}>
                                        {r.tag}
                                    </Link>
                                    <span className="num text-sm">{r.tagCode}</span>
                                    <span className="flex-1" />
                                    <span>grade {r.grade}</span>
                                    <span className="num">{formatMoney(r.credit)}</span>
                                </li>
                            ))}
                        </ul>
                        {d.rows.length > 0 && (
                            <button type="button" className="btn mt-2" onClick={clear}>
                                Pallet is done
                            </button>
                        )}
                    </Panel>
                </div>
            </div>
        </>
    );
}
