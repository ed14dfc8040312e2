import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { z } from 'zod';
import { answer, api, type Schemas } from '../../api/client';
import { useSession } from '../../api/session';
import { useWrite } from '../../api/useWrite';
import { Caution, Mark, Panel, ProblemNote } from '../../kit/basics';
import { ControlChart } from '../../kit/ControlChart';
import { Fetched } from '../../kit/Fetched';
import { fieldsOf, FormFields, FormProblem, useForm } from '../../kit/form';
import { said } from '../../kit/form/values';
import { moment } from '../../kit/format';
import { More } from '../../kit/More';
import { RigState } from './RigState';

type Known = Schemas['Cells'];
type Cell = Known['cells'][number];
type Chart = Schemas['CellChart'];

const KEY = ['cells'];
const LOOK_MS = 3000;
/** The emergency stop may be pressed while nobody runs anything. */
const IDLE_LOOK_MS = 10_000;

const isBusy = (c: Cell) => c.open.length > 0 || c.rig !== 'ready';

/** The test cells: a unit that stays in the house tells at the start of each shift whether a cell can be believed. */
export function Cells() {
    const cells = useQuery({
        queryKey: KEY,
        queryFn: () => answer(api.GET('/dyno/cells')),
        refetchInterval: (q) => (q.state.data?.cells.some(isBusy) ? LOOK_MS : IDLE_LOOK_MS),
    });
    return (
        <>
            <h1 className="mb-2 text-3xl">Test cells</h1>
            <Fetched query={cells} what="the cells">
                {(known) => (
                    <div className="grid items-start gap-3 lg:grid-cols-2">
                        {known.cells.map((c) => (
                            <One key={c.cell} cell={c} baseline={known.baseline} />
                        ))}
                    </div>
                )}
            </Fetched>
        </>
    );
}

const STATES: Record<string, ['good' | 'warn' | 'bad' | 'idle', string]> = {
    baseline: ['idle', 'learning what is usual'],
    good: ['good', 'shows what it should'],
    watch: ['warn', 'leans to one side: run it again'],
    drift: ['bad', 'drifted'],
    failed: ['bad', 'the reference run failed'],
    cancelled: ['warn', 'the reference run was cancelled'],
};

function One({ cell: c, baseline }: { cell: Cell; baseline: number }) {
    const { can } = useSession();
    return (
        <Panel title={`Cell ${c.cell}`} aside={c.open.length === 0 ? 'free' : `${c.open[0]?.specimen} is in it`}>
            <State cell={c} baseline={baseline} />
            {c.reference && can('dyno.run') && <RunReference cell={c} />}
            {can('dyno.approve') && <Keep cell={c} />}
            <Since cell={c} />
            <Charts charts={c.charts} />
        </Panel>
    );
}

function State({ cell: c, baseline }: { cell: Cell; baseline: number }) {
    const [kind, words] = STATES[c.last?.state ?? ''] ?? ['idle', 'never told by a reference unit'];
    return (
        <div className="flex flex-col gap-1">
            <p className="flex flex-wrap items-baseline gap-x-4 text-xl">
                <Mark kind={kind}>{words}</Mark>
                {c.due && <Mark kind="warn">a reference run is due</Mark>}
                <RigState rig={c.rig} />
            </p>
            {c.last && (
                <p className="text-sm text-faint">
                    Run {c.last.run}, {moment(c.last.at)}, {c.last.by}. {c.last.error}
                </p>
            )}
            {c.last?.moved.map((m) => (
                <p key={m}>{m}</p>
            ))}
            <ToldBy cell={c} baseline={baseline} />
        </div>
    );
}

function ToldBy({ cell: c, baseline }: { cell: Cell; baseline: number }) {
    const runs = c.charts[0]?.runs.length ?? 0;
    const unit = c.reference;
    if (!unit) return <p>No unit is kept to tell this cell by.</p>;
    return (
        <p>
            Told by <Link to={`/units/${unit.coreTag}`}>{unit.serial}</Link>, kept by {unit.by}, {moment(unit.at)}
            {runs < baseline && `; ${runs} of the ${baseline} runs that say what is usual`}.
        </p>
    );
}

function RunReference({ cell: c }: { cell: Cell }) {
    const known = useKnown();
    const { busy, problem, write } = useWrite();
    const waits = c.open.find((o) => o.purpose === 'reference');
    const run = () =>
        write(
            () => api.POST('/dyno/cells/{cell}/reference-runs', { params: { path: { cell: c.cell } }, body: {} }),
            known,
        );
    if (waits) {
        return (
            <p className="my-2" role="status">
                <Mark kind="next">the reference unit runs, {Math.round(waits.progress)} %</Mark>
            </p>
        );
    }
    return (
        <div className="my-2 flex flex-col items-start gap-2">
            <Caution>Guards closed, no loose clothing, emergency stop within reach; hot oil.</Caution>
            <button
                type="button"
                className="btn btn-main"
                disabled={busy || c.rig === 'stopped'}
                onClick={() => void run()}
            >
                Run {c.reference?.serial} in cell {c.cell}
            </button>
            <ProblemNote problem={problem} />
        </div>
    );
}

const keeping = z.object({ coreTag: said('Scan the tag of the unit.') });
const keep = fieldsOf<z.input<typeof keeping>>();

function Keep({ cell: c }: { cell: Cell }) {
    return (
        <More title={c.reference ? 'Let the reference unit go' : 'Keep a unit as its reference'}>
            {c.reference ? <LetGo cell={c.cell} serial={c.reference.serial} /> : <KeepOne cell={c.cell} />}
        </More>
    );
}

function useKnown() {
    const client = useQueryClient();
    return (known: Known) => client.setQueryData(KEY, known);
}

function LetGo({ cell, serial }: { cell: string; serial: string }) {
    const known = useKnown();
    const { busy, problem, write } = useWrite();
    const go = () => write(() => api.DELETE('/dyno/cells/{cell}/reference', { params: { path: { cell } } }), known);
    return (
        <>
            <p>What it told of this cell stays on record; another unit begins anew.</p>
            <button type="button" className="btn mt-2" disabled={busy} onClick={() => void go()}>
                Let {serial} go
            </button>
            <ProblemNote problem={problem} />
        </>
    );
}

function KeepOne({ cell }: { cell: string }) {
    const known = useKnown();
    const form = useForm({ schema: keeping, start: { coreTag: '' } });
    const send = form.submit(
        (body) => api.PUT('/dyno/cells/{cell}/reference', { params: { path: { cell } }, body }),
        known,
    );
    return (
        <FormFields of={form}>
            <keep.Text name="coreTag" label="Tag of a unit at dispatch that passed" />
            <FormProblem of={form} />
            <button type="button" className="btn mt-2" disabled={form.busy} onClick={send}>
                Keep it here
            </button>
        </FormFields>
    );
}

/** What a cell let pass since it was last right: held where it is in the house, named where it has left. */
function Since({ cell: c }: { cell: Cell }) {
    if (c.since.length === 0) return null;
    return (
        <section aria-label={`Passed in cell ${c.cell} since it was last right`} className="my-2">
            <h3 className="text-xl">Passed here since it was last right</h3>
            <ul>
                {c.since.map((r) => (
                    <li key={r.run} className="border-b border-rule py-1">
                        <Link to={`/units/${r.coreTag}/dyno`} className="num">
                            {r.serial}
                        </Link>{' '}
                        {r.verdict}, {moment(r.at)}{' '}
                        {r.inHouse ? <Mark kind="warn">held</Mark> : <Mark kind="bad">has left the house</Mark>}
                    </li>
                ))}
            </ul>
        </section>
    );
}

const word = (c: Chart): ['good' | 'warn' | 'bad' | 'idle', string] => {
    if (c.out) return ['bad', 'outside'];
    if (c.watch) return ['warn', 'leans'];
    return c.lower === null ? ['idle', 'learning'] : ['good', 'inside'];
};
const digits = (v: number | null | undefined) => (typeof v === 'number' ? v.toPrecision(4) : '–');

/** Every reading of the cell with its limits; the one chosen is drawn run by run. */
function Charts({ charts }: { charts: Chart[] }) {
    const [chosen, setChosen] = useState<string | null>(null);
    if (charts.length === 0) return null;
    const shown = charts.find((c) => c.key === chosen) ?? charts.find((c) => c.out) ?? charts[0];
    return (
        <>
            {shown && <Drawn chart={shown} />}
            <table className="w-full text-sm">
                <thead>
                    <tr className="text-left">
                        <th>Reading</th>
                        <th>Last</th>
                        <th>Usual</th>
                        <th>
                            <span className="sr-only">State</span>
                        </th>
                    </tr>
                </thead>
                <tbody>
                    {charts.map((c) => (
                        <Reading key={c.key} chart={c} shown={c === shown} onChoose={() => setChosen(c.key)} />
                    ))}
                </tbody>
            </table>
        </>
    );
}

function Reading({ chart: c, shown, onChoose }: { chart: Chart; shown: boolean; onChoose: () => void }) {
    return (
        <tr className="border-t border-rule">
            <th scope="row" className="text-left font-normal">
                <button type="button" className="min-h-8 text-left underline" aria-pressed={shown} onClick={onChoose}>
                    {c.check}, {c.where}
                </button>
            </th>
            <td className="num whitespace-nowrap">
                {digits(c.points.at(-1))} {c.unit}
            </td>
            <td className="num whitespace-nowrap">
                {digits(c.lower)} to {digits(c.upper)}
            </td>
            <td>
                <Mark kind={word(c)[0]}>{word(c)[1]}</Mark>
            </td>
        </tr>
    );
}

function Drawn({ chart: c }: { chart: Chart }) {
    const points = c.points.flatMap((value, n) =>
        value === null
            ? []
            : [
                  {
                      value,
                      title: `run ${c.runs[n]}: ${value.toPrecision(5)} ${c.unit}`,
                      flagged: c.out && n === c.points.length - 1,
                  },
              ],
    );
    return (
        <figure>
            <figcaption>
                {c.check}, {c.where}
            </figcaption>
            <ControlChart
                label={`${c.check}, ${c.where}, run by run`}
                points={points}
                levels={[
                    { at: c.upper, kind: 'limit' },
                    { at: c.lower, kind: 'limit' },
                    { at: c.centre, kind: 'centre' },
                ]}
                height={200}
            />
        </figure>
    );
}
