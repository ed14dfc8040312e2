import { formatMoney } from '../../kit/format';

type Line = { kind: string; label: string; quantity: number; unitPrice: number; amount: number };

/** The credit line by line, as the customer sees it. */
export function CreditLines({ lines }: { lines: Line[] }) {
    return (
        <table className="w-full text-sm">
            <tbody>
                {lines.map((l, i) => (
                    <tr key={i}>
                        <td className="td">
                            {l.label}
                            {l.quantity !== 1 && ` × ${l.quantity}`}
                        </td>
                        <td className="td num text-right">
                            {l.amount < 0 ? '−' : ''}
                            {formatMoney(Math.abs(l.amount))}
                        </td>
                    </tr>
                ))}
            </tbody>
        </table>
    );
}
