import { useQuery } from '@tanstack/react-query';
import { answer, api, type Schemas } from '../../api/client';
import type { SectionProps } from '../../card/section';
import { Mark, Panel } from '../../kit/basics';
import { formatMoney } from '../../kit/format';
import { Desk } from './Desk';
import { Drive } from './Drive';
import { Margins } from './Margins';
import { Bom, Work } from './SpecLists';

/** Order, package, wishes; rules answer with a sentence each; release freezes it and gives the serial. */
export function Order(props: SectionProps<'ordering'>) {
    const order = props.section.order;
    return props.card.station === 'ordering' && props.can('ordering.specify') ? (
        <Desk {...props} />
    ) : order ? (
        <Frozen {...props} spec={order.spec} order={order} />
    ) : (
        <Panel title="Specification">
            <p className="text-faint">No order is written yet.</p>
        </Panel>
    );
}

/** Reckoned anew against the catalog of today, so it comes after the page. */
function Today({ card }: Pick<SectionProps<'ordering'>, 'card'>) {
    const number = card.coreTag;
    const { data } = useQuery({
        queryKey: ['difference', number, card.version],
        queryFn: () => answer(api.GET('/units/{number}/ordering/difference', { params: { path: { number } } })),
    });
    if (!data?.differs.length) return null;
    return (
        <div className="my-2 border-l-4 border-warn pl-3">
            <Mark kind="warn">Differs from today's catalog</Mark>
            <ul className="text-sm">
                {data.differs.map((x) => (
                    <li key={x}>{x}</li>
                ))}
            </ul>
            <p className="text-sm text-faint">The frozen specification stays as it is.</p>
        </div>
    );
}

type Written = NonNullable<SectionProps<'ordering'>['section']['order']>;

type FrozenProps = SectionProps<'ordering'> & { spec: Schemas['Spec']; order: Written };

function Frozen({ card, section, spec, order }: FrozenProps) {
    return (
        <div className="grid items-start gap-3 lg:grid-cols-2">
            <Specified card={card} spec={spec} order={order} />
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
            <Ratios ratios={section.ratios} />
        </div>
    );
}

function Specified({ card, spec, order }: Pick<FrozenProps, 'card' | 'spec' | 'order'>) {
    return (
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
            {order.serial && <Today card={card} />}
            {order.parentSerial && (
                <p>
                    Second build of <strong>{order.parentSerial}</strong>
                </p>
            )}
            <Reasons spec={spec} />
        </Panel>
    );
}

/** What goes in and why, and what was left out and why. */
function Reasons({ spec }: { spec: Schemas['Spec'] }) {
    return (
        <>
            <ul className="mt-2">
                {spec.options.map((o) => (
                    <li key={o.code}>
                        <strong>{o.name}</strong>{' '}
                        <span className="text-sm">{spec.added.find((a) => a.option === o.code)?.because ?? o.why}</span>
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
        </>
    );
}

function Ratios({ ratios }: { ratios: SectionProps<'ordering'>['section']['ratios'] }) {
    return (
        <Panel title="Ratios" aside="from the teeth and the apply chart">
            <table className="w-full">
                <tbody>
                    {ratios.map((r) => (
                        <tr key={r.gear}>
                            <th scope="row" className="td text-left">
                                {r.gear}
                            </th>
                            <td className="td font-head text-2xl num">{r.ratio === null ? '–' : r.ratio.toFixed(3)}</td>
                            <td className="td">{r.applied.join(' ')}</td>
                        </tr>
                    ))}
                </tbody>
            </table>
        </Panel>
    );
}
