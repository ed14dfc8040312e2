import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { answer, api, fieldProblem, type Schemas } from '../../api/client';
import { formatMoney } from '../../kit/format';
import { useDraft } from '../../kit/useDraft';
import { useWrite } from '../../api/useWrite';
import { Caution, Choice, Field, Loading, Panel, ProblemNote, Select, TextArea } from '../../kit/basics';
import { CreditLines } from './CreditLines';
import { TagReading } from './TagReading';
import { WalkRound } from './WalkRound';

const EMPTY = {
    coreTag: '',
    jobType: 'rebuild',
    ownership: 'exchange' as 'exchange' | 'customer',
    customer: '',
    family: '',
    rack: '',
    vehicle: '',
    vin: '',
    odometer: '',
    engine: '',
    complaint: '',
    codes: '',
    sender: 'own' as 'own' | 'shop',
    senderDiagnosis: '',
    clues: {} as Record<string, string>,
    missing: [] as string[],
    failedHard: [] as string[],
    observed: {} as Record<string, string>,
    damage: [] as { place: string; what: string }[],
    flags: [] as string[],
    tagCode: '',
    repairHours: '0',
    grade: null as Grade | null,
    gradeReason: '',
    weight: '',
    note: '',
    converter: { serial: '', state: 'core', stallClass: '', lockup: '', hub: '', coreValue: '', note: '' },
};

type Grade = 'A' | 'B' | 'C' | 'D' | 'X';

const FLAGS: Record<string, string> = { caseBroken: 'Case broken', wrongUnit: 'Not a unit we take' };

const SHOWN_AT_FIELD = [
    '/coreTag',
    '/vin',
    '/odometer',
    '/weight',
    '/customer',
    '/family',
    '/grade',
    '/gradeReason',
    '/converter/serial',
    '/value',
];

/** The receiver's ten minutes: what it is, what is missing, roughly what is wrong, what it is worth. */
export function Receive() {
    const form = useQuery({ queryKey: ['receiving/form'], queryFn: () => answer(api.GET('/receiving/form')) });
    const [d, set, clear] = useDraft('receive', EMPTY);
    const { busy, problem, write } = useWrite();
    const [credit, setCredit] = useState<Schemas['CreditPreview'] | null>(null);
    const go = useNavigate();
    const hours = Number(d.repairHours);

    const missing = d.missing.map((part) => ({ part, count: 1 }));
    const failed = d.failedHard.map((part) => ({ part }));
    const priced = JSON.stringify([d.family, d.grade, missing, failed, hours, d.flags]);
    useEffect(() => {
        if (!d.family || Number.isNaN(hours)) return;
        let stale = false;
        void api
            .POST('/receiving/credit', {
                body: {
                    family: d.family,
                    ...(d.grade ? { grade: d.grade } : {}),
                    flags: d.flags,
                    missing,
                    failedHard: failed,
                    repairHours: hours,
                },
            })
            .then(({ data }) => !stale && setCredit(data ?? null));
        return () => {
            stale = true;
        };
        // eslint-disable-next-line react-hooks/exhaustive-deps
    }, [priced]);

    if (!form.data) return <Loading what="the form" />;
    const f = form.data;
    const family = f.families.find((x) => x.code === d.family);
    const at = (p: string) => fieldProblem(problem, p);
    const toggleHard = (part: string) =>
        set({
            failedHard: d.failedHard.includes(part) ? d.failedHard.filter((p) => p !== part) : [...d.failedHard, part],
        });
    const chooseFamily = (family: string) => set({ family, missing: [], failedHard: [], observed: {} });
    const converter = (change: Partial<typeof d.converter>) => set({ converter: { ...d.converter, ...change } });

    const submit = () =>
        write(
            () =>
                api.POST('/receiving', {
                    body: {
                        coreTag: (d.coreTag || f.nextTag).trim().toUpperCase(),
                        jobType: d.jobType,
                        ownership: d.ownership,
                        customer: d.customer || null,
                        family: d.family || null,
                        rack: d.rack,
                        vehicle: d.vehicle,
                        vin: d.vin,
                        odometer: d.odometer,
                        engine: d.engine,
                        complaint: d.complaint,
                        codes: d.codes.split(/[\s,;]+/).filter(Boolean),
                        sender: d.sender,
                        senderDiagnosis: d.senderDiagnosis,
                        clues: d.clues,
                        observed: d.observed,
                        damage: d.damage,
                        flags: d.flags,
                        tagCode: d.tagCode,
                        missing,
                        failedHard: failed,
                        repairHours: hours,
                        ...(d.grade ? { grade: d.grade } : {}),
                        gradeReason: d.gradeReason,
                        weight: d.weight,
                        note: d.note,
                        ...(d.converter.serial
                            ? { converter: { ...d.converter, coreValue: Number(d.converter.coreValue) || 0 } }
                            : {}),
                    },
                }),
            (card) => {
                clear();
                void go(
                    `/units/${card.coreTag}/${d.damage.length > 0 ? 'receiving' : card.sections.identification ? 'identification' : ''}`,
                );
            },
        );

    return (
        <>
            <div className="mb-2 flex items-baseline justify-between">
                <h1 className="text-3xl">Receive a core</h1>
                <Link to="/receiving/pallet" className="underline">
                    Many alike: receive a pallet
                </Link>
            </div>
            <div className="grid items-start gap-3 lg:grid-cols-[2fr_1fr]">
                <div className="flex flex-col gap-3">
                    <Panel title="What came in">
                        <div className="grid gap-3 sm:grid-cols-3">
                            <Field
                                label="Core tag"
                                value={d.coreTag}
                                onChange={(v) => set({ coreTag: v })}
                                hint={`Scan a tag, or leave empty for ${f.nextTag}`}
                                problem={at('/coreTag')}
                                autoFocus
                            />
                            <Select
                                label="Job"
                                value={d.jobType}
                                onChange={(v) => set({ jobType: v })}
                                options={f.jobTypes.map((j) => ({ value: j.code, text: j.name }))}
                            />
                            <Field label="Rack" value={d.rack} onChange={(v) => set({ rack: v })} />
                            <Select
                                label="Family"
                                value={d.family}
                                onChange={chooseFamily}
                                empty="not clear yet"
                                options={f.families.map((x) => ({ value: x.code, text: x.name }))}
                                problem={at('/family')}
                            />
                            <Choice
                                label="Whose is it"
                                value={d.ownership}
                                values={['exchange', 'customer']}
                                text={(v) => (v === 'exchange' ? 'Exchange' : "Customer's own")}
                                onChange={(v) => set({ ownership: v as 'exchange' | 'customer' })}
                            />
                            <Select
                                label="Customer"
                                value={d.customer}
                                onChange={(v) => set({ customer: v })}
                                empty="none"
                                options={f.customers.map((c) => ({ value: c.code, text: `${c.name}, ${c.city}` }))}
                                problem={at('/customer')}
                            />
                            <div className="sm:col-span-3">
                                <Field
                                    className="max-w-80"
                                    label="Stamped tag code"
                                    value={d.tagCode}
                                    onChange={(v) => set({ tagCode: v.toUpperCase() })}
                                    hint="as it stands there; tags are swapped and lost"
                                />
                                <TagReading text={d.tagCode} family={d.family} onFamily={chooseFamily} />
                            </div>
                        </div>
                    </Panel>
                    <Panel title="Where it comes from" aside="the owner's story is hearsay: write it down as told">
                        <div className="grid gap-3 sm:grid-cols-3">
                            <Field label="Vehicle" value={d.vehicle} onChange={(v) => set({ vehicle: v })} />
                            <Field
                                label="VIN"
                                value={d.vin}
                                onChange={(v) => set({ vin: v.toUpperCase() })}
                                problem={at('/vin')}
                            />
                            <Field
                                label="Odometer"
                                value={d.odometer}
                                onChange={(v) => set({ odometer: v })}
                                hint="a bare number is km; 61000 mi works too"
                                problem={at('/odometer')}
                            />
                            <div className="sm:col-span-2">
                                <TextArea
                                    label="Complaint, in the owner's words"
                                    value={d.complaint}
                                    onChange={(v) => set({ complaint: v })}
                                />
                            </div>
                            <Field label="Stored codes" value={d.codes} onChange={(v) => set({ codes: v })} />
                            <Choice
                                label="Sent by"
                                value={d.sender}
                                values={['own', 'shop']}
                                text={(v) => (v === 'own' ? 'Our customer' : 'Another shop')}
                                onChange={(v) => set({ sender: v as 'own' | 'shop' })}
                            />
                            {d.sender === 'shop' && (
                                <div className="sm:col-span-2">
                                    <TextArea
                                        label="Their diagnosis"
                                        value={d.senderDiagnosis}
                                        onChange={(v) => set({ senderDiagnosis: v })}
                                    />
                                </div>
                            )}
                            <Field
                                label="Weight"
                                value={d.weight}
                                onChange={(v) => set({ weight: v })}
                                hint="kg, or type lb"
                                problem={at('/weight')}
                            />
                        </div>
                        <div className="mt-2">
                            <Caution>60 to 140 kg: hoist or two people, unit strapped. Fluid may be hot.</Caution>
                        </div>
                    </Panel>
                    <Panel
                        title="Once round the unit"
                        aside="before a bolt is turned; smell, colour, debris and magnets are four separate things"
                    >
                        {family?.outline ? (
                            <WalkRound key={family.code} family={family} clues={f.clues} seen={d} onChange={set} />
                        ) : (
                            <div className="grid gap-3 sm:grid-cols-2">
                                <p className="text-faint sm:col-span-2">
                                    Choose the family to walk round its drawing; the clues can be noted without it.
                                </p>
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
                        )}
                        {at('/value') && (
                            <p role="alert" className="font-semibold text-bad">
                                {at('/value')}
                            </p>
                        )}
                    </Panel>
                    <Panel title="Converter" aside="a part of its own, with its own core value">
                        <div className="grid gap-3 sm:grid-cols-3">
                            <Field
                                label="Serial, if it came along"
                                value={d.converter.serial}
                                onChange={(v) => converter({ serial: v })}
                                problem={at('/converter/serial')}
                            />
                            {d.converter.serial && (
                                <>
                                    <Choice
                                        label="State"
                                        value={d.converter.state}
                                        values={['core', 'contaminated']}
                                        onChange={(v) => converter({ state: v })}
                                    />
                                    <Field
                                        label="Core value"
                                        inputMode="decimal"
                                        value={d.converter.coreValue}
                                        onChange={(v) => converter({ coreValue: v })}
                                        problem={at('/converter/coreValue')}
                                    />
                                    <Field
                                        label="Hub"
                                        value={d.converter.hub}
                                        onChange={(v) => converter({ hub: v })}
                                        list={['sound', 'scored', 'blued']}
                                    />
                                    <Field
                                        label="Stall class"
                                        value={d.converter.stallClass}
                                        onChange={(v) => converter({ stallClass: v })}
                                        list={['stock', 'low', 'high']}
                                    />
                                    <Field
                                        label="Lock-up"
                                        value={d.converter.lockup}
                                        onChange={(v) => converter({ lockup: v })}
                                        list={['none', 'single plate', 'multi plate']}
                                    />
                                </>
                            )}
                        </div>
                    </Panel>
                    <TextArea label="Note" value={d.note} onChange={(v) => set({ note: v })} />
                </div>
                <div className="flex flex-col gap-3 lg:sticky lg:top-28">
                    <Panel title="Missing and lost">
                        {!family && <p className="text-faint">Choose the family to see its parts.</p>}
                        {family && (
                            <p className="mb-2 text-sm">
                                {d.missing.length === 0
                                    ? 'Nothing is marked missing.'
                                    : `Missing: ${d.missing.map((n) => family.outsideParts.find((p) => p.number === n)?.name ?? n).join(', ')}.`}
                            </p>
                        )}
                        {family && (
                            <Toggles
                                title="Hard parts lost at receipt"
                                parts={family.hardParts}
                                chosen={d.failedHard}
                                onToggle={toggleHard}
                            />
                        )}
                        <div className="mt-2 grid grid-cols-2 items-start gap-3">
                            <Field
                                label="Repair hours"
                                inputMode="decimal"
                                value={d.repairHours}
                                onChange={(v) => set({ repairHours: v })}
                                problem={
                                    Number.isNaN(hours)
                                        ? 'Type a number with a point, for example 1.5'
                                        : at('/repairHours')
                                }
                            />
                            <fieldset>
                                <legend className="text-sm font-semibold text-faint">Refuse it</legend>
                                {Object.entries(FLAGS).map(([k, text]) => (
                                    <label key={k} className="flex min-h-9 items-center gap-2">
                                        <input
                                            type="checkbox"
                                            className="size-5 accent-[var(--hand)]"
                                            checked={d.flags.includes(k)}
                                            onChange={() =>
                                                set({
                                                    flags: d.flags.includes(k)
                                                        ? d.flags.filter((x) => x !== k)
                                                        : [...d.flags, k],
                                                })
                                            }
                                        />
                                        {text}
                                    </label>
                                ))}
                            </fieldset>
                        </div>
                    </Panel>
                    <Panel title="Grade">
                        {credit && d.family && (
                            <p className="mb-1">
                                <span className="font-head text-4xl">{credit.proposedGrade}</span>{' '}
                                <span className="text-sm">by the house rules: {credit.proposedReason}</span>
                            </p>
                        )}
                        <Choice
                            label="Give another grade"
                            value={d.grade}
                            values={f.grades}
                            onChange={(v) => set({ grade: d.grade === v ? null : (v as Grade) })}
                        />
                        {d.grade && d.grade !== credit?.proposedGrade && (
                            <Field
                                label="Why this grade"
                                value={d.gradeReason}
                                onChange={(v) => set({ gradeReason: v })}
                                problem={at('/gradeReason')}
                            />
                        )}
                    </Panel>
                    <Panel title="Credit">
                        {credit && d.family ? (
                            <>
                                <p className="font-head text-5xl num">{formatMoney(credit.credit)}</p>
                                <CreditLines lines={credit.lines} />
                                <p className="text-sm text-faint">
                                    Lowest core charge of the family until the variant is confirmed.
                                </p>
                            </>
                        ) : (
                            <p className="text-faint">Shown when the family is chosen.</p>
                        )}
                        <ProblemNote problem={problem} except={SHOWN_AT_FIELD} />
                        <button
                            type="button"
                            className="btn btn-main mt-2 w-full text-lg"
                            disabled={busy}
                            onClick={() => void submit()}
                        >
                            Take it in
                        </button>
                    </Panel>
                </div>
            </div>
        </>
    );
}

function Toggles({
    title,
    parts,
    chosen,
    onToggle,
}: {
    title: string;
    parts: { number: string; name: string; price: number }[];
    chosen: string[];
    onToggle: (part: string) => void;
}) {
    return (
        <fieldset className="mb-2">
            <legend className="text-sm font-semibold text-faint">{title}</legend>
            <ul>
                {parts.map((p) => (
                    <li key={p.number}>
                        <label className="flex min-h-9 items-center gap-2">
                            <input
                                type="checkbox"
                                className="size-5 accent-[var(--hand)]"
                                checked={chosen.includes(p.number)}
                                onChange={() => onToggle(p.number)}
                            />
                            <span className="flex-1">{p.name}</span>
                            <span className="num">{formatMoney(p.price)}</span>
                        </label>
                    </li>
                ))}
            </ul>
        </fieldset>
    );
}
