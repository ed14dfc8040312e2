import { Panel } from '../../kit/basics';
import { formatMoney, moment } from '../../kit/format';
import type { SectionProps } from '../../card/section';

/** What is built for whom. */
export function OrderingSummary({ section }: SectionProps<'ordering'>) {
    const order = section.order;
    if (!order) return null;
    return (
        <Panel title="Build" aside={order.releasedAt ? `released ${moment(order.releasedAt)}` : 'draft'}>
            <p className="text-lg">
                <strong>{order.spec.package.name}</strong> for {order.customer ?? 'the shelf'}
                {order.vehicle && `, ${order.vehicle.name}`}
            </p>
            <p className="num">
                {formatMoney(order.price)} · {order.hours} h · {order.spec.fluid.litres} L {order.spec.fluid.name}
                {order.parentSerial && ` · rebuilt from ${order.parentSerial}`}
            </p>
            <p className="text-sm">{order.spec.options.map((o) => o.name).join(' · ')}</p>
        </Panel>
    );
}
