import { Link } from 'react-router';
import { z } from 'zod';

import { api } from '../../api/client';
import { useSession } from '../../api/session';
import { Bench } from '../../bench/Bench';
import { isFinished } from '../../bench/types';
import { CUSTOMERS } from '../../work/customers';
import { moment } from '../../kit/format';
import { Mark, Panel } from '../../kit/basics';
import { fieldsOf, FormFields, FormProblem, useForm } from '../../kit/form';
import { maybe } from '../../kit/form/values';
import type { SectionProps } from '../../card/section';
import { SheetBody } from './SheetBody';

/** What leaves the house: the last work on it, the ship gate, the papers, and what the installer reports back. */
export function ShipView(props: SectionProps<'dispatch'>) {
    const { card, onCard, can, section: d } = props;
    const { person } = useSession();
    const here = card.station === 'dispatch' && !d.shipped;
    const bench = here && (
        <Bench
            bench="dispatch"
            material={{}}
            editable={can('dispatch.ship')}
            me={person?.name ?? null}
            badge={person?.badge ?? null}
            {...{ card, onCard }}
        />
    );
    const packed = isFinished(d.work);
    return (
        <div className="flex flex-col gap-3">
            {!packed && bench}
            <Papers {...props} />
            {packed && bench}
        </div>
    );
}

function Papers(props: SectionProps<'dispatch'>) {
    const { card, can, section: d } = props;
    return (
        <div className="grid items-start gap-3 lg:grid-cols-[1.6fr_1fr]">
            <Panel
                title="Delivery sheet"
                aside={
                    <Link className="underline" to={`/units/${card.coreTag}/dispatch/sheet`}>
                        open to print
                    </Link>
                }
            >
                <SheetBody sheet={d.sheet} />
            </Panel>
            <div className="flex flex-col gap-3">
                {d.shipped ? (
                    <Panel title="Shipped">
                        <p className="text-lg">
                            to <strong>{d.shipped.customer}</strong> by {d.shipped.carrier || 'own transport'}
                        </p>
                        <p>
                            {d.shipped.by}, {moment(d.shipped.at)}
                        </p>
                        <p>
                            Warranty until {d.shipped.warrantyUntil} or {d.shipped.warrantyKm} km
                        </p>
                    </Panel>
                ) : card.station === 'dispatch' && can('dispatch.ship') ? (
                    <Ship {...props} />
                ) : null}
                {d.commissioning ? (
                    <Commissioned report={d.commissioning} items={d.commissioningItems} />
                ) : (
                    d.shipped && can('returns.handle') && <Commission {...props} />
                )}
            </div>
        </div>
    );
}

type Dispatch = SectionProps<'dispatch'>['section'];

/** What the installer reported, item by item. */
function Commissioned({
    report,
    items,
}: {
    report: NonNullable<Dispatch['commissioning']>;
    items: Dispatch['commissioningItems'];
}) {
    const done = report.items as string[];
    return (
        <Panel title="Commissioned">
            <p>
                {report.installedOn} at {report.odometerKm} km by {report.installer}
            </p>
            <ul>
                {Object.entries(items).map(([k, name]) => (
                    <li key={k}>
                        <Mark kind={done.includes(k) ? 'good' : 'warn'}>
                            {name}
                            {done.includes(k) ? '' : ': not on file'}
                        </Mark>
                    </li>
                ))}
            </ul>
            <p>{String((report.depth as { message?: string }).message ?? '')}</p>
        </Panel>
    );
}

const shipment = z.object({ customer: maybe, carrier: z.string() });
const shipping = fieldsOf<z.input<typeof shipment>>();

function Ship({ section, card, onCard }: SectionProps<'dispatch'>) {
    const form = useForm({
        schema: shipment,
        start: { customer: card.customer?.code ?? '', carrier: '' },
    });
    const ship = form.submit(
        (body) => api.POST('/units/{number}/dispatch/shipment', { params: { path: { number: card.coreTag } }, body }),
        onCard,
    );
    return (
        <Panel title="Ship it">
            <FormFields of={form}>
                <shipping.Find name="customer" label="To" empty="as ordered" {...CUSTOMERS} />
                <shipping.Text name="carrier" label="Carrier" />
                {section.blockers.length > 0 && (
                    <ul className="list-disc pl-5 text-sm" aria-label="Still open">
                        {section.blockers.map((b) => (
                            <li key={b.code}>{b.sentence}</li>
                        ))}
                    </ul>
                )}
                <FormProblem of={form} />
                <button type="button" className="btn btn-main mt-2" disabled={form.busy} onClick={ship}>
                    Papers complete: ship it
                </button>
            </FormFields>
        </Panel>
    );
}

const report = z.object({
    installedOn: z.string(),
    odometer: z.string(),
    installer: z.string(),
    items: z.array(z.string()),
    converterDepth: z.string(),
    flexplateDepth: z.string(),
});
const reporting = fieldsOf<z.input<typeof report>>();

function Commission({ section, card, onCard }: SectionProps<'dispatch'>) {
    const form = useForm({
        schema: report,
        start: {
            installedOn: '',
            odometer: '',
            installer: '',
            items: [] as string[],
            converterDepth: '',
            flexplateDepth: '',
        },
    });
    const file = form.submit(
        (body) =>
            api.POST('/units/{number}/dispatch/commissioning', { params: { path: { number: card.coreTag } }, body }),
        onCard,
    );
    return (
        <Panel title="Commissioning" aside="the warranty starts with it">
            <FormFields of={form}>
                <div className="flex flex-col gap-2">
                    <reporting.Text name="installedOn" label="Fitted on" type="date" />
                    <reporting.Text name="odometer" label="Odometer" />
                    <reporting.Text name="installer" label="Fitted by" />
                    <reporting.Text name="converterDepth" label="Bell face to converter lugs" />
                    <reporting.Text name="flexplateDepth" label="Engine face to flex-plate" />
                    <reporting.Checks
                        name="items"
                        values={Object.entries(section.commissioningItems).map(([value, text]) => ({ value, text }))}
                    />
                    <FormProblem of={form} />
                    <button type="button" className="btn" disabled={form.busy} onClick={file}>
                        Put on file
                    </button>
                </div>
            </FormFields>
        </Panel>
    );
}
