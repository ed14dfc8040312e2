import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/react';
import type { Schemas } from '../../api/client';
import { Panel } from '../../kit/basics';
import { Delta } from './SpecLists';
import type { Ordering } from './useOrder';

type Spec = Schemas['Spec'];
type Option = Spec['options'][number];

const ORIGINS: Record<string, string> = {
    wish: 'wish',
    package: 'package',
    always: 'house list',
    house: 'house rule',
    rule: 'needed',
};

function reasonFor(o: Option, spec: Spec): string {
    const always = o.origin === 'always' ? spec.always.find((a) => a.option === o.code) : undefined;
    if (always) return `${always.reason} On the house list since ${always.since}.`;
    if (o.house) return `${o.house.question}: ${o.house.choice}. ${o.house.reason}`;
    return spec.added.find((a) => a.option === o.code)?.because ?? o.why;
}

/** What goes in and why, what could come in, what stays out: a line each. */
export function Options({ order, spec }: { order: Ordering; spec: Spec }) {
    const { d, set } = order;
    const takeOff = (o: Option) =>
        o.origin === 'wish' ? set({ add: d.add.filter((a) => a !== o.code) }) : set({ drop: [...d.drop, o.code] });
    const add = (code: string) =>
        set(d.drop.includes(code) ? { drop: d.drop.filter((x) => x !== code) } : { add: [...d.add, code] });
    return (
        <div className="grid items-start gap-3 lg:grid-cols-2">
            <GoesIn spec={spec} takeOff={takeOff} />
            <div className="flex flex-col gap-3">
                <CouldBeAdded spec={spec} add={add} />
                <Out spec={spec} />
            </div>
        </div>
    );
}

function GoesIn({ spec, takeOff }: { spec: Spec; takeOff: (o: Option) => void }) {
    return (
        <Panel title="What goes in" aside={`${spec.options.length} options`}>
            <ul className="divide-y divide-rule">
                {spec.options.map((o) => (
                    <Line key={o.code} name={o.name} mark={ORIGINS[o.origin]} reason={reasonFor(o, spec)} option={o}>
                        {['package', 'house', 'wish'].includes(o.origin) && (
                            <button
                                type="button"
                                className="btn px-3"
                                aria-label={`${o.origin === 'wish' ? 'Withdraw' : 'Take off'} ${o.name}`}
                                onClick={() => takeOff(o)}
                            >
                                off
                            </button>
                        )}
                    </Line>
                ))}
            </ul>
        </Panel>
    );
}

function CouldBeAdded({ spec, add }: { spec: Spec; add: (code: string) => void }) {
    return (
        <Disclosure as="div" className="sheet px-4 py-1">
            <DisclosureButton className="min-h-11 w-full text-left text-xl font-semibold">
                Could be added: {spec.available.length}
            </DisclosureButton>
            <DisclosurePanel>
                <ul className="divide-y divide-rule">
                    {spec.available.map((o) => (
                        <Line key={o.code} name={o.name} reason={o.why} option={o}>
                            <button
                                type="button"
                                className="btn px-3"
                                aria-label={`Add ${o.name}`}
                                onClick={() => add(o.code)}
                            >
                                add
                            </button>
                        </Line>
                    ))}
                </ul>
            </DisclosurePanel>
        </Disclosure>
    );
}

function Line({
    name,
    mark,
    reason,
    option,
    children,
}: {
    name: string;
    mark?: string;
    reason: string;
    option: { price: number; hours: number };
    children: React.ReactNode;
}) {
    return (
        <li className="grid min-h-12 grid-cols-[1fr_auto_auto] items-center gap-3 py-0.5">
            <span className="leading-tight">
                <strong>{name}</strong> {mark && <span className="text-sm text-faint">{mark}</span>}
                <span className="block text-sm">{reason}</span>
            </span>
            <Delta {...option} />
            <span>{children}</span>
        </li>
    );
}

/** What the rules keep out: what left this order in words, what could never come in folded away. */
function Out({ spec }: { spec: Spec }) {
    const forbidden = spec.forbidden ?? [];
    const left = [
        ...spec.removed.map((r) => ({ key: r.option, name: r.name, because: r.because })),
        ...spec.omitted.map((o) => ({ key: o.part, name: o.part, because: o.because })),
    ];
    return (
        <>
            {left.length > 0 && (
                <Panel title="What stays out">
                    <ul>
                        {left.map((r) => (
                            <li key={r.key}>
                                <strong>{r.name}</strong>: {r.because}
                            </li>
                        ))}
                    </ul>
                </Panel>
            )}
            {forbidden.length > 0 && (
                <Disclosure as="div" className="sheet px-4 py-1">
                    <DisclosureButton className="min-h-11 w-full text-left font-semibold">
                        Cannot come in: {forbidden.length}
                    </DisclosureButton>
                    <DisclosurePanel as="ul">
                        {forbidden.map((r) => (
                            <li key={r.option} className="border-b border-rule py-1">
                                <strong>{r.name}</strong>: <span className="text-sm">{r.because}</span>
                            </li>
                        ))}
                    </DisclosurePanel>
                </Disclosure>
            )}
        </>
    );
}
