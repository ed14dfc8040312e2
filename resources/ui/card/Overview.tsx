import { formatMoney, formatValue, moment, percent, STATIONS } from '../kit/format';
import { Barcode } from '../kit/Barcode';
import { Mark, Panel } from '../kit/basics';
import { GaugeBar } from '../kit/GaugeBar';
import type { SectionProps } from './UnitCard';

/** The whole route card at a glance; it prints as the paper traveller. */
export function Overview({ card }: SectionProps) {
    const order = card.build?.order;
    const decision = card.identity?.decisions.at(-1);
    const causes = card.teardown?.inspection.filter((i) => i.finding?.role === 'cause') ?? [];
    const readings = (card.assembly?.places ?? []).filter((p) => p.readings.length > 0);
    const run = card.dyno?.runs[0];
    const top = card.identity?.ranking[0];
    return (
        <div className="grid gap-3 lg:grid-cols-2">
            <Panel title="Received" aside={`${card.intake!.receivedBy}, ${moment(card.intake!.receivedAt)}`}>
                <p className="text-lg">“{card.intake!.complaint || 'no complaint given'}”</p>
                <p>
                    {card.vehicle}
                    {card.intake!.vin && (
                        <>
                            {' '}
                            · VIN <span className="num">{card.intake!.vin}</span>
                        </>
                    )}
                    {card.intake!.odometer && ` · ${card.intake!.odometer}`}
                </p>
                {card.intake!.codes.length > 0 && <p>Codes {card.intake!.codes.join(', ')}</p>}
                <ul className="mt-1 text-sm">
                    {card
                        .intake!.clues.filter((c) => c.means)
                        .map((c) => (
                            <li key={c.id}>
                                {c.name}: <strong>{c.value}</strong> – {c.means}
                            </li>
                        ))}
                </ul>
                <p className="mt-2">
                    <strong className="font-head text-2xl">Grade {card.grade}</strong>, credit{' '}
                    <strong className="num">{formatMoney(card.credit)}</strong>
                </p>
            </Panel>
            {card.identity && (
                <Panel title="Identified" aside={decision ? `${decision.by}, ${moment(decision.at)}` : 'open'}>
                    {decision ? (
                        <>
                            <p className="text-lg">
                                {decision.outcome === 'confirmed' ? (
                                    <>
                                        <strong>{decision.variant}</strong> at {percent(decision.posterior ?? 0, 1)}
                                    </>
                                ) : (
                                    'marked unknown'
                                )}
                            </p>
                            {decision.foreignParts.length > 0 && (
                                <p>
                                    <Mark kind="warn">mixed</Mark> {decision.foreignParts.map((p) => p.part).join(', ')}
                                </p>
                            )}
                            {decision.note && <p>{decision.note}</p>}
                        </>
                    ) : (
                        <p>
                            So far{' '}
                            {top ? (
                                <>
                                    most likely <strong>{top.variant}</strong> at {percent(top.posterior)}
                                </>
                            ) : (
                                'nothing known'
                            )}
                            .
                        </p>
                    )}
                </Panel>
            )}
            {order && (
                <Panel title="Build" aside={order.releasedAt ? `released ${moment(order.releasedAt)}` : 'draft'}>
                    <p className="text-lg">
                        <strong>{order.spec.package.name}</strong> for {order.customer ?? 'the shelf'}
                        {order.vehicle && `, ${order.vehicle.name}`}
                    </p>
                    <p className="num">
                        {formatMoney(order.price)} · {order.hours} h · {order.spec.fluid.litres} L{' '}
                        {order.spec.fluid.name}
                        {order.parentSerial && ` · rebuilt from ${order.parentSerial}`}
                    </p>
                    <p className="text-sm">{order.spec.options.map((o) => o.name).join(' · ')}</p>
                </Panel>
            )}
            {card.teardown && card.teardown.inspection.some((i) => i.finding) && (
                <Panel
                    title="Teardown"
                    aside={`${card.teardown.steps.filter((s) => s.state === 'done').length} of ${card.teardown.steps.length} steps`}
                >
                    {causes.length > 0 ? (
                        <p>
                            Cause:{' '}
                            {causes.map((c) => (
                                <strong key={c.part} className="mr-2">
                                    {c.name}, {c.finding?.condition}
                                </strong>
                            ))}
                        </p>
                    ) : (
                        <p>No cause marked.</p>
                    )}
                    {card.teardown.suspects[0] && (
                        <p className="text-sm">
                            From chart and symptoms: {card.teardown.suspects[0].element} at{' '}
                            {percent(card.teardown.suspects[0].posterior)}. {card.teardown.suspects[0].because}
                        </p>
                    )}
                </Panel>
            )}
            {readings.length > 0 && (
                <Panel
                    title="Measured"
                    aside={
                        card.assembly?.signOffs.at(-1) ? `signed by ${card.assembly.signOffs.at(-1)!.by}` : 'not signed'
                    }
                >
                    <ul className="grid gap-2 sm:grid-cols-2">
                        {readings
                            .filter((p) => p.kind !== 'air-check')
                            .map((p) => {
                                const r = p.readings.at(-1)!;
                                return (
                                    <li key={p.kind + p.code}>
                                        <span className="block text-sm text-faint">{p.name}</span>
                                        <span className="font-head text-3xl num">
                                            {formatValue(r.value, r.unit)} {r.unit}
                                        </span>
                                        <GaugeBar
                                            label={p.name}
                                            unit={p.unit}
                                            min={p.window.min}
                                            max={p.window.max}
                                            target={p.target}
                                            reading={r.value}
                                        />
                                    </li>
                                );
                            })}
                    </ul>
                    <p className="text-sm">
                        Air checks:{' '}
                        {readings
                            .filter((p) => p.kind === 'air-check')
                            .map((p) => `${p.code} ${p.readings.at(-1)!.typed}`)
                            .join(', ') || 'none yet'}
                    </p>
                </Panel>
            )}
            {run && (
                <Panel title="Dyno" aside={run.verdictBy ? `${run.verdictBy}, ${moment(run.verdictAt!)}` : run.state}>
                    <p className="text-lg">
                        {run.verdict ? (
                            <Mark kind={run.verdict === 'pass' ? 'good' : run.verdict === 'fail' ? 'bad' : 'warn'}>
                                {run.verdict}
                            </Mark>
                        ) : (
                            'not judged'
                        )}{' '}
                        {run.reason}
                    </p>
                    <p className="text-sm">
                        {run.checks.filter((c) => c.pass).length} of {run.checks.length} checks inside their limits,
                        loop {run.loop}
                    </p>
                </Panel>
            )}
            {card.dispatch?.shipped && (
                <Panel title="Shipped" aside={`${card.dispatch.shipped.by}, ${moment(card.dispatch.shipped.at)}`}>
                    <p className="text-lg">
                        to <strong>{card.dispatch.shipped.customer}</strong>, warranty until{' '}
                        {card.dispatch.shipped.warrantyUntil} or {card.dispatch.shipped.warrantyKm} km
                    </p>
                    <p>
                        {card.dispatch.commissioning
                            ? `Fitted ${card.dispatch.commissioning.installedOn} by ${card.dispatch.commissioning.installer}`
                            : 'Commissioning not on file yet.'}
                    </p>
                </Panel>
            )}
            {card.returns?.cases.map((r) => (
                <Panel
                    key={r.number}
                    title={`Return ${r.number}`}
                    aside={r.verdictBy ? `${r.verdictBy}, ${moment(r.verdictAt!)}` : 'open'}
                >
                    <p className="text-lg">“{r.complaint}”</p>
                    <p>
                        {r.serial}, {r.daysInService} days in service
                    </p>
                    {r.verdict ? (
                        <p>
                            Verdict:{' '}
                            <strong>{r.ranking?.find((v) => v.verdict === r.verdict)?.name ?? r.verdict}</strong>.{' '}
                            {r.note}
                        </p>
                    ) : (
                        <p>
                            Evidence so far: {r.ranking?.[0]?.name} at {percent(r.ranking?.[0]?.posterior ?? 0)}
                        </p>
                    )}
                </Panel>
            ))}
            <div className="hidden print:block">
                <Barcode text={card.serial ?? card.coreTag} />
                <p>{STATIONS[card.station]}</p>
            </div>
        </div>
    );
}
