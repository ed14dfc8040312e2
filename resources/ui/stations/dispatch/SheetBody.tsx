import type { Schemas } from '../../api/client';
import { formatValue } from '../../kit/format';
import { Mark } from '../../kit/basics';
import { HeldConverter } from '../../work/HeldConverter';

type Sheet = Schemas['DeliverySheet'];

/** What the customer gets on paper. */
export function SheetBody({ sheet: s }: { sheet: Sheet }) {
    return (
        <div className="flex flex-col gap-3">
            <div>
                <p className="font-head text-3xl num">{s.serial}</p>
                <p>{whatItIs(s)}</p>
                <p>
                    <strong>Fluid:</strong> {s.fluid.litres} L {s.fluid.name}
                </p>
            </div>
            <Done sheet={s} />
            <Measured sheet={s} />
            <Converter depth={s.converterDepth} />
            {s.held && <HeldConverter held={s.held} />}
            <div>
                <h3 className="text-lg">Fitting, on which the warranty depends</h3>
                <Items of={s.fitting} />
                {s.conditions && s.conditions.length > 0 && (
                    <>
                        <h3 className="text-lg">In the vehicle, before the warranty starts</h3>
                        <Items
                            of={s.conditions.map((c) =>
                                [`${c.name}: ${c.condition}`, c.settled && `Done: ${c.settled}.`]
                                    .filter(Boolean)
                                    .join(' '),
                            )}
                        />
                    </>
                )}
            </div>
        </div>
    );
}

const whatItIs = ({ variant, package: bought, generation, customer, shippedOn }: Sheet) =>
    [variant, bought, generation > 1 && `build ${generation}`, customer && `for ${customer}`, shippedOn]
        .filter(Boolean)
        .join(' · ');

const Items = ({ of }: { of: string[] }) => (
    <ul className="list-disc pl-5">
        {of.map((item) => (
            <li key={item}>{item}</li>
        ))}
    </ul>
);

function Done({ sheet: s }: { sheet: Sheet }) {
    return (
        <div>
            <h3 className="text-lg">What was done</h3>
            <p>{s.options.join(' · ')}</p>
            {s.operations.length > 0 && <Items of={s.operations} />}
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
    );
}

const windowSaid = ({ min, max, unit }: Sheet['numbers'][number]) =>
    min !== null && max !== null && `${formatValue(min, unit)} to ${formatValue(max, unit)}`;

function Measured({ sheet: s }: { sheet: Sheet }) {
    return (
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
                            <td className="td num text-sm">{windowSaid(n)}</td>
                            <td className="td text-sm">{n.by}</td>
                        </tr>
                    ))}
                </tbody>
            </table>
            <Dyno dyno={s.notDynoTested ? null : s.dyno} />
            {s.roadTest && (
                <p className="text-sm">
                    Tested by its pressures ({s.roadTest.pressures.map((p) => `${p.gear} ${p.typed}`).join(', ')}) and
                    driven, {s.roadTest.by}, {s.roadTest.on}: {s.roadTest.why}
                </p>
            )}
        </div>
    );
}

function Dyno({ dyno }: { dyno: Sheet['dyno'] }) {
    if (!dyno)
        return (
            <p className="mt-1">
                <Mark kind="warn">NOT DYNO-TESTED</Mark>
            </p>
        );
    const inside = dyno.checks.filter((x) => x.pass).length;
    return (
        <p className="mt-1">
            <Mark kind="good">
                Dyno: {dyno.verdict}, {inside} of {dyno.checks.length} checks inside, {dyno.by}, {dyno.on}
                {dyno.reason && `: ${dyno.reason}`}
            </Mark>
            {dyno.traceSha256 && (
                <span className="block text-sm text-faint">
                    Recording {dyno.traceSha256.slice(0, 16)}… (SHA-256, in the ledger)
                </span>
            )}
        </p>
    );
}

function Converter({ depth: c }: { depth: Sheet['converterDepth'] }) {
    return (
        <div className="border-2 border-hand px-3 py-2">
            <h3 className="text-lg">Converter: the reading that decides</h3>
            <p>
                {c.prefill_l > 0 ? `Pour in ${c.prefill_l} L` : 'Fit it dry and top up in steps'}, push and turn until
                it has clicked {c.clicks.length} times ({c.clicks.join(', ')}). Measure from the bell face down to the
                converter lugs, and from the engine face to the flex-plate.
            </p>
            <p className="num">
                With the flex-plate at {c.flexplateDepth} {c.unit} the converter must read{' '}
                <strong className="font-head text-2xl">
                    {c.readAtLeast} to {c.readAtMost} {c.unit}
                </strong>
                , so that it is pulled forward {c.minPull} to {c.maxPull} {c.unit}. Less: not seated, it would crush the
                pump. More: the pump drive is short of engagement.
            </p>
        </div>
    );
}
