import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { z } from 'zod';
import { answer, api } from '../../api/client';
import { CUSTOMERS } from '../../work/customers';
import { Choice, Mark, Panel, Toggle } from '../../kit/basics';
import { Fetched } from '../../kit/Fetched';
import { formatMoney } from '../../kit/format';
import { fieldsOf, FormFields, FormProblem, useForm, type WritingForm } from '../../kit/form';
import { maybe } from '../../kit/form/values';
import { More } from '../../kit/More';
import type { Form } from './draft';

const pallet = z.object({
    coreTag: z.string().transform((typed) => typed.trim().toUpperCase()),
    tagCode: z.string(),
    pallet: z.string(),
    customer: maybe,
    family: maybe,
    rack: z.string(),
    complaint: z.string(),
    clues: z.record(z.string(), z.string()),
    missing: z.array(z.string()),
    rows: z.array(z.object({ tag: z.string(), tagCode: z.string(), grade: z.string(), credit: z.number() })),
});
type Typed = z.input<typeof pallet>;
type PalletForm = WritingForm<Typed, z.output<typeof pallet>>;
const { Text, Pick, Find } = fieldsOf<Typed>();

const EMPTY: Typed = {
    coreTag: '',
    tagCode: '',
    pallet: '',
    customer: '',
    family: '',
    rack: '',
    complaint: 'Pallet of cores, no complaint known',
    clues: {},
    missing: [],
    rows: [],
};

/** A pallet of cores by scanner: what is alike is set once, then each scanned tag is a core taken in. */
export function Pallet() {
    const form = useQuery({ queryKey: ['receiving/form'], queryFn: () => answer(api.GET('/receiving/form')) });
    return (
        <Fetched query={form} what="the form">
            {(f) => <Taking choices={f} />}
        </Fetched>
    );
}

function Taking({ choices }: { choices: Form }) {
    const form = useForm({ schema: pallet, start: EMPTY, draft: 'pallet' });
    return (
        <FormFields of={form}>
            <h1 className="mb-2 text-3xl">Receive a pallet</h1>
            <div className="grid items-start gap-3 lg:grid-cols-[1fr_1fr]">
                <Alike form={form} choices={choices} />
                <div className="flex flex-col gap-3">
                    <Scan form={form} />
                    <TakenIn form={form} />
                </div>
            </div>
        </FormFields>
    );
}

const turned = (list: string[], one: string) => (list.includes(one) ? list.filter((x) => x !== one) : [...list, one]);

function Alike({ form, choices: f }: { form: PalletForm; choices: Form }) {
    const { watch, setValue } = form.fields;
    const [clues, missing] = watch(['clues', 'missing']);
    const family = f.families.find((x) => x.code === watch('family'));
    const setMissing = (to: string[]) => setValue('missing', to);
    const setClues = (to: Record<string, string>) => setValue('clues', to);
    return (
        <Panel title="What is alike on all of them" aside="changed here, it counts from the next scan on">
            <div className="grid gap-3 sm:grid-cols-2">
                <Text name="pallet" label="Pallet" upper />
                <Text name="rack" label="Rack" />
                <Find name="customer" label="Customer" empty="none" {...CUSTOMERS} />
                <Pick
                    name="family"
                    label="Family"
                    empty="not clear yet"
                    options={f.families.map((x) => ({ value: x.code, text: x.name }))}
                    onChange={() => setValue('missing', [])}
                />
                <div className="sm:col-span-2">
                    <Text name="complaint" label="Complaint" hint="left empty, every core goes on hold" />
                </div>
            </div>
            {family && <MissingOnAll missing={missing} family={family} setMissing={setMissing} />}
            <CluesAlike f={f} clues={clues} setClues={setClues} />
        </Panel>
    );
}

function MissingOnAll({
    missing,
    family,
    setMissing,
}: {
    missing: string[];
    family: Form['families'][number];
    setMissing: (to: string[]) => void;
}) {
    return (
        <fieldset className="mt-2">
            <legend className="text-sm font-semibold text-faint">Missing on all of them</legend>
            <div className="flex flex-wrap gap-1.5">
                {family.outsideParts.map(({ number, name }) => (
                    <Toggle
                        key={number}
                        on={missing.includes(number)}
                        onToggle={() => setMissing(turned(missing, number))}
                    >
                        {name}
                    </Toggle>
                ))}
            </div>
        </fieldset>
    );
}

function CluesAlike({
    f,
    clues,
    setClues,
}: {
    f: Form;
    clues: Record<string, string>;
    setClues: (to: Record<string, string>) => void;
}) {
    return (
        <More title="Clues that are the same on all" className="mt-2">
            <div className="flex flex-col gap-3">
                {f.clues.map((c) => (
                    <Choice
                        key={c.id}
                        label={c.name}
                        value={clues[c.id] ?? null}
                        values={c.values}
                        onChange={(v) => setClues({ ...clues, [c.id]: v })}
                    />
                ))}
            </div>
        </More>
    );
}

/** Takes the core in and makes room for the next scan; what is alike on all stays. */
function useTakeIn(form: PalletForm) {
    const { watch, setValue, setFocus } = form.fields;
    return form.submit(
        ({ coreTag, tagCode, pallet, customer, family, rack, complaint, clues, missing }) =>
            api.POST('/receiving', {
                body: {
                    ...{ coreTag, tagCode, pallet, customer, family, rack, complaint, clues },
                    jobType: 'rebuild',
                    ownership: 'exchange',
                    missing: missing.map((part) => ({ part, count: 1 })),
                },
            }),
        (card) => {
            const taken = { tag: card.coreTag, tagCode: watch('tagCode'), grade: card.grade, credit: card.credit };
            setValue('rows', [taken, ...watch('rows')]);
            setValue('coreTag', '');
            setValue('tagCode', '');
            setFocus('coreTag');
        },
    );
}

function Scan({ form }: { form: PalletForm }) {
    const { watch } = form.fields;
    const take = useTakeIn(form);
    const next = () => {
        if (watch('coreTag').trim()) take();
    };
    return (
        <Panel title="Scan" aside="Enter takes the core in">
            <div className="grid gap-3 sm:grid-cols-[2fr_2fr_auto] sm:items-end">
                <Text name="coreTag" label="Core tag" onEnter={next} autoFocus />
                <Text name="tagCode" label="Stamped code, if read" upper onEnter={next} />
                <button
                    type="button"
                    className="btn btn-main"
                    disabled={form.busy || !watch('coreTag').trim()}
                    onClick={next}
                >
                    Take it in
                </button>
            </div>
            <FormProblem of={form} />
        </Panel>
    );
}

function TakenIn({ form }: { form: PalletForm }) {
    const rows = form.fields.watch('rows');
    const total = rows.reduce((sum, r) => sum + r.credit, 0);
    return (
        <Panel
            title={`Taken in: ${rows.length}`}
            aside={
                <>
                    credit <span className="num font-semibold">{formatMoney(total)}</span>
                </>
            }
        >
            {rows.length === 0 && <p className="text-faint">None yet.</p>}
            <ul className="max-h-96 overflow-y-auto">
                {rows.map((r) => (
                    <li key={r.tag} className="flex items-center gap-3 border-b border-rule py-1">
                        <Mark kind="good">in</Mark>
                        <Link className="num font-semibold underline" to={`/units/${r.tag}`}>
                            {r.tag}
                        </Link>
                        <span className="num text-sm">{r.tagCode}</span>
                        <span className="flex-1" />
                        <span>grade {r.grade}</span>
                        <span className="num">{formatMoney(r.credit)}</span>
                    </li>
                ))}
            </ul>
            {rows.length > 0 && (
                <button type="button" className="btn mt-2" onClick={form.clear}>
                    Pallet is done
                </button>
            )}
        </Panel>
    );
}
