import { useState } from 'react';
import { api, fieldProblem, type Card, type Schemas } from '../../api/client';
import { formatValue, moment } from '../../kit/format';
import { useWrite } from '../../api/useWrite';
import { Caution, Field, HouseNote, Mark, Panel, ProblemNote, Select, Source } from '../../kit/basics';
import { GaugeBar } from '../../kit/GaugeBar';
import { StackDrawing, type Plate } from '../../kit/StackDrawing';
import type { SectionProps } from '../../card/section';
import { Steps } from '../../work/Steps';
import { More } from '../../kit/More';

type Assembly = NonNullable<Card['assembly']>;
type Place = Assembly['places'][number];
type Choice = { clearance: number; picks: { slot: string; part: string; count: number }[] };

/** Packs from shelf stock, end play, air checks and torques; every value with person, time and gauge. */
export function AssemblyView(props: SectionProps<'assembly'>) {
    const { card, onCard, can, section: a } = props;
    const editable = can('assembly.work') && card.station === 'assembly';
    return (
        <div className="grid items-start gap-3 lg:grid-cols-[1.35fr_1fr]">
            <div className="flex flex-col gap-3">
                {a.places
                    .filter((p) => p.kind !== 'air-check')
                    .map((p) => (
                        <Fit key={p.kind + p.code} place={p} {...props} editable={editable} />
                    ))}
                <AirChecks {...props} editable={editable} />
                <Torques {...props} editable={editable} />
            </div>
            <div className="flex flex-col gap-3">
                <SignOff {...props} />
                <Steps phase="assembly" steps={a.steps} card={card} onCard={onCard} editable={editable} />
                <Panel title="Taken from the shelf">
                    <ul className="text-sm">
                        {a.installed.map((i, n) => (
                            <li key={n} className="num">
                                {i.count} × {i.part} {i.name} · lot {i.lot} · {i.place}
                            </li>
                        ))}
                    </ul>
                    {a.installed.length === 0 && <p className="text-faint">Nothing yet.</p>}
                </Panel>
            </div>
        </div>
    );
}

function Fit({
    place: p,
    section,
    card,
    onCard,
    editable,
}: { place: Place; editable: boolean } & SectionProps<'assembly'>) {
    const isPlay = p.kind === 'end-play';
    const last = p.readings.at(-1);
    const [reading, setReading] = useState('');
    const [washer, setWasher] = useState(p.trialWasher === null ? '' : String(p.trialWasher));
    const [proposal, setProposal] = useState<Schemas['Proposal'] | null>(null);
    const ask = useWrite();
    const take = useWrite();
    const params = { path: { number: card.coreTag, place: p.code } };
    const propose = () =>
        ask.write(
            () =>
                api.POST('/units/{number}/assembly/places/{place}/propose', {
                    params,
                    body: { reading, trialWasher: isPlay ? washer : null },
                }),
            setProposal,
        );
    const fit = (choice: Choice) =>
        take.write(
            () =>
                api.POST('/units/{number}/assembly/places/{place}/fit', {
                    params,
                    body: { reading, trialWasher: isPlay ? washer : null, picks: choice.picks },
                }),
            (next) => {
                onCard(next);
                setProposal(null);
            },
        );
    const result = proposal?.result as
        | {
              feasible: boolean;
              reason?: string;
              best?: Choice;
              alternatives: Choice[];
              nearest?: Choice & { shortBy: number };
          }
        | undefined;
    return (
        <Panel title={p.name} aside={<Source source={p.source} confidence={p.confidence} />} id={`place-${p.code}`}>
            {p.forOptions.length > 0 && (
                <p className="mb-2 border-l-4 border-warn bg-sheet px-3 py-2">
                    <Mark kind="warn">Not the usual stack</Mark>{' '}
                    {p.fixed.length > 0 && <strong>{p.fixed.map((f) => `${f.count} × ${f.name}`).join(', ')}</strong>}
                    <span className="block text-sm">Changed for: {p.forOptions.join('; ')}</span>
                </p>
            )}
            <div className="grid gap-3 sm:grid-cols-[auto_1fr]">
                <div>
                    <p className="font-head text-5xl num">
                        {last ? `${formatValue(last.value, last.unit)} ${last.unit}` : '–'}
                    </p>
                    {last && (
                        <Mark kind={last.inside ? 'good' : 'bad'}>
                            {last.inside ? 'inside' : 'outside'}, {last.by}, {moment(last.at)}
                        </Mark>
                    )}
                    <GaugeBar
                        label={p.name}
                        unit={p.unit}
                        min={p.window.min}
                        max={p.window.max}
                        target={p.target}
                        reading={last?.value}
                    />
                </div>
                <div className="text-sm">
                    <p>{p.how}</p>
                    <HouseNote house={p.house} />
                    {p.note && <p>{p.note}</p>}
                    {p.tooTight && (
                        <p className="text-faint">
                            Too tight {p.tooTight}; too loose {p.tooLoose}.
                        </p>
                    )}
                    {p.fit && (
                        <p className="mt-1">
                            <strong>Fitted:</strong> {p.fit.picks.map((k) => `${k.count} × ${k.part}`).join(', ')};
                            predicted{' '}
                            <strong className="num">
                                {formatValue(p.fit.predicted, p.unit)} {p.unit}
                            </strong>{' '}
                            <span className="text-faint">{p.fit.by}</span>
                        </p>
                    )}
                </div>
            </div>
            {editable && (
                <>
                    <div className="mt-2 flex flex-wrap items-end gap-2">
                        <Field
                            className="w-44"
                            label={isPlay ? 'Play, trial fit' : 'Groove depth'}
                            value={reading}
                            onChange={setReading}
                            hint={p.nominalDepth ? `about ${p.nominalDepth} ${p.unit}` : undefined}
                            problem={fieldProblem(ask.problem, '/reading')}
                            onEnter={() => void propose()}
                        />
                        {isPlay && (
                            <Field
                                className="w-44"
                                label="Washer fitted for trial"
                                value={washer}
                                onChange={setWasher}
                                problem={fieldProblem(ask.problem, '/trialWasher')}
                            />
                        )}
                        <button
                            type="button"
                            className="btn"
                            disabled={ask.busy || !reading}
                            onClick={() => void propose()}
                        >
                            {isPlay ? 'Which washer?' : 'Which parts?'}
                        </button>
                    </div>
                    <ProblemNote problem={ask.problem} except={['/reading', '/trialWasher']} />
                    {proposal && result && (
                        <div className="mt-2 border-l-4 border-hand pl-3">
                            {isPlay && proposal.needed != null && (
                                <p>
                                    New washer = {formatValue(proposal.fitted ?? 0, p.unit)} + (
                                    {formatValue(proposal.measured ?? 0, p.unit)} −{' '}
                                    {formatValue(proposal.target, p.unit)}) ={' '}
                                    <strong className="num">
                                        {formatValue(proposal.needed, p.unit)} {p.unit}
                                    </strong>
                                </p>
                            )}
                            {!result.feasible && (
                                <p>
                                    <Mark kind="bad">
                                        {result.reason === 'stock'
                                            ? 'The shelf does not hold enough pieces.'
                                            : `Nothing on the shelf reaches the window: the nearest is ${formatValue(result.nearest?.clearance ?? 0, p.unit)} ${p.unit}, ${formatValue(Math.abs(result.nearest?.shortBy ?? 0), p.unit)} too ${(result.nearest?.shortBy ?? 0) > 0 ? 'tight' : 'loose'}.`}
                                    </Mark>
                                </p>
                            )}
                            {result.best && (
                                <div className="grid gap-3 sm:grid-cols-2">
                                    {!isPlay && (
                                        <StackDrawing
                                            plates={platesOf(proposal, result.best)}
                                            clearance={result.best.clearance}
                                            depth={proposal.depth}
                                            unit={p.unit}
                                        />
                                    )}
                                    <div>
                                        <p>
                                            Best from the shelf:{' '}
                                            <strong className="font-head text-3xl num">
                                                {formatValue(result.best.clearance, p.unit)} {p.unit}
                                            </strong>
                                        </p>
                                        <p className="num">
                                            {result.best.picks.map((k) => `${k.count} × ${k.part}`).join(', ')}
                                        </p>
                                        <button
                                            type="button"
                                            className="btn btn-main my-2"
                                            disabled={take.busy}
                                            onClick={() => void fit(result.best!)}
                                        >
                                            Take these parts
                                        </button>
                                        {result.alternatives.length > 0 && (
                                            <More title={<>{result.alternatives.length} other ways</>}>
                                                <ul>
                                                    {result.alternatives.map((c, i) => (
                                                        <li key={i} className="num text-sm">
                                                            <button
                                                                type="button"
                                                                className="min-h-11 text-left underline"
                                                                onClick={() => void fit(c)}
                                                            >
                                                                {formatValue(c.clearance, p.unit)}:{' '}
                                                                {c.picks
                                                                    .map((k) => `${k.count} × ${k.part}`)
                                                                    .join(', ')}
                                                            </button>
                                                        </li>
                                                    ))}
                                                </ul>
                                            </More>
                                        )}
                                        <More title="The working">
                                            <p className="text-sm">
                                                Clearance = depth {formatValue(proposal.depth, p.unit)} −{' '}
                                                {proposal.fixed
                                                    .map((f) => `${f.count} × ${f.name} ${f.thickness}`)
                                                    .join(' − ') || 'nothing fixed'}{' '}
                                                − the parts picked; nearest to {formatValue(proposal.target, p.unit)}{' '}
                                                within {formatValue(proposal.window.min, p.unit)} to{' '}
                                                {formatValue(proposal.window.max, p.unit)}, from today's shelf stock.
                                                Exact search (fit.stack).
                                            </p>
                                        </More>
                                    </div>
                                </div>
                            )}
                            <ProblemNote problem={take.problem} />
                        </div>
                    )}
                    <Measure
                        section={section}
                        kind={p.kind}
                        code={p.code}
                        label={isPlay ? 'End play, final' : 'Feeler reading'}
                        quantity="length"
                        {...{ card, onCard }}
                    />
                </>
            )}
        </Panel>
    );
}

function platesOf(proposal: Schemas['Proposal'], choice: Choice): Plate[] {
    const thickness = new Map(proposal.slots.flatMap((s) => s.options.map((o) => [o.part, o.thickness] as const)));
    const fixed = proposal.fixed.flatMap((f) =>
        Array.from({ length: f.count }, (): Plate => ({ name: f.name, thickness: f.thickness, kind: 'fixed' })),
    );
    const picked = choice.picks.flatMap((k) =>
        Array.from({ length: k.count }, (): Plate => ({
            name: k.part,
            thickness: thickness.get(k.part) ?? 0,
            kind: 'picked',
        })),
    );
    // Friction and steel by turns where there are several of both; single plates go on top.
    const many = picked.filter((p) => choice.picks.some((k) => k.part === p.name && k.slot === 'steels'));
    const rest = picked.filter((p) => !many.includes(p));
    const out: Plate[] = [];
    for (let i = 0; i < Math.max(many.length, fixed.length); i++)
        out.push(...[many[i], fixed[i]].filter((p) => p !== undefined));
    return [...out, ...rest];
}

function Measure({
    kind,
    code,
    label,
    quantity,
    section,
    card,
    onCard,
}: { kind: string; code: string; label: string; quantity: string } & Pick<
    SectionProps<'assembly'>,
    'section' | 'card' | 'onCard'
>) {
    const gauges = section.gauges.filter((g) => g.kind === quantity);
    const remembered = localStorage.getItem(`yard.gauge.${kind}`);
    const [gauge, setGauge] = useState(
        gauges.find((g) => g.code === remembered)?.code ?? gauges.find((g) => !g.overdue)?.code ?? '',
    );
    const [reading, setReading] = useState('');
    const [note, setNote] = useState('');
    const { busy, problem, write } = useWrite();
    const chosen = gauges.find((g) => g.code === gauge);
    const asksNote = note !== '' || fieldProblem(problem, '/note') !== undefined;
    const save = () =>
        write(
            () =>
                api.POST('/units/{number}/assembly/measurements', {
                    params: { path: { number: card.coreTag } },
                    body: { kind, code, reading, gauge, note },
                }),
            (next) => {
                localStorage.setItem(`yard.gauge.${kind}`, gauge);
                onCard(next);
                setReading('');
                setNote('');
            },
        );
    return (
        <div className="mt-2 border-t border-rule pt-2">
            <div className="flex flex-wrap items-end gap-2">
                <Field
                    className="w-44"
                    label={label}
                    value={reading}
                    onChange={setReading}
                    problem={fieldProblem(problem, '/reading')}
                    onEnter={() => void save()}
                />
                <div className="w-56">
                    <Select
                        label="Gauge"
                        value={gauge}
                        onChange={setGauge}
                        options={gauges.map((g) => ({
                            value: g.code,
                            text: `${g.name}${g.overdue ? ' (calibration overdue)' : ''}`,
                        }))}
                        problem={fieldProblem(problem, '/gauge')}
                    />
                </div>
                <button
                    type="button"
                    className="btn"
                    disabled={busy || !reading}
                    aria-label={`Record ${label}`}
                    onClick={() => void save()}
                >
                    Record
                </button>
            </div>
            {chosen?.overdue && (
                <Mark kind="warn">This gauge was due on {chosen.calibratedUntil}: its readings bar the sign-off.</Mark>
            )}
            {asksNote && (
                <Field label="Note" value={note} onChange={setNote} problem={fieldProblem(problem, '/note')} />
            )}
            <ProblemNote problem={problem} except={['/reading', '/gauge', '/note']} />
        </div>
    );
}

function AirChecks({ section, card, onCard, editable }: { editable: boolean } & SectionProps<'assembly'>) {
    const checks = section.places.filter((p) => p.kind === 'air-check');
    return (
        <Panel title="Air checks" aside="regulated air, two readings, seconds: the loss counts">
            <Caution>Pistons and snap rings fly: regulate the air, cover the drum, wear eye protection.</Caution>
            <ul className="divide-y divide-rule">
                {checks.map((p) => {
                    const last = p.readings.at(-1);
                    return (
                        <li key={p.code} className="py-2">
                            <div className="flex flex-wrap items-center gap-x-4">
                                <strong className="w-52">
                                    {p.code} {p.name.replace('Air check ', '')}
                                </strong>
                                <span className="font-head text-3xl num">
                                    {last ? `${formatValue(last.value, last.unit)} ${last.unit}` : '–'}
                                </span>
                                {last && (
                                    <Mark kind={last.inside ? 'good' : 'bad'}>
                                        {last.inside ? 'holds' : 'leaks'}, {last.by}
                                    </Mark>
                                )}
                                <span className="text-sm text-faint">
                                    lost of {p.how}; at most {p.window.max} {p.unit}. {p.note}
                                </span>
                            </div>
                            {editable && (
                                <Measure
                                    section={section}
                                    kind="air-check"
                                    code={p.code}
                                    label={`Loss ${p.code}`}
                                    quantity="pressure"
                                    {...{ card, onCard }}
                                />
                            )}
                        </li>
                    );
                })}
            </ul>
        </Panel>
    );
}

function Torques({ section, card, onCard, editable }: { editable: boolean } & SectionProps<'assembly'>) {
    return (
        <Panel title="Tightening torques" aside="stop if it feels like turning out">
            <table className="w-full">
                <thead>
                    <tr>
                        {['Where', 'Bolt', 'Torque', 'Pattern', 'Source'].map((h) => (
                            <th key={h} scope="col" className="th">
                                {h}
                            </th>
                        ))}
                    </tr>
                </thead>
                <tbody>
                    {section.fasteners.map((f) => (
                        <tr key={f.code}>
                            <td className="td">
                                <strong>{f.name}</strong>
                                <br />
                                <span className="text-sm">{f.note}</span>
                                <HouseNote house={f.house} />
                            </td>
                            <td className="td num">
                                {f.count} × {f.thread}, {f.grade}
                                <br />
                                <span className="text-sm text-faint">
                                    bolt alone would take {f.boltCeilingNm.toFixed(1)} N·m
                                </span>
                            </td>
                            <td className="td">
                                <span className="font-head text-2xl num">{f.torque}</span>
                                <br />
                                <span className="text-sm num">{f.torqueNm.toFixed(1)} N·m</span>
                                {f.readings.slice(-1).map((last) => (
                                    <span key={f.readings.length} className="block">
                                        <Mark kind={last.inside ? 'good' : 'bad'}>
                                            {last.typed}, {last.by}
                                        </Mark>
                                    </span>
                                ))}
                            </td>
                            <td className="td">{f.pattern}</td>
                            <td className="td">
                                <Source source={f.source} confidence={f.confidence} />
                                {editable && !f.readings.at(-1)?.inside && (
                                    <Measure
                                        section={section}
                                        kind="torque"
                                        code={f.code}
                                        label={`Torque, ${f.name}`}
                                        quantity="torque"
                                        {...{ card, onCard }}
                                    />
                                )}
                            </td>
                        </tr>
                    ))}
                </tbody>
            </table>
        </Panel>
    );
}

function SignOff({ section, card, onCard, can }: SectionProps<'assembly'>) {
    const a = section;
    const { busy, problem, write } = useWrite();
    return (
        <Panel title="Sign-off" aside={a.signOffs.map((s) => `loop ${s.loop}: ${s.by}`).join(', ')}>
            {card.station === 'assembly' && a.blockers.length > 0 && (
                <>
                    <p>
                        <Mark kind="warn">{a.blockers.length} still open</Mark>
                    </p>
                    <ul className="list-disc pl-5 text-sm">
                        {a.blockers.slice(0, 7).map((b) => (
                            <li key={b.code}>{b.sentence}</li>
                        ))}
                    </ul>
                    {a.blockers.length > 7 && (
                        <More title={<>and {a.blockers.length - 7} more</>}>
                            <ul className="list-disc pl-5 text-sm">
                                {a.blockers.slice(7).map((b) => (
                                    <li key={b.code}>{b.sentence}</li>
                                ))}
                            </ul>
                        </More>
                    )}
                </>
            )}
            {card.station === 'assembly' && a.blockers.length === 0 && (
                <p>
                    <Mark kind="good">Everything is measured and inside its window.</Mark>
                </p>
            )}
            {card.station !== 'assembly' &&
                a.signOffs.slice(-1).map((last) => (
                    <p key={last.at}>
                        <Mark kind="good">
                            signed by {last.by}, {moment(last.at)}
                        </Mark>
                    </p>
                ))}
            <ProblemNote problem={problem} />
            {card.station === 'assembly' && can('assembly.sign') && (
                <button
                    type="button"
                    className="btn btn-main mt-2"
                    disabled={busy}
                    onClick={() =>
                        void write(
                            () =>
                                api.POST('/units/{number}/assembly/sign-off', {
                                    params: { path: { number: card.coreTag } },
                                    body: {},
                                }),
                            onCard,
                        )
                    }
                >
                    Sign for the assembly
                </button>
            )}
        </Panel>
    );
}
