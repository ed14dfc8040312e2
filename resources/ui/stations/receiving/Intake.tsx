import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { answer, api, fetchCard, fieldProblem } from '../../api/client';
import { formatMoney, moment } from '../../kit/format';
import { useWrite } from '../../api/useWrite';
import { Choice, Field, Mark, Panel, ProblemNote, TextArea } from '../../kit/basics';
import { Outline } from '../../kit/Outline';
import type { SectionProps } from '../../card/section';
import { CreditLines } from './CreditLines';

/** What was written down at receiving, with photos, trays and corrections. */
export function Intake(props: SectionProps<'receiving'>) {
    const { card, section: i } = props;
    const [editing, setEditing] = useState(false);
    return (
        <div className="grid items-start gap-3 lg:grid-cols-[2fr_1fr]">
            <div className="flex flex-col gap-3">
                {editing ? (
                    <EditIntake {...props} onDone={() => setEditing(false)} />
                ) : (
                    <Panel title="Received" aside={`${i.receivedBy}, ${moment(i.receivedAt)}`}>
                        <dl className="grid grid-cols-[10rem_1fr] gap-y-1">
                            {(
                                [
                                    ['Complaint (hearsay)', i.complaint || '–'],
                                    ['Vehicle', card.vehicle],
                                    ['VIN', i.vin ?? '–'],
                                    [
                                        'Odometer',
                                        i.odometer
                                            ? `${i.odometer}${i.odometer.includes('km') ? '' : ` (${i.odometerKm} km)`}`
                                            : '–',
                                    ],
                                    ['Stored codes', i.codes.join(', ') || '–'],
                                    [
                                        'Sent by',
                                        i.sender === 'shop'
                                            ? `another shop: ${i.senderDiagnosis || 'no diagnosis'}`
                                            : 'our customer',
                                    ],
                                    ['Weight', i.weightKg ? `${i.weightKg} kg` : '–'],
                                    ['Stamped code', i.tagCode || '–'],
                                    [
                                        'Converter',
                                        i.converters
                                            .map((c) =>
                                                [
                                                    c.serial,
                                                    c.state,
                                                    c.hub && `hub ${c.hub}`,
                                                    c.stallClass && `${c.stallClass} stall`,
                                                    c.lockup,
                                                    c.coreValue > 0 && `core value ${formatMoney(c.coreValue)}`,
                                                ]
                                                    .filter(Boolean)
                                                    .join(', '),
                                            )
                                            .join('; ') || 'did not come along',
                                    ],
                                    ...(i.pallet ? [['Pallet', i.pallet] as const] : []),
                                    ['Note', i.note || '–'],
                                ] as const
                            ).map(([k, v]) => (
                                <div key={k} className="contents">
                                    <dt className="text-faint">{k}</dt>
                                    <dd className="num">{v}</dd>
                                </div>
                            ))}
                        </dl>
                        {props.can('receiving.receive') && !['field', 'closed'].includes(card.station) && (
                            <button type="button" className="btn mt-2" onClick={() => setEditing(true)}>
                                Correct this
                            </button>
                        )}
                    </Panel>
                )}
                {i.outline && <Places {...props} />}
                <Panel title="Clues">
                    <ul>
                        {i.clues.map((c) => (
                            <li key={c.id} className="border-b border-rule py-1">
                                <span className="text-faint">{c.name}:</span> <strong>{c.value}</strong>
                                {c.means && <> – {c.means}</>}
                            </li>
                        ))}
                    </ul>
                    {i.clues.length === 0 && <p className="text-faint">None noted.</p>}
                </Panel>
                <Photos {...props} />
            </div>
            <div className="flex flex-col gap-3">
                <Panel title={`Grade ${card.grade}`} aside={i.gradeReason}>
                    <p className="font-head text-5xl num">{formatMoney(card.credit)}</p>
                    <CreditLines lines={i.creditLines} />
                    {i.proposedGrade && i.proposedGrade !== card.grade && (
                        <p className="text-sm text-faint">The house rules gave {i.proposedGrade} at receipt.</p>
                    )}
                    {i.creditRevision && (
                        <p className="mt-1 text-sm">
                            <Mark kind="idle">Revised once</Mark> from {formatMoney(i.creditRevision.before)}, grade{' '}
                            {i.creditRevision.gradeBefore}: {i.creditRevision.reason} {i.creditRevision.by},{' '}
                            {moment(i.creditRevision.at)}
                        </p>
                    )}
                    {!i.creditRevision &&
                        props.can('receiving.receive') &&
                        !['identification', 'ordering', 'teardown'].includes(card.station) &&
                        card.grade !== 'X' && <ReviseCredit {...props} />}
                </Panel>
                <Panel title="Trays">
                    {i.trays.map((b) => (
                        <div key={b.tag} className="mb-2">
                            <strong className="num">{b.tag}</strong>
                            <ul className="text-sm">
                                {b.items.map((t) => (
                                    <li key={t.name}>
                                        {t.count} × {t.name}
                                        {t.keepTogether && (
                                            <span className="text-faint"> · keep together: {t.keepTogether}</span>
                                        )}
                                    </li>
                                ))}
                            </ul>
                        </div>
                    ))}
                    {i.trays.length === 0 && <p className="text-faint">No tray is tied to this unit.</p>}
                    {props.can('receiving.receive') && <FillTray {...props} />}
                </Panel>
                {props.can('yard.hold') && <PlaceHold {...props} />}
            </div>
        </div>
    );
}

/** The unit's drawing with what was noted at each place; pictures are pinned to the place they show. */
function Places({ section, card, onCard, can }: SectionProps<'receiving'>) {
    const i = section;
    const [at, setAt] = useState<string>(
        i.damage.find((d) => !i.photos.some((p) => p.place === d.place))?.place ?? i.outline!.places[0]!.code,
    );
    const place = i.outline!.places.find((p) => p.code === at) ?? i.outline!.places[0]!;
    const notes = Object.fromEntries(
        i.outline!.places.map((p) => [
            p.code,
            {
                bad:
                    p.parts.filter((n) => i.missing.some((m) => m.part === n)).length +
                    i.damage.filter((d) => d.place === p.code).length,
                seen: p.clues.filter((c) => i.clues.some((k) => k.id === c)).length,
                photos: i.photos.filter((f) => f.place === p.code).length,
            },
        ]),
    );
    const open = i.damage.filter((d) => !i.photos.some((p) => p.place === d.place));
    return (
        <Panel
            title="Once round the unit"
            aside={
                open.length > 0 ? (
                    <Mark kind="warn">
                        {open.length === 1 ? 'one damage has' : `${open.length} damages have`} no picture yet
                    </Mark>
                ) : undefined
            }
        >
            <div className="grid items-start gap-3 sm:grid-cols-2">
                <Outline drawing={i.outline!} chosen={place.code} onChoose={setAt} notes={notes} />
                <div>
                    <h3 className="text-xl">{place.name}</h3>
                    <ul>
                        {place.parts
                            .filter((n) => i.missing.some((m) => m.part === n))
                            .map((n) => (
                                <li key={n}>
                                    <Mark kind="bad">missing</Mark> <span className="num">{n}</span>
                                </li>
                            ))}
                        {i.damage
                            .filter((d) => d.place === place.code)
                            .map((d) => (
                                <li key={d.what}>
                                    <Mark kind="bad">damaged on arrival</Mark> {d.what}
                                </li>
                            ))}
                        {i.clues
                            .filter((c) => place.clues.includes(c.id))
                            .map((c) => (
                                <li key={c.id}>
                                    {c.name}: <strong>{c.value}</strong>
                                </li>
                            ))}
                    </ul>
                    <Pictures section={section} card={card} onCard={onCard} can={can} place={place.code} />
                </div>
            </div>
        </Panel>
    );
}

function ReviseCredit({ card, onCard }: SectionProps<'receiving'>) {
    const [open, setOpen] = useState(false);
    const [reason, setReason] = useState('');
    const preview = useQuery({
        queryKey: ['credit-revision', card.coreTag],
        queryFn: () =>
            answer(api.GET('/units/{number}/money/credit-revision', { params: { path: { number: card.coreTag } } })),
        enabled: open,
    });
    const { busy, problem, write } = useWrite();
    if (!open)
        return (
            <button type="button" className="btn mt-2" onClick={() => setOpen(true)}>
                Revise after teardown
            </button>
        );
    return (
        <div className="mt-2 border-l-4 border-hand pl-3">
            {preview.data && (
                <>
                    <p>
                        Grade {preview.data.grade},{' '}
                        <strong className="num text-xl">{formatMoney(preview.data.credit)}</strong>.{' '}
                        {preview.data.gradeReason}
                    </p>
                    <CreditLines lines={preview.data.lines} />
                </>
            )}
            <Field
                label="Why it changes"
                value={reason}
                onChange={setReason}
                problem={fieldProblem(problem, '/reason')}
                hint="one revision, seen by the customer"
            />
            <ProblemNote problem={problem} except={['/reason']} />
            <button
                type="button"
                className="btn btn-main mt-2"
                disabled={busy || !preview.data}
                onClick={() =>
                    void write(
                        () =>
                            api.POST('/units/{number}/money/credit-revision', {
                                params: { path: { number: card.coreTag } },
                                body: { reason, version: card.version },
                            }),
                        onCard,
                    )
                }
            >
                Revise the credit
            </button>
        </div>
    );
}

function EditIntake({ section, card, onCard, onDone }: SectionProps<'receiving'> & { onDone: () => void }) {
    const i = section;
    const [d, setD] = useState({
        complaint: i.complaint,
        vehicle: card.vehicle,
        vin: i.vin ?? '',
        odometer: i.odometer,
        codes: i.codes.join(' '),
        senderDiagnosis: i.senderDiagnosis ?? '',
        repairHours: String(i.repairHours),
        grade: card.grade,
        gradeReason: i.gradeReason,
        note: i.note,
        rack: card.rack,
    });
    const { busy, problem, write } = useWrite();
    const set = (change: Partial<typeof d>) => setD({ ...d, ...change });
    const save = () =>
        write(
            () =>
                api.PUT('/units/{number}/receiving', {
                    params: { path: { number: card.coreTag } },
                    body: {
                        version: card.version,
                        jobType: card.jobType.code,
                        ownership: card.ownership as 'exchange',
                        customer: card.customer?.code ?? null,
                        family: i.familyCode ?? null,
                        rack: d.rack,
                        vehicle: d.vehicle,
                        vin: d.vin,
                        odometer: d.odometer,
                        complaint: d.complaint,
                        codes: d.codes.split(/[\s,;]+/).filter(Boolean),
                        sender: i.sender as 'own',
                        senderDiagnosis: d.senderDiagnosis,
                        clues: Object.fromEntries(i.clues.map((c) => [c.id, c.value])),
                        missing: i.missing as { part: string; count?: number }[],
                        failedHard: i.failedHard as { part: string }[],
                        repairHours: Number(d.repairHours),
                        grade: d.grade as 'A',
                        gradeReason: d.gradeReason,
                        flags: i.flags,
                        damage: i.damage,
                        tagCode: i.tagCode,
                        pallet: i.pallet,
                        note: d.note,
                        weight: i.weightKg ? `${i.weightKg} kg` : '',
                        promisedOn: card.promisedOn,
                    },
                }),
            (next) => {
                onCard(next);
                onDone();
            },
        );
    return (
        <Panel title="Correct the intake">
            <div className="grid gap-3 sm:grid-cols-2">
                <TextArea
                    label="Complaint, in the owner's words"
                    value={d.complaint}
                    onChange={(complaint) => set({ complaint })}
                />
                <Field label="Vehicle" value={d.vehicle} onChange={(vehicle) => set({ vehicle })} />
                <Field
                    label="VIN"
                    value={d.vin}
                    onChange={(vin) => set({ vin: vin.toUpperCase() })}
                    problem={fieldProblem(problem, '/vin')}
                />
                <Field
                    label="Odometer"
                    value={d.odometer}
                    onChange={(odometer) => set({ odometer })}
                    problem={fieldProblem(problem, '/odometer')}
                />
                <Field label="Stored codes" value={d.codes} onChange={(codes) => set({ codes })} />
                {i.sender === 'shop' && (
                    <Field
                        label="Their diagnosis"
                        value={d.senderDiagnosis}
                        onChange={(senderDiagnosis) => set({ senderDiagnosis })}
                    />
                )}
                <Field
                    label="Repair hours"
                    value={d.repairHours}
                    onChange={(repairHours) => set({ repairHours })}
                    problem={fieldProblem(problem, '/repairHours')}
                />
                <Choice
                    label="Grade"
                    value={d.grade}
                    values={['A', 'B', 'C', 'D', 'X']}
                    onChange={(grade) => set({ grade })}
                />
                <Field
                    label="Why this grade"
                    value={d.gradeReason}
                    onChange={(gradeReason) => set({ gradeReason })}
                    problem={fieldProblem(problem, '/gradeReason')}
                />
                <Field label="Rack" value={d.rack} onChange={(rack) => set({ rack })} />
                <TextArea label="Note" value={d.note} onChange={(note) => set({ note })} />
            </div>
            <ProblemNote problem={problem} except={['/vin', '/odometer', '/repairHours', '/gradeReason']} />
            <div className="mt-2 flex gap-2">
                <button type="button" className="btn btn-main" disabled={busy} onClick={() => void save()}>
                    Save the correction
                </button>
                <button type="button" className="btn" onClick={onDone}>
                    Leave as it was
                </button>
                {problem?.status === 409 && (
                    <button
                        type="button"
                        className="btn"
                        onClick={() => void fetchCard(card.coreTag, ['receiving']).then(onCard)}
                    >
                        Take the newer version
                    </button>
                )}
            </div>
        </Panel>
    );
}

/** Pictures of one place, and the way to add one. */
function Pictures({ section, card, onCard, can, place }: SectionProps<'receiving'> & { place: string }) {
    const { busy, problem, write } = useWrite();
    const file = useRef<HTMLInputElement>(null);
    const upload = async () => {
        const chosen = file.current?.files?.[0];
        if (!chosen) return;
        const ok = await write(() =>
            api.POST('/units/{number}/photos', {
                params: { path: { number: card.coreTag } },
                body: { photo: '', place: place || 'outside', station: card.station },
                bodySerializer: (b) => {
                    const form = new FormData();
                    form.set('photo', chosen);
                    form.set('place', b.place);
                    form.set('station', b.station ?? '');
                    return form;
                },
            }),
        );
        if (ok) {
            if (file.current) file.current.value = '';
            onCard(await fetchCard(card.coreTag, ['receiving']));
        }
    };
    return (
        <>
            <ul className="mt-1 grid grid-cols-2 gap-2">
                {section.photos
                    .filter((p) => p.place === place)
                    .map((p) => (
                        <li key={p.id}>
                            <a href={`/api/photos/${p.id}`} target="_blank" rel="noreferrer">
                                <img
                                    src={`/api/photos/${p.id}`}
                                    alt={`${p.place}, taken at ${p.station}`}
                                    className="border border-rule"
                                    loading="lazy"
                                    width={p.width}
                                    height={p.height}
                                />
                            </a>
                        </li>
                    ))}
            </ul>
            {can('yard.hold') && (
                <div className="mt-1 flex flex-wrap items-end gap-2">
                    <label className="text-sm font-semibold text-faint">
                        Picture of this place
                        <input ref={file} type="file" accept="image/*" capture="environment" className="input" />
                    </label>
                    <button type="button" className="btn" disabled={busy} onClick={() => void upload()}>
                        Attach
                    </button>
                </div>
            )}
            <ProblemNote problem={problem} />
        </>
    );
}

/** Pictures that belong to no place of the drawing. */
function Photos(props: SectionProps<'receiving'>) {
    const places = props.section.outline?.places.map((p) => p.code) ?? [];
    const others = [...new Set(props.section.photos.map((p) => p.place).filter((p) => !places.includes(p)))];
    const [place, setPlace] = useState('');
    return (
        <Panel
            title={places.length > 0 ? 'Other pictures' : 'Photos'}
            aside="damage already there is photographed before a tool touches it"
        >
            {others.map((o) => (
                <div key={o}>
                    <p className="text-sm">{o}</p>
                    <Pictures {...props} can={() => false} place={o} />
                </div>
            ))}
            <Field
                label="What it shows"
                value={place}
                onChange={setPlace}
                hint="for example inside of the pan, broken tab"
            />
            <Pictures {...props} place={place} />
        </Panel>
    );
}

function FillTray({ card, onCard }: SectionProps<'receiving'>) {
    const { busy, problem, write } = useWrite();
    const [tag, setTag] = useState('');
    const [items, setItems] = useState('');
    const rows = items
        .split('\n')
        .map((l) => l.trim())
        .filter(Boolean)
        .map((l) => /^(\d+)\s*x?\s+(.+)$/.exec(l))
        .map((m) => (m ? { name: m[2]!, count: Number(m[1]) } : null));
    const bad = rows.indexOf(null);
    return (
        <details>
            <summary className="min-h-11 py-2 font-semibold">Tie a tray to this unit</summary>
            <Field label="Tray tag" value={tag} onChange={setTag} problem={fieldProblem(problem, '/tag')} />
            <TextArea
                label="Contents, one a line: 8 check balls"
                rows={4}
                value={items}
                onChange={setItems}
                problem={bad >= 0 ? `Line ${bad + 1}: write the count first, for example 8 check balls.` : undefined}
            />
            <ProblemNote problem={problem} except={['/tag']} />
            <button
                type="button"
                className="btn mt-2"
                disabled={busy || !tag || rows.length === 0 || bad >= 0}
                onClick={() =>
                    void write(
                        () =>
                            api.POST('/units/{number}/receiving/trays', {
                                params: { path: { number: card.coreTag } },
                                body: { tag, items: rows.filter((r) => r !== null) },
                            }),
                        onCard,
                    )
                }
            >
                Keep the list
            </button>
        </details>
    );
}

function PlaceHold({ card, onCard }: SectionProps<'receiving'>) {
    const { busy, problem, write } = useWrite();
    const [reason, setReason] = useState('');
    return (
        <Panel title="Put on hold">
            <Field label="Reason" value={reason} onChange={setReason} />
            <ProblemNote problem={problem} />
            <button
                type="button"
                className="btn mt-2"
                disabled={busy || !reason.trim()}
                onClick={() =>
                    void write(
                        () =>
                            api.POST('/units/{number}/holds', {
                                params: { path: { number: card.coreTag } },
                                body: { reason },
                            }),
                        (next) => {
                            onCard(next);
                            setReason('');
                        },
                    )
                }
            >
                Hold this unit
            </button>
        </Panel>
    );
}
