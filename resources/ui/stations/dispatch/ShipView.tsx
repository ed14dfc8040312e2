import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { answer, api, fieldProblem } from '../../api/client';
import { moment } from '../../kit/format';
import { useWrite } from '../../api/useWrite';
import { Field, Mark, Panel, ProblemNote, Select } from '../../kit/basics';
import type { SectionProps } from '../../card/section';
import { SheetBody } from './SheetBody';

/** The ship gate, the papers, and what the installer reports back. */
export function ShipView(props: SectionProps<'dispatch'>) {
    const { card, can, section: d } = props;
    return (
        <div className="grid items-start gap-3 lg:grid-cols-[1.6fr_1fr]">
            <Panel
                title="Delivery sheet"
                aside={
                    <Link className="underline" to={`/units/${card.coreTag}/dispatch/sheet`}>
                        open to print
                    </Link>
                }
            >
                <SheetBody sheet={d.sheet} />
            </Panel>
            <div className="flex flex-col gap-3">
                {d.shipped ? (
                    <Panel title="Shipped">
                        <p className="text-lg">
                            to <strong>{d.shipped.customer}</strong> by {d.shipped.carrier || 'own transport'}
                        </p>
                        <p>
                            {d.shipped.by}, {moment(d.shipped.at)}
                        </p>
                        <p>
                            Warranty until {d.shipped.warrantyUntil} or {d.shipped.warrantyKm} km
                        </p>
                    </Panel>
                ) : card.station === 'dispatch' && can('dispatch.ship') ? (
                    <Ship {...props} />
                ) : null}
                {d.commissioning ? (
                    <Panel title="Commissioned">
                        <p>
                            {d.commissioning.installedOn} at {d.commissioning.odometerKm} km by{' '}
                            {d.commissioning.installer}
                        </p>
                        <ul>
                            {Object.entries(d.commissioningItems).map(([k, name]) => (
                                <li key={k}>
                                    <Mark kind={(d.commissioning!.items as string[]).includes(k) ? 'good' : 'warn'}>
                                        {name}
                                        {(d.commissioning!.items as string[]).includes(k) ? '' : ': not on file'}
                                    </Mark>
                                </li>
                            ))}
                        </ul>
                        <p>{String((d.commissioning.depth as { message?: string }).message ?? '')}</p>
                    </Panel>
                ) : (
                    d.shipped && can('returns.handle') && <Commission {...props} />
                )}
            </div>
        </div>
    );
}

function Ship({ section, card, onCard }: SectionProps<'dispatch'>) {
    const form = useQuery({ queryKey: ['receiving/form'], queryFn: () => answer(api.GET('/receiving/form')) });
    const [customer, setCustomer] = useState(card.customer?.code ?? '');
    const [carrier, setCarrier] = useState('');
    const [checked, setChecked] = useState<string[]>([]);
    const final = section.finalChecks;
    const { busy, problem, write } = useWrite();
    return (
        <Panel title="Ship it">
            <Select
                label="To"
                value={customer}
                onChange={setCustomer}
                empty="as ordered"
                options={(form.data?.customers ?? []).map((c) => ({ value: c.code, text: `${c.name}, ${c.city}` }))}
                problem={fieldProblem(problem, '/customer')}
            />
            <Field label="Carrier" value={carrier} onChange={setCarrier} />
            {final.length > 0 && (
                <fieldset className="mt-2">
                    <legend className="text-sm font-semibold text-faint">Checked before it leaves</legend>
                    {final.map((f) => (
                        <label key={f} className="flex min-h-11 items-center gap-2">
                            <input
                                type="checkbox"
                                className="size-5 shrink-0 accent-[var(--hand)]"
                                checked={checked.includes(f)}
                                onChange={() =>
                                    setChecked(checked.includes(f) ? checked.filter((c) => c !== f) : [...checked, f])
                                }
                            />
                            {f}
                        </label>
                    ))}
                    {fieldProblem(problem, '/checked') && (
                        <p role="alert" className="font-semibold text-bad">
                            {fieldProblem(problem, '/checked')}
                        </p>
                    )}
                </fieldset>
            )}
            <ProblemNote problem={problem} except={['/customer', '/checked']} />
            <button
                type="button"
                className="btn btn-main mt-2"
                disabled={busy}
                onClick={() =>
                    void write(
                        () =>
                            api.POST('/units/{number}/dispatch/shipment', {
                                params: { path: { number: card.coreTag } },
                                body: { customer: customer || null, carrier, checked },
                            }),
                        onCard,
                    )
                }
            >
                Papers complete: ship it
            </button>
        </Panel>
    );
}

function Commission({ section, card, onCard }: SectionProps<'dispatch'>) {
    const d = section;
    const [v, setV] = useState({
        installedOn: '',
        odometer: '',
        installer: '',
        items: [] as string[],
        converterDepth: '',
        flexplateDepth: '',
    });
    const { busy, problem, write } = useWrite();
    const set = (change: Partial<typeof v>) => setV({ ...v, ...change });
    const at = (p: string) => fieldProblem(problem, p);
    return (
        <Panel title="Commissioning" aside="the warranty starts with it">
            <div className="flex flex-col gap-2">
                <Field
                    label="Fitted on"
                    type="date"
                    value={v.installedOn}
                    onChange={(installedOn) => set({ installedOn })}
                    problem={at('/installedOn')}
                />
                <Field
                    label="Odometer"
                    value={v.odometer}
                    onChange={(odometer) => set({ odometer })}
                    problem={at('/odometer')}
                />
                <Field
                    label="Fitted by"
                    value={v.installer}
                    onChange={(installer) => set({ installer })}
                    problem={at('/installer')}
                />
                <Field
                    label="Bell face to converter lugs"
                    value={v.converterDepth}
                    onChange={(converterDepth) => set({ converterDepth })}
                    problem={at('/converterDepth')}
                />
                <Field
                    label="Engine face to flex-plate"
                    value={v.flexplateDepth}
                    onChange={(flexplateDepth) => set({ flexplateDepth })}
                    problem={at('/flexplateDepth')}
                />
                {Object.entries(d.commissioningItems).map(([k, name]) => (
                    <label key={k} className="flex min-h-9 items-center gap-2">
                        <input
                            type="checkbox"
                            className="size-5 accent-[var(--hand)]"
                            checked={v.items.includes(k)}
                            onChange={() =>
                                set({ items: v.items.includes(k) ? v.items.filter((i) => i !== k) : [...v.items, k] })
                            }
                        />
                        {name}
                    </label>
                ))}
                <ProblemNote
                    problem={problem}
                    except={['/installedOn', '/odometer', '/installer', '/converterDepth', '/flexplateDepth']}
                />
                <button
                    type="button"
                    className="btn"
                    disabled={busy}
                    onClick={() =>
                        void write(
                            () =>
                                api.POST('/units/{number}/dispatch/commissioning', {
                                    params: { path: { number: card.coreTag } },
                                    body: v,
                                }),
                            onCard,
                        )
                    }
                >
                    Put on file
                </button>
            </div>
        </Panel>
    );
}
