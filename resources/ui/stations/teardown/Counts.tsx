import { z } from 'zod';
import { api } from '../../api/client';
import type { SectionProps } from '../../card/section';
import { Mark, Panel } from '../../kit/basics';
import { fieldsOf, FormFields, FormProblem, useForm } from '../../kit/form';

type Props = SectionProps<'teardown'> & { editable: boolean };
type Difference = Props['section']['discrepancies'][number];

/** Counts that differ: each by its name, with what it does to a unit, open until somebody says what became of it. */
export function Counts(props: Props) {
    const all = props.section.discrepancies;
    if (all.length === 0) return null;
    const open = all.filter((d) => d.decision === null).length;
    return (
        <Panel title="Counts that differ" aside={open > 0 ? `${open} open` : 'all decided'}>
            <ul className="flex flex-col gap-3">
                {all.map((d) => (
                    <One key={d.id} d={d} {...props} />
                ))}
            </ul>
        </Panel>
    );
}

function One({ d, section, card, onCard, editable }: Props & { d: Difference }) {
    const decided = section.decisions.find((o) => o.code === d.decision);
    return (
        <li className="border-b border-rule pb-2">
            <Mark kind={decided ? 'good' : 'bad'}>{d.said}</Mark>
            <p className="text-sm">
                {d.by}: {d.note}
            </p>
            {d.means && <p>{d.means}</p>}
            {decided ? (
                <p>
                    {decided.name}, {d.decidedBy}. {d.decisionNote}
                </p>
            ) : (
                editable && <Decide {...{ d, section, card, onCard }} />
            )}
        </li>
    );
}

const deciding = z.object({
    decision: z.enum(['found', 'came-so', 'ours'], 'Say what became of it.'),
    note: z.string(),
});
type Typed = { decision: string | null; note: string };
const fields = fieldsOf<Typed>();

function Decide({ d, section, card, onCard }: Pick<Props, 'section' | 'card' | 'onCard'> & { d: Difference }) {
    const form = useForm<Typed, z.output<typeof deciding>>({
        // An enum reads one of its words; nothing is chosen yet when the form opens, which it refuses by its sentence.
        schema: deciding as unknown as z.ZodType<z.output<typeof deciding>, Typed>,
        start: { decision: null, note: '' },
    });
    const send = form.submit(
        (body) =>
            api.POST('/units/{number}/teardown/discrepancies/{discrepancy}', {
                params: { path: { number: card.coreTag, discrepancy: d.id } },
                body,
            }),
        onCard,
    );
    return (
        <FormFields of={form}>
            <fields.Buttons
                name="decision"
                label="What became of it"
                values={section.decisions.map((o) => o.code)}
                text={(code) => section.decisions.find((o) => o.code === code)?.name ?? code}
            />
            <fields.Text name="note" label="How that is known" />
            <FormProblem of={form} />
            <button type="button" className="btn mt-1" disabled={form.busy} onClick={send}>
                Decide it
            </button>
        </FormFields>
    );
}
