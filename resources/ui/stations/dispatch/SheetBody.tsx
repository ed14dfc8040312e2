import type { Schemas } from '../../api/client';
import { formatValue } from '../../kit/format';
import { Mark } from '../../kit/basics';

/** What the customer gets on paper. */
export function SheetBody({ sheet: s }: { sheet: Schemas['DeliverySheet'] }) {
    const c = s.converterDepth;
    return (
        <div className="flex flex-col gap-3">
            <div>
                <p className="font-head text-3xl num">{s.serial}</p>
                <p>
                    {s.variant} · {s.package}
                    {s.generation > 1 && ` · build ${s.generation}`}
                    {s.customer && ` · for ${s.customer}`}
                    {s.shippedOn && ` · ${s.shippedOn}`}
                </p>
                <p>
                    <strong>Fluid:</strong> {s.fluid.litres} L {s.fluid.name}
                </p>
            </div>
            <div>
                <h3 className="text-lg">What was done</h3>
                <p>{s.options.join(' · ')}</p>
                {s.operations.length > 0 && (
                    <ul className="list-disc pl-5">
                        {s.operations.map((o) => (
                            <li key={o}>{o}</li>
                        ))}
                    </ul>
                )}
                {s.checks.length > 0 && (
                    <p>
                        <strong>Checked for this order:</strong> {s.checks.join(' ')}
                    </p>
                )}
                {s.surprises.length > 0 && (
                    <p>
                        <strong>Meant to be so:</strong> {s.surprises.join(' ')}
                    </p>
                )}
            </div>
            <div>
                <h3 className="text-lg">What was measured</h3>
                <table className="w-full">
                    <tbody>
                        {s.numbers.map((n) => (
                            <tr key={n.kind + n.code}>
                                <td className="td">{n.name}</td>
                                <td className="td num text-right">
                                    <strong>
                                        {formatValue(n.value, n.unit)} {n.unit}
                                    </strong>
                                </td>
                                <td className="td num text-sm">
                                    {n.min !== null &&
                                        n.max !== null &&
                                        `${formatValue(n.min, n.unit)} to ${formatValue(n.max, n.unit)}`}
                                </td>
                                <td className="td text-sm">{n.by}</td>
                            </tr>
                        ))}
                    </tbody>
                </table>
                <p className="mt-1">
                    {s.notDynoTested || !s.dyno ? (
                        <Mark kind="warn">NOT DYNO-TESTED</Mark>
                    ) : (
                        <Mark kind="good">
                            Dyno: {s.dyno.verdict}, {s.dyno.checks.filter((x) => x.pass).length} of{' '}
                            {s.dyno.checks.length} checks inside, {s.dyno.by}, {s.dyno.on}
                            {s.dyno.reason && `: ${s.dyno.reason}`}
                        </Mark>
                    )}
                    {s.dyno?.traceSha256 && (
                        <span className="block text-sm text-faint">
                            Recording {s.dyno.traceSha256.slice(0, 16)}… (SHA-256, in the ledger)
                        </span>
                    )}
                </p>
            </div>
            <div className="border-2 border-hand px-3 py-2">
                <h3 className="text-lg">Converter: the reading that decides</h3>
                <p>
                    {c.prefill_l > 0 ? `Pour in ${c.prefill_l} L` : 'Fit it dry and top up in steps'}, push and turn
                    until it has clicked {c.clicks.length} times ({c.clicks.join(', ')}). Measure from the bell face
                    down to the converter lugs, and from the engine face to the flex-plate.
                </p>
                <p className="num">
                    With the flex-plate at {c.flexplateDepth} {c.unit} the converter must read{' '}
                    <strong className="font-head text-2xl">
                        {c.readAtLeast} to {c.readAtMost} {c.unit}
                    </strong>
                    , so that it is pulled forward {c.minPull} to {c.maxPull} {c.unit}. Less: not seated, it would crush
                    the pump. More: the pump drive is short of engagement.
                </p>
            </div>
            <div>
                <h3 className="text-lg">Fitting, on which the warranty depends</h3>
                <ul className="list-disc pl-5">
                    {s.fitting.map((f) => (
                        <li key={f}>{f}</li>
                    ))}
                </ul>
            </div>
        </div>
    );
}
