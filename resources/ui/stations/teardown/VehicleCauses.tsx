import { z } from 'zod';
import { api } from '../../api/client';
import { Mark } from '../../kit/basics';
import { fieldsOf, FormFields, FormProblem, useForm } from '../../kit/form';
import { said } from '../../kit/form/values';
import { moment } from '../../kit/format';
import { More } from '../../kit/More';
import { useKnown, type Known, type Of } from './known';

const naming = z.object({ cause: said('Choose what lies in the vehicle.'), note: z.string() });
const named = fieldsOf<z.input<typeof naming>>();
const settling = z.object({ who: said('Say who did it.'), how: said('Say how, and when.') });
const settled = fieldsOf<z.input<typeof settling>>();

/** What killed the unit and lies in the vehicle: a letter, and a condition of the warranty. */
export function VehicleCauses({
    number: unit,
    can,
    all,
    known,
}: Of & { all: Known['vehicleCauses']; known: Known['knownCauses'] }) {
    const left = known.filter((k) => !all.some((c) => c.cause === k.code));
    return (
        <More
            open={all.some((c) => c.settledAt === null)}
            title={
                <>
                    <span className="flex-1">Causes in the vehicle</span>
                    {all.length > 0 && <Mark kind="warn">{all.length} in the letter</Mark>}
                </>
            }
        >
            {all.map((c) => (
                <div key={c.id} className="border-b border-rule py-1">
                    <strong>{c.name}</strong>{' '}
                    <span className="text-sm text-faint">
                        {c.by}, {moment(c.at)}
                    </span>
                    {c.note && <p className="text-sm">{c.note}</p>}
                    <p>Before the warranty starts: {c.condition}</p>
                    {c.settledAt ? (
                        <Mark kind="good">
                            {c.settledBy}, {moment(c.settledAt)}: {c.settledHow}
                        </Mark>
                    ) : (
                        can('yard.hold') && <Settle unit={unit} id={c.id} />
                    )}
                </div>
            ))}
            {all.length > 0 && <Letter unit={unit} />}
            {can('teardown.work') && left.length > 0 && <NameCause unit={unit} known={left} />}
        </More>
    );
}

function Letter({ unit }: { unit: string }) {
    const at = `/api/units/${unit}/teardown/letter`;
    return (
        <p className="flex flex-wrap gap-3 py-1">
            <a className="btn" href={at} target="_blank" rel="noreferrer">
                Letter to read or print
            </a>
            <a className="btn" href={`${at}.pdf`} target="_blank" rel="noreferrer">
                Letter as PDF
            </a>
        </p>
    );
}

function NameCause({ unit, known }: { unit: string; known: Known['knownCauses'] }) {
    const keep = useKnown(unit);
    const form = useForm({ schema: naming, start: { cause: '', note: '' } });
    const send = form.submit(
        (body) => api.POST('/units/{number}/teardown/vehicle-causes', { params: { path: { number: unit } }, body }),
        (a) => {
            keep(a);
            form.clear();
        },
    );
    return (
        <FormFields of={form}>
            <named.Pick
                name="cause"
                label="What lies in the vehicle"
                empty="nothing so far"
                options={known.map((k) => ({ value: k.code, text: k.name }))}
            />
            <named.Text name="note" label="How it shows on this unit" />
            <FormProblem of={form} />
            <button type="button" className="btn my-1" disabled={form.busy} onClick={send}>
                Name it: it goes into the letter
            </button>
        </FormFields>
    );
}

function Settle({ unit, id }: { unit: string; id: number }) {
    const known = useKnown(unit);
    const form = useForm({ schema: settling, start: { who: '', how: '' } });
    const send = form.submit(
        (body) =>
            api.POST('/units/{number}/teardown/vehicle-causes/{id}/settled', {
                params: { path: { number: unit, id } },
                body,
            }),
        known,
    );
    return (
        <FormFields of={form}>
            <div className="flex flex-wrap gap-3">
                <settled.Text name="who" label="Done by" />
                <settled.Text name="how" label="How, and when" />
            </div>
            <FormProblem of={form} />
            <button type="button" className="btn my-1" disabled={form.busy} onClick={send}>
                It is settled
            </button>
        </FormFields>
    );
}
