import { z } from 'zod';
import { api } from '../../api/client';
import { Mark } from '../../kit/basics';
import { fieldsOf, FormFields, FormProblem, useForm } from '../../kit/form';
import { said } from '../../kit/form/values';
import { moment } from '../../kit/format';
import { More } from '../../kit/More';
import { money, useKnown, type Known, type Of } from './known';

const number = (wrong: string) =>
    z
        .string()
        .regex(/^\d+(\.\d+)?$/, wrong)
        .transform(Number);
const asking = z.object({
    text: said('Say what has to be done.'),
    hours: number('Type hours, with a decimal point.'),
    price: number('Type a price, with a decimal point.'),
});
const asked = fieldsOf<z.input<typeof asking>>();
const answering = z.object({
    answer: z.enum(['approved', 'declined'], 'Say what they answered.'),
    answeredBy: said('Say who of the customer answered.'),
    how: said('Say how: by telephone, in writing, at the counter.'),
});
type Answered = { answer: string | null; answeredBy: string; how: string };
const answered = fieldsOf<Answered>();

/** Work beyond the order: asked, and what the customer said. */
export function ExtraWork({ number: unit, can, all }: Of & { all: Known['extraWork'] }) {
    const open = all.filter((w) => w.answer === null).length;
    return (
        <More
            open={open > 0}
            title={
                <>
                    <span className="flex-1">Work the customer is asked about</span>
                    {open > 0 && <Mark kind="warn">{open} not answered</Mark>}
                </>
            }
        >
            {all.map((w) => (
                <div key={w.id} className="border-b border-rule py-1">
                    <strong>{w.text}</strong>{' '}
                    <span className="num">
                        {w.hours} h, {money(w.price)}
                    </span>{' '}
                    <span className="text-sm text-faint">
                        asked by {w.askedBy}, {moment(w.askedAt)}
                    </span>
                    {w.answer ? (
                        <p>
                            <Mark kind={w.answer === 'approved' ? 'good' : 'bad'}>{w.answer}</Mark> {w.answeredBy},{' '}
                            {w.how}
                        </p>
                    ) : (
                        can('yard.hold') && <Answer unit={unit} id={w.id} />
                    )}
                </div>
            ))}
            {can('teardown.work') && <Ask unit={unit} />}
        </More>
    );
}

function Ask({ unit }: { unit: string }) {
    const known = useKnown(unit);
    const form = useForm({ schema: asking, start: { text: '', hours: '', price: '' } });
    const send = form.submit(
        (body) => api.POST('/units/{number}/teardown/extra-work', { params: { path: { number: unit } }, body }),
        (a) => {
            known(a);
            form.clear();
        },
    );
    return (
        <FormFields of={form}>
            <asked.Text name="text" label="What has to be done beyond the order" />
            <div className="flex gap-3">
                <asked.Text name="hours" label="Hours" inputMode="decimal" />
                <asked.Text name="price" label="Price" inputMode="decimal" />
            </div>
            <FormProblem of={form} />
            <button type="button" className="btn my-1" disabled={form.busy} onClick={send}>
                Ask the customer
            </button>
        </FormFields>
    );
}

function Answer({ unit, id }: { unit: string; id: number }) {
    const known = useKnown(unit);
    const form = useForm<Answered, z.output<typeof answering>>({
        // An enum reads one of its words; nothing is chosen yet when the form opens, which it refuses by its sentence.
        schema: answering as unknown as z.ZodType<z.output<typeof answering>, Answered>,
        start: { answer: null, answeredBy: '', how: '' },
    });
    const send = form.submit(
        (body) =>
            api.POST('/units/{number}/teardown/extra-work/{id}/answer', {
                params: { path: { number: unit, id } },
                body,
            }),
        known,
    );
    return (
        <FormFields of={form}>
            <answered.Buttons name="answer" label="They said" values={['approved', 'declined']} />
            <div className="flex flex-wrap gap-3">
                <answered.Text name="answeredBy" label="Who answered" />
                <answered.Text name="how" label="How" />
            </div>
            <FormProblem of={form} />
            <button type="button" className="btn my-1" disabled={form.busy} onClick={send}>
                Write the answer down
            </button>
        </FormFields>
    );
}
