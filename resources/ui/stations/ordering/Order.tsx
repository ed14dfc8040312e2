import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { answer, api, asProblem, fieldProblem, type Problem, type Schemas } from '../../api/client';
import { formatMoney } from '../../kit/format';
import { useWrite } from '../../api/useWrite';
import { Choice, Field, Mark, Panel, ProblemNote, Select } from '../../kit/basics';
import type { SectionProps } from '../../card/section';
import { Compare } from './Compare';
import { Drive } from './Drive';
import { DutyFields, dutyOf } from './DutyFields';
import { Margins } from './Margins';

/** Order, package, wishes; rules answer with a sentence each; release freezes it and gives the serial. */
export function Order(props: SectionProps<'ordering'>) {
    const order = props.section.order;
    return props.card.station === 'ordering' && props.can('ordering.specify') ? (
        <Desk {...props} />
    ) : order ? (
        <Frozen {...props} spec={order.spec} />
    ) : (
        <Panel title="Specification">
            <p className="text-faint">No order is written yet.</p>
        </Panel>
    );
}

function Desk({ section, card, onCard }: SectionProps<'ordering'>) {
    const b = section;
    const draft = b.order?.state === 'draft' ? b.order : null;
    const [d, setD] = useState({
        package: (draft?.lines as { package?: string } | undefined)?.package ?? b.packages[0]?.code ?? '',
        add: ((draft?.lines as { add?: string[] } | undefined)?.add ?? []) as string[],
        drop: ((draft?.lines as { drop?: string[] } | undefined)?.drop ?? []) as string[],
        customer: card.customer?.code ?? '',
        vehicle: draft?.vehicle?.code ?? b.vehicles[0]?.code ?? '',
        promisedOn: draft?.promisedOn ?? '',
    });
    const [duty, setDuty] = useState(dutyOf(draft?.lines));
    const form = useQuery({ queryKey: ['receiving/form'], queryFn: () => answer(api.GET('/receiving/form')) });
    const [spec, setSpec] = useState<Schemas['Spec'] | null>(draft?.spec ?? null);
    const [told, setTold] = useState<string[]>([]);
    const { busy, problem, write } = useWrite();
    const [wrong, setWrong] = useState<Problem | null>(null);
    const asked = JSON.stringify([d.package, d.add, d.drop, d.vehicle, duty]);
    useEffect(() => {
        let stale = false;
        void api
            .POST('/units/{number}/ordering/preview', {
                params: { path: { number: card.coreTag } },
                body: { package: d.package, add: d.add, drop: d.drop, vehicle: d.vehicle || null, duty },
            })
            .then(({ data, error, response }) => {
                if (stale) return;
                setWrong(data ? null : asProblem(error, response.status));
                if (data) setSpec(data);
            });
        return () => {
            stale = true;
        };
        // eslint-disable-next-line react-hooks/exhaustive-deps
    }, [asked]);
    const set = (change: Partial<typeof d>) => setD({ ...d, ...change });
    const body = {
        package: d.package,
        add: d.add,
        drop: d.drop,
        duty,
        customer: d.customer || null,
        vehicle: d.vehicle || null,
        promisedOn: d.promisedOn || null,
        version: draft?.version ?? null,
    };
    const save = (then?: (version: number) => void) =>
        write(
            () => api.POST('/units/{number}/ordering', { params: { path: { number: card.coreTag } }, body }),
            (next) => {
                onCard(next);
                const version = next.ordering?.order?.version;
                if (version !== undefined) then?.(version);
            },
        );
    const release = () =>
        save(
            (version) =>
                void write(
                    () =>
                        api.POST('/units/{number}/ordering/release', {
                            params: { path: { number: card.coreTag } },
                            body: { version, acknowledged: told },
                        }),
                    onCard,
                ),
        );
    const keep = async () => {
        const { data } = await api.POST('/units/{number}/ordering/calculation', {
            params: { path: { number: card.coreTag } },
            body: { package: d.package, add: d.add, drop: d.drop, vehicle: d.vehicle || null, duty },
        });
        if (data) saveJson(`${card.coreTag}-package.resolve.json`, data);
    };
    const surprises = spec?.options.filter((o) => o.surprise) ?? [];
    return (
        <div className="grid items-start gap-3 lg:grid-cols-[1fr_1.4fr]">
            <div className="flex flex-col gap-3">
                {b.foreignParts.length > 0 && (
                    <Panel title="Foreign parts on this core">
                        {b.foreignParts.map((f) => (
                            <p key={f.part}>
                                <Mark kind="warn">{f.part}</Mark>
                                {f.seen && `: ${f.seen}`} <span className="block text-sm">{f.ordering}</span>
                            </p>
                        ))}
                    </Panel>
                )}
                <Panel title="Order">
                    <div className="flex flex-col gap-3">
                        <Choice
                            label="Package"
                            value={d.package}
                            values={b.packages.map((p) => p.code)}
                            text={(c) => b.packages.find((p) => p.code === c)!.name}
                            onChange={(v) => set({ package: v, add: [], drop: [] })}
                        />
                        <p className="text-sm">{b.packages.find((p) => p.code === d.package)?.text}</p>
                        <Select
                            label="Customer"
                            value={d.customer}
                            onChange={(customer) => set({ customer })}
                            empty="for the shelf"
                            options={(form.data?.customers ?? []).map((c) => ({ value: c.code, text: c.name }))}
                            problem={fieldProblem(problem, '/customer')}
                        />
                        <Select
                            label="Vehicle"
                            value={d.vehicle}
                            onChange={(vehicle) => set({ vehicle })}
                            empty="not named"
                            options={b.vehicles.map((v) => ({ value: v.code, text: `${v.name} (${v.years})` }))}
                            problem={fieldProblem(problem, '/vehicle')}
                        />
                        <Field
                            label="Promised on"
                            type="date"
                            value={d.promisedOn}
                            onChange={(promisedOn) => set({ promisedOn })}
                        />
                    </div>
                </Panel>
                <DutyFields
                    duty={duty}
                    spec={spec}
                    problem={wrong ?? problem}
                    onChange={(change) => setDuty({ ...duty, ...change })}
                />
                {spec && (
                    <Panel title="Price and hours">
                        <p className="font-head text-5xl num">{spec.status === 'ok' ? formatMoney(spec.price) : '–'}</p>
                        {spec.status === 'ok' ? (
                            <p className="num">
                                {spec.hours} h · parts {formatMoney(spec.partsCost)} · {spec.fluid.litres} L{' '}
                                {spec.fluid.name}
                            </p>
                        ) : (
                            <p>No price until the order holds together.</p>
                        )}
                        {surprises.length > 0 && (
                            <fieldset className="mt-2">
                                <legend className="text-sm font-semibold text-faint">Told to the customer</legend>
                                {surprises.map((o) => (
                                    <label key={o.code} className="flex min-h-11 items-center gap-2">
                                        <input
                                            type="checkbox"
                                            className="size-5 accent-[var(--hand)]"
                                            checked={told.includes(o.code)}
                                            onChange={() =>
                                                setTold(
                                                    told.includes(o.code)
                                                        ? told.filter((t) => t !== o.code)
                                                        : [...told, o.code],
                                                )
                                            }
                                        />
                                        {o.surprise}
                                    </label>
                                ))}
                            </fieldset>
                        )}
                        <ProblemNote
                            problem={problem}
                            except={['/customer', '/vehicle', ...Object.keys(duty).map((k) => `/duty/${k}`)]}
                        />
                        <div className="mt-2 flex flex-wrap gap-2">
                            <button type="button" className="btn" disabled={busy} onClick={() => void save()}>
                                Save the draft
                            </button>
                            {draft && (
                                <Link className="btn" to={`/units/${card.coreTag}/ordering/quote`}>
                                    Quote
                                </Link>
                            )}
                            {draft && b.packages.length > 1 && (
                                <Link className="btn" to={`/units/${card.coreTag}/ordering/compare`}>
                                    Compare on paper
                                </Link>
                            )}
                            <button
                                type="button"
                                className="btn btn-main"
                                disabled={busy || spec.status !== 'ok'}
                                onClick={() => void release()}
                            >
                                Release the build
                            </button>
                        </div>
                        <button
                            type="button"
                            className="mt-1 min-h-9 text-sm text-faint underline"
                            onClick={() => void keep()}
                        >
                            Save this calculation as a file
                        </button>
                    </Panel>
                )}
            </div>
            {spec && (
                <div className="flex flex-col gap-3">
                    {spec.conflicts.map((c, i) => (
                        <p key={i} role="alert" className="border-l-4 border-bad bg-sheet px-4 py-2">
                            <Mark kind="bad">
                                {c.rule === 'margin'
                                    ? 'It does not hold.'
                                    : c.rule === 'oneOf'
                                      ? 'Nothing fits here.'
                                      : 'These clash.'}
                            </Mark>{' '}
                            {c.explain}
                        </p>
                    ))}
                    {(spec.alternatives ?? []).length > 0 && (
                        <p className="border-l-4 border-warn bg-sheet px-4 py-2">
                            What would go:{' '}
                            {spec.alternatives!.map((a) => (
                                <button
                                    key={a.without}
                                    type="button"
                                    className="btn mr-2"
                                    onClick={() => set({ add: d.add.filter((x) => x !== a.without) })}
                                >
                                    without {a.name}, {formatMoney(a.price)}
                                </button>
                            ))}
                        </p>
                    )}
                    {spec.margins && (
                        <Margins
                            margins={spec.margins}
                            elements={spec.elements ?? {}}
                            torque={spec.duty?.engineTorque_nm ?? 0}
                            sensitivity={spec.sensitivity}
                        />
                    )}
                    <Drive spec={spec} />
                    {spec.options.length > 0 && (
                        <Panel title="What goes in" aside={`${spec.options.length} options`}>
                            <ul className="divide-y divide-rule">
                                {spec.options.map((o) => {
                                    const always =
                                        o.origin === 'always'
                                            ? spec.always.find((a) => a.option === o.code)
                                            : undefined;
                                    const because = always
                                        ? `${always.reason} On the house list since ${always.since}.`
                                        : o.house
                                          ? `${o.house.question}: ${o.house.choice}. ${o.house.reason}`
                                          : (spec.added.find((a) => a.option === o.code)?.because ?? o.why);
                                    return (
                                        <li key={o.code} className="flex items-center gap-3 py-1">
                                            <span className="flex-1">
                                                <strong>{o.name}</strong>{' '}
                                                <span className="text-sm text-faint">
                                                    {
                                                        (
                                                            {
                                                                wish: 'wish',
                                                                package: 'package',
                                                                always: 'house list',
                                                                house: 'house rule',
                                                                rule: 'needed',
                                                            } as Record<string, string>
                                                        )[o.origin]
                                                    }
                                                </span>
                                                <br />
                                                <span className="text-sm">{because}</span>
                                            </span>
                                            <Delta {...o} />
                                            {(o.origin === 'package' || o.origin === 'house') && (
                                                <button
                                                    type="button"
                                                    className="btn"
                                                    aria-label={`Take off ${o.name}`}
                                                    onClick={() => set({ drop: [...d.drop, o.code] })}
                                                >
                                                    off
                                                </button>
                                            )}
                                            {o.origin === 'wish' && (
                                                <button
                                                    type="button"
                                                    className="btn"
                                                    aria-label={`Withdraw ${o.name}`}
                                                    onClick={() => set({ add: d.add.filter((a) => a !== o.code) })}
                                                >
                                                    off
                                                </button>
                                            )}
                                        </li>
                                    );
                                })}
                            </ul>
                        </Panel>
                    )}
                    {(spec.removed.length > 0 || spec.omitted.length > 0) && (
                        <Panel title="What stays out">
                            <ul>
                                {spec.removed.map((r) => (
                                    <li key={r.option}>
                                        <strong>{r.name}</strong>: {r.because}
                                    </li>
                                ))}
                                {spec.omitted.map((o) => (
                                    <li key={o.part}>
                                        <strong>{o.part}</strong>: {o.because}
                                    </li>
                                ))}
                            </ul>
                        </Panel>
                    )}
                    <Panel title="Could be added">
                        <ul className="divide-y divide-rule">
                            {spec.available.map((o) => (
                                <li key={o.code} className="flex items-center gap-3 py-1">
                                    <span className="flex-1">
                                        <strong>{o.name}</strong> <span className="text-sm">{o.why}</span>
                                    </span>
                                    <Delta {...o} />
                                    <button
                                        type="button"
                                        className="btn"
                                        aria-label={`Add ${o.name}`}
                                        onClick={() =>
                                            set(
                                                d.drop.includes(o.code)
                                                    ? { drop: d.drop.filter((x) => x !== o.code) }
                                                    : { add: [...d.add, o.code] },
                                            )
                                        }
                                    >
                                        add
                                    </button>
                                </li>
                            ))}
                        </ul>
                    </Panel>
                    {(spec.forbidden ?? []).length > 0 && (
                        <details className="sheet px-4 py-2">
                            <summary className="min-h-11 py-2 font-semibold">
                                Cannot come in: {spec.forbidden!.length}
                            </summary>
                            <ul>
                                {spec.forbidden!.map((o) => (
                                    <li key={o.option} className="border-b border-rule py-1">
                                        <strong>{o.name}</strong> <span className="text-sm">{o.because}</span>
                                    </li>
                                ))}
                            </ul>
                        </details>
                    )}
                    {b.packages.length > 1 && (
                        <Compare number={card.coreTag} packages={b.packages} vehicle={d.vehicle || null} duty={duty} />
                    )}
                    <Work spec={spec} />
                    <Bom spec={spec} />
                </div>
            )}
        </div>
    );
}

function Frozen({ section, spec }: SectionProps<'ordering'> & { spec: Schemas['Spec'] }) {
    const order = section.order!;
    return (
        <div className="grid items-start gap-3 lg:grid-cols-2">
            <Panel
                title={order.serial ? `Specification of ${order.serial}` : 'Draft'}
                aside={order.serial ? 'frozen at release' : undefined}
            >
                <p className="text-lg">
                    <strong>{spec.package.name}</strong> for {order.customer ?? 'the shelf'}
                    {order.vehicle && `, ${order.vehicle.name}`}
                </p>
                <p className="num">
                    {formatMoney(order.price)} · {order.hours} h · {spec.fluid.litres} L {spec.fluid.name}
                </p>
                {section.differs.length > 0 && (
                    <div className="my-2 border-l-4 border-warn pl-3">
                        <Mark kind="warn">Differs from today's catalog</Mark>
                        <ul className="text-sm">
                            {section.differs.map((x) => (
                                <li key={x}>{x}</li>
                            ))}
                        </ul>
                        <p className="text-sm text-faint">The frozen specification stays as it is.</p>
                    </div>
                )}
                {order.parentSerial && (
                    <p>
                        Second build of <strong>{order.parentSerial}</strong>
                    </p>
                )}
                <ul className="mt-2">
                    {spec.options.map((o) => (
                        <li key={o.code}>
                            <strong>{o.name}</strong>{' '}
                            <span className="text-sm">
                                {spec.added.find((a) => a.option === o.code)?.because ?? o.why}
                            </span>
                        </li>
                    ))}
                </ul>
                {spec.omitted.length > 0 && (
                    <ul className="mt-2">
                        {spec.omitted.map((o) => (
                            <li key={o.part}>
                                <Mark kind="warn">left out {o.part}</Mark> {o.because}
                            </li>
                        ))}
                    </ul>
                )}
            </Panel>
            <Bom spec={spec} />
            {spec.margins && (
                <div className="lg:col-span-2">
                    <Margins
                        margins={spec.margins}
                        elements={spec.elements ?? {}}
                        torque={spec.duty?.engineTorque_nm ?? 0}
                    />
                </div>
            )}
            <Drive spec={spec} />
            <Work spec={spec} />
            <Panel title="Ratios" aside="from the teeth and the apply chart">
                <table className="w-full">
                    <tbody>
                        {section.ratios.map((r) => (
                            <tr key={r.gear}>
                                <th scope="row" className="td text-left">
                                    {r.gear}
                                </th>
                                <td className="td font-head text-2xl num">
                                    {r.ratio === null ? '–' : r.ratio.toFixed(3)}
                                </td>
                                <td className="td">{r.applied.join(' ')}</td>
                            </tr>
                        ))}
                    </tbody>
                </table>
            </Panel>
        </div>
    );
}

/** Hands a calculation over as a file. */
function saveJson(name: string, data: unknown) {
    const link = Object.assign(document.createElement('a'), {
        href: URL.createObjectURL(new Blob([JSON.stringify(data, null, 2)], { type: 'application/json' })),
        download: name,
    });
    link.click();
    URL.revokeObjectURL(link.href);
}

/** What an option adds to price and hours. */
function Delta({ price, hours }: { price: number; hours: number }) {
    return (
        <span className="text-right num">
            {price > 0 ? formatMoney(price) : '–'}
            {hours > 0 && <span className="block text-sm text-faint">{hours} h</span>}
        </span>
    );
}

/** Work and checks the options bring; at the bench each is a step of its own. */
function Work({ spec }: { spec: Schemas['Spec'] }) {
    if (spec.work.length === 0) return null;
    return (
        <Panel title="Added work and checks" aside="a step at the bench each, or confirmed at dispatch">
            <ul className="divide-y divide-rule">
                {spec.work.map((w) => (
                    <li key={w.kind + w.text} className="py-1">
                        <Mark kind={w.kind === 'work' ? 'next' : 'warn'}>
                            {w.kind === 'work' ? 'do' : w.kind === 'check' ? 'check' : 'check before it leaves'}
                        </Mark>{' '}
                        {w.text} <span className="text-sm text-faint">{w.option}</span>
                    </li>
                ))}
            </ul>
        </Panel>
    );
}

function Bom({ spec }: { spec: Schemas['Spec'] }) {
    return (
        <Panel title="Bill of materials" aside={`${formatMoney(spec.partsCost)} in parts, selective parts come on top`}>
            <table className="w-full text-sm">
                <thead>
                    <tr>
                        <th scope="col" className="th">
                            Part
                        </th>
                        <th scope="col" className="th">
                            Name
                        </th>
                        <th scope="col" className="th text-right">
                            Count
                        </th>
                        <th scope="col" className="th text-right">
                            Price
                        </th>
                    </tr>
                </thead>
                <tbody>
                    {spec.bom.map((l) => (
                        <tr key={l.part}>
                            <td className="td num">{l.part}</td>
                            <td className="td">{l.name}</td>
                            <td className="td num text-right">{l.count}</td>
                            <td className="td num text-right">{formatMoney(l.count * l.price)}</td>
                        </tr>
                    ))}
                </tbody>
            </table>
        </Panel>
    );
}
