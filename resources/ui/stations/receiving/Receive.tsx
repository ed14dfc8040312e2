import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { answer, api, fieldProblem, type Schemas } from '../../lib/api';
import { formatMoney } from '../../lib/format';
import { useDraft } from '../../lib/useDraft';
import { useWrite } from '../../lib/useWrite';
import { Caution, Choice, Field, Loading, Panel, ProblemNote, Select, TextArea } from '../../parts/basics';
import { CreditLines } from './CreditLines';

const EMPTY = { coreTag: '', jobType: 'rebuild', ownership: 'exchange' as 'exchange' | 'customer', customer: '', family: '', rack: '', vehicle: '', vin: '', odometer: '', engine: '', complaint: '', codes: '', sender: 'own' as 'own' | 'shop', senderDiagnosis: '', clues: {} as Record<string, string>, missing: [] as string[], failedHard: [] as string[], repairHours: '0', grade: 'A' as 'A' | 'B' | 'C' | 'D' | 'X', gradeReason: '', weight: '', note: '', converterSerial: '' };

const SHOWN_AT_FIELD = ['/coreTag', '/vin', '/odometer', '/weight', '/customer', '/family', '/grade', '/converter/serial'];

/** The receiver's ten minutes: what it is, what is missing, roughly what is wrong, what it is worth. */
export function Receive() {
    const form = useQuery({ queryKey: ['intake-form'], queryFn: () => answer(api.GET('/intake-form')) });
    const [d, set, clear] = useDraft('receive', EMPTY);
    const { busy, problem, write } = useWrite();
    const [credit, setCredit] = useState<Schemas['CreditPreview'] | null>(null);
    const go = useNavigate();
    const hours = Number(d.repairHours);

    const missing = d.missing.map((part) => ({ part, count: 1 }));
    const failed = d.failedHard.map((part) => ({ part }));
    const priced = JSON.stringify([d.family, d.grade, missing, failed, hours]);
    useEffect(() => {
        if (!d.family || Number.isNaN(hours)) return;
        let stale = false;
        void api.POST('/intake-form/credit', { body: { family: d.family, grade: d.grade, missing, failedHard: failed, repairHours: hours } }).then(({ data }) => !stale && setCredit(data ?? null));
        return () => {
            stale = true;
        };
        // eslint-disable-next-line react-hooks/exhaustive-deps
    }, [priced]);

    if (!form.data) return <Loading what="the form" />;
    const f = form.data;
    const family = f.families.find((x) => x.code === d.family);
    const at = (p: string) => fieldProblem(problem, p);
    const toggle = (list: 'missing' | 'failedHard', part: string) => set({ [list]: d[list].includes(part) ? d[list].filter((p) => p !== part) : [...d[list], part] });

    const submit = () =>
        write(
            (headers) => api.POST('/units', {
                headers,
                body: {
                    coreTag: (d.coreTag || f.nextTag).trim().toUpperCase(), jobType: d.jobType, ownership: d.ownership, customer: d.customer || null, family: d.family || null, rack: d.rack, vehicle: d.vehicle, vin: d.vin, odometer: d.odometer, engine: d.engine, complaint: d.complaint,
                    codes: d.codes.split(/[\s,;]+/).filter(Boolean), sender: d.sender, senderDiagnosis: d.senderDiagnosis, clues: d.clues, missing, failedHard: failed, repairHours: hours, grade: d.grade, gradeReason: d.gradeReason, weight: d.weight, note: d.note, ...(d.converterSerial ? { converter: { serial: d.converterSerial } } : {}),
                },
            }),
            (card) => {
                clear();
                void go(`/units/${card.coreTag}/${card.sections.identity ? 'identify' : ''}`);
            },
        );

    return (
        <>
            <h1 className="mb-2 text-3xl">Receive a core</h1>
            <div className="grid items-start gap-3 lg:grid-cols-[2fr_1fr]">
                <div className="flex flex-col gap-3">
                    <Panel title="What came in">
                        <div className="grid gap-3 sm:grid-cols-3">
                            <Field label="Core tag" value={d.coreTag} onChange={(v) => set({ coreTag: v })} hint={`Scan a tag, or leave empty for ${f.nextTag}`} problem={at('/coreTag')} autoFocus />
                            <Select label="Job" value={d.jobType} onChange={(v) => set({ jobType: v })} options={f.jobTypes.map((j) => ({ value: j.code, text: j.name }))} />
                            <Field label="Rack" value={d.rack} onChange={(v) => set({ rack: v })} />
                            <Select label="Family" value={d.family} onChange={(v) => set({ family: v, missing: [], failedHard: [] })} empty="not clear yet" options={f.families.map((x) => ({ value: x.code, text: x.name }))} problem={at('/family')} />
                            <Choice label="Whose is it" value={d.ownership} values={['exchange', 'customer']} text={(v) => (v === 'exchange' ? 'Exchange' : "Customer's own")} onChange={(v) => set({ ownership: v as 'exchange' | 'customer' })} />
                            <Select label="Customer" value={d.customer} onChange={(v) => set({ customer: v })} empty="none" options={f.customers.map((c) => ({ value: c.code, text: `${c.name}, ${c.city}` }))} problem={at('/customer')} />
                        </div>
                    </Panel>
                    <Panel title="Where it comes from" aside="the owner's story is hearsay: write it down as told">
                        <div className="grid gap-3 sm:grid-cols-3">
                            <Field label="Vehicle" value={d.vehicle} onChange={(v) => set({ vehicle: v })} />
                            <Field label="VIN" value={d.vin} onChange={(v) => set({ vin: v.toUpperCase() })} problem={at('/vin')} />
                            <Field label="Odometer" value={d.odometer} onChange={(v) => set({ odometer: v })} hint="a bare number is km; 61000 mi works too" problem={at('/odometer')} />
                            <div className="sm:col-span-2"><TextArea label="Complaint, in the owner's words" value={d.complaint} onChange={(v) => set({ complaint: v })} /></div>
                            <Field label="Stored codes" value={d.codes} onChange={(v) => set({ codes: v })} />
                            <Choice label="Sent by" value={d.sender} values={['own', 'shop']} text={(v) => (v === 'own' ? 'Our customer' : 'Another shop')} onChange={(v) => set({ sender: v as 'own' | 'shop' })} />
                            {d.sender === 'shop' && <div className="sm:col-span-2"><TextArea label="Their diagnosis" value={d.senderDiagnosis} onChange={(v) => set({ senderDiagnosis: v })} /></div>}
                            <Field label="Weight" value={d.weight} onChange={(v) => set({ weight: v })} hint="kg, or type lb" problem={at('/weight')} />
                            <Field label="Converter serial, if it came along" value={d.converterSerial} onChange={(v) => set({ converterSerial: v })} problem={at('/converter/serial')} />
                        </div>
                        <div className="mt-2"><Caution>60 to 140 kg: hoist or two people, unit strapped. Fluid may be hot.</Caution></div>
                    </Panel>
                    <Panel title="Clues before a bolt is turned" aside="smell, colour, debris and magnets are four separate things">
                        <div className="grid gap-3 sm:grid-cols-2">
                            {f.clues.map((c) => (
                                <div key={c.id}>
                                    <Choice label={c.name} value={d.clues[c.id] ?? null} values={c.values} onChange={(v) => set({ clues: d.clues[c.id] === v ? Object.fromEntries(Object.entries(d.clues).filter(([k]) => k !== c.id)) : { ...d.clues, [c.id]: v } })} />
                                    {d.clues[c.id] && c.means[d.clues[c.id]!] && <p className="text-sm text-hand">{c.means[d.clues[c.id]!]}</p>}
                                </div>
                            ))}
                        </div>
                    </Panel>
                    <TextArea label="Note" value={d.note} onChange={(v) => set({ note: v })} />
                </div>
                <div className="flex flex-col gap-3 lg:sticky lg:top-28">
                    <Panel title="Missing and lost">
                        {!family && <p className="text-faint">Choose the family to see its parts.</p>}
                        {family && (
                            <>
                                <Toggles title="Missing outside" parts={family.outsideParts} chosen={d.missing} onToggle={(p) => toggle('missing', p)} />
                                <Toggles title="Hard parts lost at receipt" parts={family.hardParts} chosen={d.failedHard} onToggle={(p) => toggle('failedHard', p)} />
                            </>
                        )}
                        <div className="mt-2 grid grid-cols-2 gap-3">
                            <Field label="Repair hours" inputMode="decimal" value={d.repairHours} onChange={(v) => set({ repairHours: v })} problem={Number.isNaN(hours) ? 'Type a number with a point, for example 1.5' : at('/repairHours')} />
                            <Choice label="Grade" value={d.grade} values={f.grades} onChange={(v) => set({ grade: v as typeof d.grade })} />
                        </div>
                        <Field label="Why this grade" value={d.gradeReason} onChange={(v) => set({ gradeReason: v })} />
                    </Panel>
                    <Panel title="Credit">
                        {credit && d.family ? (
                            <>
                                <p className="font-head text-5xl num">{formatMoney(credit.credit)}</p>
                                <CreditLines lines={credit.lines} />
                                <p className="text-sm text-faint">Lowest core charge of the family until the variant is confirmed.</p>
                            </>
                        ) : (
                            <p className="text-faint">Shown when the family is chosen.</p>
                        )}
                        <ProblemNote problem={problem} except={SHOWN_AT_FIELD} />
                        <button type="button" className="btn btn-main mt-2 w-full text-lg" disabled={busy} onClick={() => void submit()}>Take it in</button>
                    </Panel>
                </div>
            </div>
        </>
    );
}

function Toggles({ title, parts, chosen, onToggle }: { title: string; parts: { number: string; name: string; price: number }[]; chosen: string[]; onToggle: (part: string) => void }) {
    return (
        <fieldset className="mb-2">
            <legend className="text-sm font-semibold text-faint">{title}</legend>
            <ul>
                {parts.map((p) => (
                    <li key={p.number}>
                        <label className="flex min-h-9 items-center gap-2">
                            <input type="checkbox" className="size-5 accent-[var(--hand)]" checked={chosen.includes(p.number)} onChange={() => onToggle(p.number)} />
                            <span className="flex-1">{p.name}</span>
                            <span className="num">{formatMoney(p.price)}</span>
                        </label>
                    </li>
                ))}
            </ul>
        </fieldset>
    );
}
