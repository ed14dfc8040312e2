import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { z } from 'zod';
import { answer, api, type Schemas } from '../../api/client';
import { useSession } from '../../api/session';
import { HeadRow, Mark, Panel } from '../../kit/basics';
import { DataTable, type Column } from '../../kit/DataTable';
import { Fetched } from '../../kit/Fetched';
import { fieldsOf, FormFields, FormProblem, useForm } from '../../kit/form';
import { moment } from '../../kit/format';

type Known = Schemas['Gauges'];
type Gauge = Known['gauges'][number];

const KEY = ['gauges'];
const six = (g: Gauge) => (g.spread === null ? '–' : `${Number((6 * g.spread).toPrecision(3))} ${g.unit}`);

/** Gauges: when each is due, what its study says it can judge, and what a bad one leaves in doubt. */
export function Gauges() {
    const gauges = useQuery({ queryKey: KEY, queryFn: () => answer(api.GET('/gauges')) });
    return (
        <>
            <h1 className="mb-2 text-3xl">Gauges</h1>
            <Fetched query={gauges} what="the gauges">
                {(known) => <Register known={known} />}
            </Fetched>
        </>
    );
}

function Register({ known }: { known: Known }) {
    const { person } = useSession();
    const [chosen, setChosen] = useState<string | null>(null);
    const gauge = known.gauges.find((g) => g.code === chosen);
    return (
        <div className="grid items-start gap-3 lg:grid-cols-[3fr_2fr]">
            <DataTable
                columns={columns(setChosen)}
                rows={known.gauges}
                rowId={(g) => g.code}
                chosen={chosen ?? undefined}
                total={known.gauges.length}
                empty="No gauge is registered."
            />
            {gauge ? (
                <One key={gauge.code + (gauge.check?.at ?? '')} gauge={gauge} may={person?.role === 'manager'} />
            ) : (
                <p className="sheet p-4 text-faint">
                    Choose a gauge to check it, to study how far it can be trusted, or to see what it left in doubt.
                </p>
            )}
        </div>
    );
}

const columns = (onChoose: (code: string) => void): Column<Gauge>[] => [
    {
        id: 'code',
        title: 'Gauge',
        head: true,
        sort: (g) => g.code,
        cell: (g) => (
            <button type="button" className="min-h-8 text-left underline" onClick={() => onChoose(g.code)}>
                <span className="num">{g.code}</span> {g.name}
            </button>
        ),
    },
    {
        id: 'range',
        title: 'Shows',
        cell: (g) => (
            <span className="num">
                {g.min} to {g.max} {g.unit}
            </span>
        ),
    },
    { id: 'six', title: 'Its own spread, six sigma', right: true, cell: (g) => six(g) },
    {
        id: 'due',
        title: 'Due',
        sort: (g) => g.calibratedUntil,
        cell: (g) =>
            g.check?.result === 'bad' ? (
                <Mark kind="bad">found bad</Mark>
            ) : g.overdue ? (
                <Mark kind="bad">overdue, {g.calibratedUntil}</Mark>
            ) : (
                <span className="num whitespace-nowrap">{g.calibratedUntil}</span>
            ),
    },
];

function One({ gauge: g, may }: { gauge: Gauge; may: boolean }) {
    return (
        <div className="flex flex-col gap-3">
            <Panel title={`${g.code} ${g.name}`}>
                {g.check && (
                    <p>
                        Last check: <Mark kind={g.check.result === 'good' ? 'good' : 'bad'}>{g.check.result}</Mark>{' '}
                        {g.check.by}, {moment(g.check.at)}. {g.check.note}
                    </p>
                )}
                {may && <Check code={g.code} />}
            </Panel>
            <Doubtful code={g.code} />
            <Panel title="Study" aside="the same parts, several people, several times">
                {g.study && (
                    <p>
                        One person again{' '}
                        <strong className="num">
                            {g.study.repeatability.toPrecision(3)} {g.unit}
                        </strong>
                        , between {g.study.people} people{' '}
                        <strong className="num">
                            {g.study.reproducibility.toPrecision(3)} {g.unit}
                        </strong>
                        . It tells {g.study.categories} groups of parts apart. {g.study.by}, {moment(g.study.at)}
                    </p>
                )}
                {may && <Study code={g.code} />}
            </Panel>
        </div>
    );
}

const checking = z.object({
    result: z.enum(['good', 'bad'], 'Say what the standard showed.'),
    nextDue: z.string(),
    note: z.string(),
});
type Checked = { result: string | null; nextDue: string; note: string };
const checks = fieldsOf<Checked>();

function Check({ code }: { code: string }) {
    const client = useQueryClient();
    const form = useForm<Checked, z.output<typeof checking>>({
        // An enum reads one of its words; nothing is chosen yet when the form opens, which it refuses by its sentence.
        schema: checking as unknown as z.ZodType<z.output<typeof checking>, Checked>,
        start: { result: null, nextDue: '', note: '' },
    });
    const send = form.submit(
        (body) =>
            api.POST('/gauges/{code}/checks', {
                params: { path: { code } },
                body: { ...body, nextDue: body.nextDue || null },
            }),
        (known) => {
            client.setQueryData(KEY, known);
            void client.invalidateQueries({ queryKey: ['doubtful', code] });
        },
    );
    return (
        <FormFields of={form}>
            <checks.Buttons name="result" label="Against the standard it is" values={['good', 'bad']} />
            <checks.Text name="nextDue" label="Due again (year-month-day)" />
            <checks.Text name="note" label="Note" />
            <FormProblem of={form} />
            <button type="button" className="btn mt-2" disabled={form.busy} onClick={send}>
                Write the check down
            </button>
        </FormFields>
    );
}

/** Every reading of a gauge found bad, since it was last good. */
function Doubtful({ code }: { code: string }) {
    const doubtful = useQuery({
        queryKey: ['doubtful', code],
        queryFn: () => answer(api.GET('/gauges/{code}/doubtful', { params: { path: { code } } })),
    });
    const found = doubtful.data;
    if (!found || found.to === null) return null;
    return (
        <Panel title="In doubt" aside={`${found.total} readings since it was last good`}>
            <table className="w-full text-sm">
                <HeadRow of={['Unit', 'Place', 'Read']} />
                <tbody>
                    {found.readings.slice(0, 50).map((r, n) => (
                        <tr key={n} className="border-b border-rule">
                            <th scope="row" className="text-left">
                                <Link className="underline num" to={`/units/${r.coreTag}/assembly`}>
                                    {r.serial ?? r.coreTag}
                                </Link>{' '}
                                <span className="font-normal text-faint">{r.station}</span>
                            </th>
                            <td>
                                {r.kind} {r.code}
                            </td>
                            <td className="num">
                                {r.value} {r.unit}
                            </td>
                        </tr>
                    ))}
                </tbody>
            </table>
            {found.total > 50 && <p className="text-sm text-faint">The first 50 of {found.total}.</p>}
        </Panel>
    );
}

/** "Imre, A, 0.0231", one reading a line. */
const readings = z.string().transform((typed, context) => {
    const lines = typed
        .split('\n')
        .map((l) => l.trim())
        .filter(Boolean);
    const rows = lines.map((l) => l.split(/\s*[,;\t]\s*/));
    const bad = rows.findIndex((r) => r.length !== 3 || r.some((c) => c === ''));
    if (bad >= 0 || rows.length === 0) {
        const wrong = bad >= 0 ? `Line ${bad + 1}: person, part, reading.` : 'Type the readings, one a line.';
        context.addIssue({ code: 'custom', message: wrong });
    }
    return rows.map(([person = '', part = '', reading = '']) => ({ person, part, reading }));
});
const study = z.object({ rows: readings });
const studies = fieldsOf<z.input<typeof study>>();

function Study({ code }: { code: string }) {
    const client = useQueryClient();
    const form = useForm({ schema: study, start: { rows: '' } });
    const send = form.submit(
        (body) => api.POST('/gauges/{code}/studies', { params: { path: { code } }, body }),
        (known) => {
            client.setQueryData(KEY, known);
            form.clear();
        },
    );
    return (
        <FormFields of={form}>
            <studies.Area name="rows" label="Readings, one a line: person, part, reading" rows={6} />
            <FormProblem of={form} />
            <button type="button" className="btn mt-2" disabled={form.busy} onClick={send}>
                Reckon the study
            </button>
        </FormFields>
    );
}
