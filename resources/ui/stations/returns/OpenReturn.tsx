import { z } from 'zod';
import { api } from '../../api/client';
import type { CardProps } from '../../card/section';
import { Panel } from '../../kit/basics';
import { fieldsOf, FormFields, FormProblem, useForm } from '../../kit/form';
import { maybe, said, words } from '../../kit/form/values';

const schema = z.object({
    complaint: said("Write down the complaint, in the owner's words."),
    codes: words,
    installedOn: maybe,
    failedOn: said('Say when it failed.'),
    odometer: z.string(),
});
const { Text, Area } = fieldsOf<z.input<typeof schema>>();

/** A unit that is with the customer comes back. */
export function OpenReturn({ card, onCard, can }: CardProps) {
    const form = useForm({
        schema,
        start: {
            complaint: '',
            codes: '',
            installedOn: card.dispatch?.commissioning?.installedOn ?? '',
            failedOn: new Date().toISOString().slice(0, 10),
            odometer: '',
        },
    });
    if (!can('returns.handle')) return null;
    const open = form.submit(
        (typed) => api.POST('/returns', { body: { serial: card.serial ?? '', ...typed } }),
        onCard,
    );
    return (
        <Panel title={`${card.serial} comes back`} aside="first question: is it the unit or the car">
            <FormFields of={form}>
                <div className="grid gap-3 sm:grid-cols-2">
                    <Area name="complaint" label="Complaint, in the owner's words" />
                    <Text name="codes" label="Stored codes" />
                    <Text name="installedOn" label="Fitted on" type="date" />
                    <Text name="failedOn" label="Failed on" type="date" />
                    <Text name="odometer" label="Odometer" />
                </div>
                <FormProblem of={form} />
                <button type="button" className="btn btn-main mt-2" disabled={form.busy} onClick={open}>
                    Open a return
                </button>
            </FormFields>
        </Panel>
    );
}
