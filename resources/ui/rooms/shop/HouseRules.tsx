import { Disclosure, DisclosureButton, DisclosurePanel, Radio, RadioGroup } from '@headlessui/react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { answer, api, type Schemas } from '../../api/client';
import { useSession } from '../../api/session';
import { placeName, STATIONS_IN_ORDER } from '../../card/stations';
import { Mark } from '../../kit/basics';
import { Fetched } from '../../kit/Fetched';
import { fieldsOf, FormFields, FormProblem, useForm } from '../../kit/form';

type Rule = Schemas['HouseRule'];

const ORDER = [...STATIONS_IN_ORDER.map((s) => s.id as string), 'money', 'yard'];
const ROOMS: Record<string, string> = { money: 'Money', shop: 'The house' };
const title = (station: string) => ROOMS[station] ?? placeName(station);

function byStation(rules: Rule[]): [string, Rule[]][] {
    const groups = new Map<string, Rule[]>();
    for (const rule of rules) groups.set(rule.station, [...(groups.get(rule.station) ?? []), rule]);
    return [...groups].sort(([a], [b]) => ORDER.indexOf(a) - ORDER.indexOf(b));
}

/** Where practitioners disagree: which school is in force here, why, who signed, and what it changes. */
export function HouseRules() {
    const rules = useQuery({ queryKey: ['house-rules'], queryFn: () => answer(api.GET('/house-rules')) });
    return (
        <Fetched query={rules} what="the house rules">
            {(data) => {
                const groups = byStation(data.rules);
                return (
                    <>
                        <header className="mb-2 flex flex-wrap items-baseline gap-x-6">
                            <h1 className="text-3xl">House rules</h1>
                            <p className="text-faint">
                                Good rebuilders differ on these. What the shop has not decided holds as shipped.
                            </p>
                        </header>
                        {groups.map(([station, list]) => (
                            <section key={station} aria-label={title(station)} className="sheet mb-3">
                                <h2 className="bg-enamel px-3 py-1 text-xl text-enamel-ink">{title(station)}</h2>
                                <ul className="divide-y divide-rule">
                                    {list.map((r) => (
                                        <Line key={r.code + r.version} rule={r} />
                                    ))}
                                </ul>
                            </section>
                        ))}
                    </>
                );
            }}
        </Fetched>
    );
}

/** One rule in one line; what stands behind it opens below. */
function Line({ rule: r }: { rule: Rule }) {
    return (
        <Disclosure as="li">
            <DisclosureButton className="grid min-h-12 w-full grid-cols-[1fr_auto_9rem] items-baseline gap-x-4 px-3 py-2 text-left data-open:bg-sheet">
                <span>{r.question}</span>
                <strong className="font-head text-2xl num">
                    {r.choice} {r.unit}
                </strong>
                {r.version > 0 ? (
                    <Mark kind="good">{r.setBy ?? 'set by the shop'}</Mark>
                ) : (
                    <Mark kind="idle">as shipped</Mark>
                )}
            </DisclosureButton>
            <DisclosurePanel className="bg-sheet px-3 pb-3">
                <p>
                    <span className="text-faint">It changes:</span> {r.changes}
                </p>
                <p className="text-sm text-faint">
                    Shipped as {`${r.default} ${r.unit}`.trim()}. Source: {r.source}.
                </p>
                {r.version > 0 && r.reason && <p>Why we do it this way: {r.reason}</p>}
                <Reach code={r.code} />
                <Change rule={r} />
            </DisclosurePanel>
        </Disclosure>
    );
}

/** What a change would meet today. */
function Reach({ code }: { code: string }) {
    const reach = useQuery({
        queryKey: ['house-rules', code, 'reach'],
        queryFn: () => answer(api.GET('/house-rules/{code}/reach', { params: { path: { code } } })),
    });
    return (
        <Fetched query={reach} what="what it touches today">
            {(r) => (
                <dl aria-label="What it touches today" className="my-2 flex flex-wrap gap-x-8 gap-y-1">
                    <Figure value={r.unitsAhead}>units with this still ahead of them</Figure>
                    <Figure value={r.ordersOpen}>open orders that will follow it</Figure>
                    <Figure value={r.buildsFrozen}>builds in work that stay as released</Figure>
                    {r.thin && (
                        <Figure value={r.thin.builds}>
                            builds in work below {r.thin.limit}
                            {r.thin.margin !== null && `; thinnest ${r.thin.margin.toFixed(2)} on ${r.thin.serial}`}
                        </Figure>
                    )}
                </dl>
            )}
        </Fetched>
    );
}

function Figure({ value, children }: { value: number; children: ReactNode }) {
    return (
        <div className="flex flex-row-reverse items-baseline gap-2">
            <dt className="text-faint">{children}</dt>
            <dd className="font-head text-2xl num">{value}</dd>
        </div>
    );
}

const change = z.object({ choice: z.string(), reason: z.string() });
const changing = fieldsOf<z.input<typeof change>>();

function Amount({ rule: { unit, kind, min, max } }: { rule: Rule }) {
    const others = kind === 'quantity' ? '; other units are understood' : '';
    return (
        <changing.Text
            name="choice"
            label={`Value${unit ? `, ${unit}` : ''}`}
            hint={`from ${min} to ${max}${others}`}
            className="max-w-72"
        />
    );
}

function SignIt({ off, onSign }: { off: boolean; onSign: () => void }) {
    return (
        <button type="button" className="btn btn-main self-start" disabled={off} onClick={onSign}>
            Sign it
        </button>
    );
}

function Change({ rule }: { rule: Rule }) {
    const { can } = useSession();
    const client = useQueryClient();
    const form = useForm({ schema: change, start: { choice: rule.choice, reason: '' } });
    const choice = form.fields.watch('choice');
    const mayChange = can('shop.set-rules');
    const sign = form.submit(
        (typed) =>
            api.PUT('/house-rules/{code}', {
                params: { path: { code: rule.code } },
                body: { ...typed, version: rule.version },
            }),
        (data) => client.setQueryData(['house-rules'], data),
    );
    return (
        <FormFields of={form}>
            <div className="mt-2 flex flex-col gap-2">
                {rule.kind === 'choice' ? (
                    <Schools
                        rule={rule}
                        choice={choice}
                        onChange={(v) => form.fields.setValue('choice', v)}
                        readOnly={!mayChange}
                    />
                ) : (
                    mayChange && <Amount rule={rule} />
                )}
                {mayChange && (
                    <>
                        <changing.Area name="reason" label="Why the house does it this way" />
                        <FormProblem of={form} />
                        <SignIt off={form.busy || choice === rule.choice} onSign={sign} />
                    </>
                )}
            </div>
        </FormFields>
    );
}

/** The schools side by side, each with what speaks for it. */
function Schools({
    rule,
    choice,
    onChange,
    readOnly,
}: {
    rule: Rule;
    choice: string;
    onChange: (v: string) => void;
    readOnly: boolean;
}) {
    return (
        <RadioGroup
            value={choice}
            onChange={onChange}
            disabled={readOnly}
            aria-label={rule.question}
            className="grid gap-2 sm:grid-cols-[repeat(auto-fit,minmax(14rem,1fr))]"
        >
            {rule.choices.map((c) => (
                <Radio
                    key={c.value}
                    value={c.value}
                    className="cursor-pointer border-2 border-frame bg-paper px-3 py-2 data-checked:border-edge data-checked:bg-enamel data-checked:text-enamel-ink"
                >
                    <strong className="block text-lg">
                        {c.value === choice && <span aria-hidden="true">✓ </span>}
                        {c.value}
                    </strong>
                    <span className="text-sm">{c.means}</span>
                </Radio>
            ))}
        </RadioGroup>
    );
}
