import { Tab, TabGroup, TabList, TabPanel, TabPanels } from '@headlessui/react';
import { fieldProblem } from '../../api/client';
import type { SectionProps } from '../../card/section';
import { Choice, Field, Mark, Panel, Select } from '../../kit/basics';
import { Finder } from '../../kit/Finder';
import { formatMoney } from '../../kit/format';
import { CUSTOMERS } from '../../work/customers';
import { Compare } from './Compare';
import { Drive } from './Drive';
import { DutyFields } from './DutyFields';
import { Margins } from './Margins';
import { Options } from './Options';
import { Price } from './Price';
import { Bom, Work } from './SpecLists';
import { useOrder, type Ordering } from './useOrder';

/** The duty and what holds it first; options, comparison, parts and work each as a view of their own. */
export function Desk(props: SectionProps<'ordering'>) {
    const { section, card } = props;
    const order = useOrder(props);
    const { spec, wrong, problem, duty, setDuty } = order;
    return (
        <div className="flex flex-col gap-3">
            <Foreign parts={section.foreignParts} />
            <div className="grid items-start gap-3 lg:grid-cols-[1fr_1.5fr]">
                <div className="flex flex-col gap-3">
                    <Asked order={order} section={section} />
                    <DutyFields duty={duty} spec={spec} problem={wrong ?? problem} onChange={setDuty} />
                </div>
                {spec && (
                    <div className="flex flex-col gap-3">
                        <Price order={order} spec={spec} card={card} packages={section.packages.length} />
                        <Conflicts order={order} />
                        {spec.margins && (
                            <Margins
                                margins={spec.margins}
                                elements={spec.elements ?? {}}
                                torque={spec.duty?.engineTorque_nm ?? 0}
                                sensitivity={spec.sensitivity}
                            />
                        )}
                    </div>
                )}
            </div>
            {spec && <Views order={order} spec={spec} {...props} />}
        </div>
    );
}

const VIEWS = ['Options', 'Pulling away and shifting', 'Packages side by side', 'Parts and work'] as const;

type ViewsProps = SectionProps<'ordering'> & { order: Ordering; spec: NonNullable<Ordering['spec']> };

function Views({ order, spec, section, card }: ViewsProps) {
    const several = section.packages.length > 1;
    return (
        <TabGroup>
            <TabList className="flex flex-wrap gap-1" aria-label="Views of the order">
                {VIEWS.filter((v) => several || v !== 'Packages side by side').map((v) => (
                    <Tab key={v} className="btn data-selected:bg-enamel data-selected:text-enamel-ink">
                        {v}
                        {v === 'Options' && ` · ${spec.options.length}`}
                    </Tab>
                ))}
            </TabList>
            <TabPanels className="mt-2">
                <TabPanel>
                    <Options order={order} spec={spec} />
                </TabPanel>
                <TabPanel>
                    <Drive spec={spec} />
                </TabPanel>
                {several && (
                    <TabPanel>
                        <Compare
                            number={card.coreTag}
                            packages={section.packages}
                            vehicle={order.d.vehicle || null}
                            duty={order.duty}
                        />
                    </TabPanel>
                )}
                <TabPanel className="grid items-start gap-3 lg:grid-cols-2">
                    <Work spec={spec} />
                    <Bom spec={spec} />
                </TabPanel>
            </TabPanels>
        </TabGroup>
    );
}

function Foreign({ parts }: { parts: SectionProps<'ordering'>['section']['foreignParts'] }) {
    if (parts.length === 0) return null;
    return (
        <Panel title="Foreign parts on this core">
            {parts.map((f) => (
                <p key={f.part}>
                    <Mark kind="warn">{f.part}</Mark>
                    {f.seen && `: ${f.seen}`} <span className="block text-sm">{f.ordering}</span>
                </p>
            ))}
        </Panel>
    );
}

type PackageChoiceProps = { order: Ordering; packages: SectionProps<'ordering'>['section']['packages'] };

function PackageChoice({ order: { d, set }, packages }: PackageChoiceProps) {
    const of = (code: string) => packages.find((p) => p.code === code);
    return (
        <>
            <Choice
                label="Package"
                value={d.package}
                values={packages.map((p) => p.code)}
                text={(code) => of(code)?.name ?? code}
                onChange={(code) => set({ package: code, add: [], drop: [] })}
            />
            <p className="text-sm">{of(d.package)?.text}</p>
        </>
    );
}

function Asked({ order, section: b }: { order: Ordering } & Pick<SectionProps<'ordering'>, 'section'>) {
    const { d, set, problem } = order;
    return (
        <Panel title="Order">
            <div className="flex flex-col gap-2">
                <PackageChoice order={order} packages={b.packages} />
                <Select
                    label="Vehicle"
                    value={d.vehicle}
                    onChange={(vehicle) => set({ vehicle })}
                    empty="not named"
                    options={b.vehicles.map((v) => ({ value: v.code, text: `${v.name} (${v.years})` }))}
                    problem={fieldProblem(problem, '/vehicle')}
                />
                <div className="grid grid-cols-2 gap-2">
                    <Finder
                        label="Customer"
                        {...CUSTOMERS}
                        value={d.customer}
                        onChange={(customer) => set({ customer })}
                        empty="for the shelf"
                        problem={fieldProblem(problem, '/customer')}
                    />
                    <Field
                        label="Promised on"
                        type="date"
                        value={d.promisedOn}
                        onChange={(promisedOn) => set({ promisedOn })}
                    />
                </div>
            </div>
        </Panel>
    );
}

const CLASHES: Record<string, string> = { margin: 'It does not hold.', oneOf: 'Nothing fits here.' };

function Conflicts({ order: { spec, d, set } }: { order: Ordering }) {
    const alternatives = spec?.alternatives ?? [];
    return (
        <>
            {spec?.conflicts.map((c, i) => (
                <p key={i} role="alert" className="border-l-4 border-bad bg-sheet px-4 py-2">
                    <Mark kind="bad">{CLASHES[c.rule] ?? 'These clash.'}</Mark> {c.explain}
                </p>
            ))}
            {alternatives.length > 0 && (
                <p className="border-l-4 border-warn bg-sheet px-4 py-2">
                    What would go:{' '}
                    {alternatives.map((a) => (
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
        </>
    );
}
