import { z } from 'zod';
import { api } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { Mark, ProblemNote } from '../../kit/basics';
import { fieldsOf, FormFields, FormProblem, useForm } from '../../kit/form';
import { said } from '../../kit/form/values';
import { moment } from '../../kit/format';
import { More } from '../../kit/More';
import { useKnown, type Known, type Of } from './known';

const lending = z.object({
    name: said('Say which part it is.'),
    origin: said('Say which unit or shelf it belongs to.'),
    reason: said('Say what it is aboard for.'),
});
const lent = fieldsOf<z.input<typeof lending>>();
type Loan = Known['loans'][number];

/** Parts of a donor that must be out again before the unit ships. */
export function Loans({ number: unit, can, all }: Of & { all: Loan[] }) {
    const aboard = all.filter((p) => p.outAt === null);
    return (
        <More
            open={aboard.length > 0}
            title={
                <>
                    <span className="flex-1">Parts on loan that must not ship</span>
                    {aboard.length > 0 && <Mark kind="bad">{aboard.length} aboard</Mark>}
                </>
            }
        >
            {all.map((p) => (
                <OneLoan key={p.id} unit={unit} loan={p} can={can('yard.hold')} />
            ))}
            {can('yard.hold') && <Lend unit={unit} />}
        </More>
    );
}

function OneLoan({ unit, loan: p, can }: { unit: string; loan: Loan; can: boolean }) {
    const known = useKnown(unit);
    const { busy, problem, write } = useWrite();
    const out = () =>
        write(
            () =>
                api.POST('/units/{number}/teardown/loans/{id}/out', {
                    params: { path: { number: unit, id: p.id } },
                }),
            known,
        );
    return (
        <div className="flex flex-wrap items-center gap-3 border-b border-rule py-1">
            <span className="flex-1">
                <strong>{p.name}</strong> of {p.origin}: {p.reason}{' '}
                <span className="text-sm text-faint">
                    {p.by}, {moment(p.at)}
                </span>
            </span>
            {p.outAt && (
                <Mark kind="good">
                    out: {p.outBy}, {moment(p.outAt)}
                </Mark>
            )}
            {!p.outAt && can && (
                <button type="button" className="btn" disabled={busy} onClick={() => void out()}>
                    It is out again
                </button>
            )}
            <ProblemNote problem={problem} />
        </div>
    );
}

function Lend({ unit }: { unit: string }) {
    const known = useKnown(unit);
    const form = useForm({ schema: lending, start: { name: '', origin: '', reason: '' } });
    const send = form.submit(
        (body) => api.POST('/units/{number}/teardown/loans', { params: { path: { number: unit } }, body }),
        (a) => {
            known(a);
            form.clear();
        },
    );
    return (
        <FormFields of={form}>
            <lent.Text name="name" label="Part put in" />
            <div className="flex flex-wrap gap-3">
                <lent.Text name="origin" label="It belongs to" />
                <lent.Text name="reason" label="Aboard for" />
            </div>
            <FormProblem of={form} />
            <button type="button" className="btn my-1" disabled={form.busy} onClick={send}>
                It is aboard: flag it
            </button>
        </FormFields>
    );
}
