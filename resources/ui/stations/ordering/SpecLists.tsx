import type { Schemas } from '../../api/client';
import { Mark, Panel } from '../../kit/basics';
import { formatMoney } from '../../kit/format';

/** What an option adds to price and hours. */
export function Delta({ price, hours }: { price: number; hours: number }) {
    return (
        <span className="text-right num">
            {price > 0 ? formatMoney(price) : '–'}
            {hours > 0 && <span className="block text-sm text-faint">{hours} h</span>}
        </span>
    );
}

/** Work and checks the options bring; at the bench each is a step of its own. */
export function Work({ spec }: { spec: Schemas['Spec'] }) {
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

export function Bom({ spec }: { spec: Schemas['Spec'] }) {
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
