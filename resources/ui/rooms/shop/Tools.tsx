import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { z } from 'zod';
import { answer, api, type Schemas } from '../../api/client';
import { useSession } from '../../api/session';
import { Mark, Panel } from '../../kit/basics';
import { DataTable, type Column } from '../../kit/DataTable';
import { Fetched } from '../../kit/Fetched';
import { fieldsOf, FormFields, FormProblem, useForm } from '../../kit/form';
import { said } from '../../kit/form/values';

type Known = Schemas['Tools'];
type Tool = Known['tools'][number];

const KEY = ['tools'];

/** Compressors, drivers, pullers, fixtures: where each hangs, until when it was looked at, what breaks without it. */
export function Tools() {
    const tools = useQuery({ queryKey: KEY, queryFn: () => answer(api.GET('/tools')) });
    return (
        <>
            <h1 className="mb-2 text-3xl">Special tools</h1>
            <Fetched query={tools} what="the special tools">
                {(known) => <Register known={known} />}
            </Fetched>
        </>
    );
}

function Register({ known }: { known: Known }) {
    const { person } = useSession();
    const [chosen, setChosen] = useState<string | null>(null);
    const mayChange = person?.role === 'manager';
    const kinds = Object.fromEntries(known.kinds.map((k) => [k.code, k.name]));
    const tool = known.tools.find((t) => t.tag === chosen);
    return (
        <div className={mayChange ? 'grid items-start gap-3 lg:grid-cols-[3fr_2fr]' : ''}>
            <DataTable
                columns={columns(kinds, mayChange ? setChosen : null)}
                rows={known.tools}
                rowId={(t) => t.tag}
                chosen={chosen ?? undefined}
                total={known.tools.length}
                empty="No special tool is registered."
            />
            {mayChange && <Write key={`${tool?.tag} ${tool?.version}`} tool={tool} known={known} />}
        </div>
    );
}

const columns = (kinds: Record<string, string>, onChoose: ((tag: string) => void) | null): Column<Tool>[] => [
    {
        id: 'tag',
        title: 'Tag',
        head: true,
        sort: (t) => t.tag,
        cell: (t) =>
            onChoose ? (
                <button
                    type="button"
                    className="num min-h-8 whitespace-nowrap underline"
                    onClick={() => onChoose(t.tag)}
                >
                    {t.tag}
                </button>
            ) : (
                <span className="num whitespace-nowrap">{t.tag}</span>
            ),
    },
    { id: 'name', title: 'Tool', sort: (t) => t.name, cell: (t) => t.name },
    { id: 'kind', title: 'Kind', sort: (t) => kinds[t.kind] ?? t.kind, cell: (t) => kinds[t.kind] ?? t.kind },
    {
        id: 'place',
        title: 'Place',
        sort: (t) => t.place,
        cell: (t) => <span className="whitespace-nowrap">{t.place}</span>,
    },
    {
        id: 'until',
        title: 'Looked at until',
        sort: (t) => t.inspectedUntil,
        cell: (t) =>
            t.overdue ? (
                <Mark kind="bad">overdue, {t.inspectedUntil}</Mark>
            ) : (
                <span className="num whitespace-nowrap">{t.inspectedUntil}</span>
            ),
    },
];

const tool = z.object({
    tag: said('Give it a tag that can be scanned.'),
    kind: said('Choose the kind; operations ask for kinds.'),
    name: said('Say what it is called here.'),
    place: said('Say where it hangs.'),
    inspectedUntil: z.string().regex(/^\d{4}-\d{2}-\d{2}$/, 'Say until when it was looked at.'),
});
const fields = fieldsOf<z.input<typeof tool>>();

function Write({ tool: old, known }: { tool: Tool | undefined; known: Known }) {
    const client = useQueryClient();
    const form = useForm({
        schema: tool,
        start: old
            ? { tag: old.tag, kind: old.kind, name: old.name, place: old.place, inspectedUntil: old.inspectedUntil }
            : { tag: '', kind: '', name: '', place: '', inspectedUntil: '' },
    });
    const send = form.submit(
        ({ tag, ...rest }) =>
            old
                ? api.PUT('/tools/{tag}', { params: { path: { tag } }, body: { ...rest, version: old.version } })
                : api.POST('/tools', { body: { tag, ...rest } }),
        (answered: Known) => {
            client.setQueryData(KEY, answered);
            form.clear();
        },
    );
    return (
        <Panel title={old ? `Change ${old.tag}` : 'Add a tool'}>
            <FormFields of={form}>
                {!old && <fields.Text name="tag" label="Tag" />}
                <fields.Pick
                    name="kind"
                    label="Kind"
                    empty="which kind?"
                    options={known.kinds.map((k) => ({ value: k.code, text: `${k.name}. ${k.without}` }))}
                />
                <fields.Text name="name" label="Tool" />
                <fields.Text name="place" label="Place" />
                <fields.Text name="inspectedUntil" label="Looked at until (year-month-day)" />
                <FormProblem of={form} />
                <button type="button" className="btn btn-main mt-2" disabled={form.busy} onClick={send}>
                    {old ? 'Change it' : 'Add it'}
                </button>
            </FormFields>
        </Panel>
    );
}
