import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { z } from 'zod';
import { answer, api, fetchCard, type Schemas } from '../../api/client';
import { moment } from '../../kit/format';
import { useWrite } from '../../api/useWrite';
import { Caution, Choice, Loading, Mark, Panel, ProblemNote } from '../../kit/basics';
import { fieldsOf, FormFields, FormProblem, useForm } from '../../kit/form';
import { TraceChart, type TraceData } from '../../kit/TraceChart';
import type { SectionProps } from '../../card/section';
import { beforeOf, type Beside, CheckTable, Deciding, HeldAgainst, type Reference, rowsOf } from './CheckTable';
import { Elsewhere } from './Elsewhere';
import { Found, marksOf, Suspects, type Analysis } from './Found';
import { type Course, Now, ON_TIME } from './Now';
import { RigState } from './RigState';
import { WithoutCell } from './WithoutCell';

type Run = Schemas['Run'];

const NO_DATA: TraceData = { t: [], input: [], turbine: [], output: [], line: [] };
const OPEN = ['queued', 'running', 'recorded'];
const isOpen = (run: Run) => OPEN.includes(run.state);

const loopOf = (run: Run) => (run.purpose === 'foreign' ? 'recorded elsewhere' : `loop ${run.loop}`);
const runName = (run: Run | undefined) => (run ? `Run ${run.id}, ${loopOf(run)}, ${run.verdict ?? run.state}` : '');

/** The test cell: run, watch, measure against the limits, pass or fail by name. */
export function DynoView(props: SectionProps<'dyno'>) {
    return props.section.due ? (
        <Cell {...props} />
    ) : (
        <Panel title="Dyno">
            <p>No dyno run is due for this job. The papers say “not dyno-tested”.</p>
        </Panel>
    );
}

const isJudged = (run: Run) => run.state !== 'analysed' || run.verdict !== null;

/** What runs, or else the last one that was measured while it waits for its verdict. */
const inHand = (own: Run[]) =>
    own.find(isOpen) ?? own.filter((r) => r.state === 'analysed').find((r, n) => n === 0 && !isJudged(r));

/** The run in hand comes first; another one can be started below it. */
function Cell(props: SectionProps<'dyno'>) {
    const { card, can, section: d } = props;
    const [chosen, setChosen] = useState<number | null>(null);
    const own = d.runs.filter((r) => r.purpose === 'unit');
    const run = d.runs.find((r) => r.id === chosen) ?? inHand(own) ?? d.runs[0];
    const startable = card.station === 'dyno' && can('dyno.run') && !own.some(isOpen);
    const judged = inHand(own) === undefined;
    return (
        <div className="flex flex-col gap-3">
            {startable && judged && <Start {...props} onStarted={setChosen} />}
            <Runs of={d.runs} run={run} onChoose={setChosen} />
            {run ? <RunPanel key={run.id} run={run} {...props} /> : <p className="sheet p-4 text-faint">No run yet.</p>}
            {startable && !judged && <Start {...props} onStarted={setChosen} />}
            <WithoutCell {...props} />
            <Elsewhere {...props} onTaken={setChosen} />
        </div>
    );
}

type RunsProps = { of: Run[]; run: Run | undefined; onChoose: (id: number) => void };

const LATEST = 5;

function Runs({ of, run, onChoose }: RunsProps) {
    const choice = (label: string, runs: Run[]) => (
        <Choice
            label={label}
            value={String(run?.id)}
            values={runs.map((r) => String(r.id))}
            text={(id) => runName(runs.find((r) => String(r.id) === id))}
            onChange={(v) => onChoose(Number(v))}
        />
    );
    const earlier = of.slice(LATEST);
    if (of.length < 2) return null;
    return (
        <div>
            {choice('Run', of.slice(0, LATEST))}
            {earlier.length > 0 && (
                <details open={run && earlier.includes(run)}>
                    <summary className="cursor-pointer py-2">{earlier.length} earlier runs</summary>
                    {choice('Earlier run', earlier)}
                </details>
            )}
        </div>
    );
}

const isReady = (c: Schemas['CellBrief']) => c.rig === 'ready';

type StartProps = SectionProps<'dyno'> & { onStarted: (run: number) => void };

function Start({ section, card, onCard, onStarted }: StartProps) {
    const { busy, problem, write } = useWrite();
    const refresh = () => void fetchCard(card.coreTag, ['dyno']).then(onCard);
    const { cells: all } = section;
    useRefreshed(!all.every(isReady), refresh);
    const start = (cell: string) =>
        void write(
            () => api.POST('/units/{number}/dyno/runs', { params: { path: { number: card.coreTag } }, body: { cell } }),
            ({ id }) => {
                onStarted(id);
                refresh();
            },
        );
    return (
        <Panel
            title={`Run the program, loop ${section.loop}`}
            aside={`${section.program?.seconds} s of program; the simulated rig runs faster than the clock`}
        >
            <Caution>
                Guards closed, no loose clothing, emergency stop within reach; hot oil. A stall is seconds, not minutes.
            </Caution>
            <div className="mt-2 flex flex-wrap gap-x-6 gap-y-2">
                {all.map((c) => (
                    <div key={c.cell} className="flex flex-wrap items-center gap-3">
                        <StartIn cell={c} alone={all.length === 1} busy={busy} onStart={() => start(c.cell)} />
                        <CellState cell={c} />
                    </div>
                ))}
            </div>
            <Filled program={section.program} />
            <HeldAgainst program={section.program} />
            <ProblemNote problem={problem} />
        </Panel>
    );
}

type StartInProps = { cell: Schemas['CellBrief']; alone: boolean; busy: boolean; onStart: () => void };

function StartIn({ cell: c, alone, busy, onStart }: StartInProps) {
    return (
        <button type="button" className="btn btn-main" disabled={busy || c.rig === 'stopped'} onClick={onStart}>
            {alone ? 'Start the run' : `Start the run in cell ${c.cell}`}
        </button>
    );
}

type Programmed = Pick<SectionProps<'dyno'>['section'], 'program'>;

/** What the rig does before the first step. */
function Filled({ program }: Programmed) {
    if (!program?.fluid) return null;
    return (
        <p className="mt-2 text-sm">
            The rig fills <span className="num">{program.fluid.litres} l</span> of {program.fluid.name} and primes the
            pump; the clock of the program starts when the line stands.
        </p>
    );
}

function CellState({ cell }: { cell: Schemas['CellBrief'] }) {
    return (
        <span className="flex flex-col">
            <RigState rig={cell.rig} />
            <CellWord cell={cell} />
        </span>
    );
}

function CellWord({ cell: c }: { cell: Schemas['CellBrief'] }) {
    if (c.drifted) return <Mark kind="bad">drifted: nothing passes in it</Mark>;
    if (c.busy) return <Mark kind="warn">{c.busy} is in it; this one waits</Mark>;
    return c.due && <Mark kind="warn">its reference run is due</Mark>;
}

/** Asks for the card every few seconds while something is open, also when the live line is cut. */
function useRefreshed(open: boolean, refresh: () => void) {
    const latest = useRef(refresh);
    useEffect(() => {
        latest.current = refresh;
    });
    useEffect(() => {
        if (!open) return;
        const timer = setInterval(() => latest.current(), 2500);
        return () => clearInterval(timer);
    }, [open]);
}

type Trace = NonNullable<Schemas['RunDetail']['trace']>;

function recorded({ channels, from_s, every_s }: Trace): TraceData {
    const { output_rpm: output = [], input_rpm: input = [], turbine_rpm: turbine = [], line_kpa: line = [] } = channels;
    return { t: output.map((_, i) => from_s + i * every_s), input, turbine, output, line };
}

/** What was measured of a run that is over. */
function useDetail(run: Run) {
    const detail = useQuery({
        queryKey: ['run', run.id, run.state],
        queryFn: () => answer(api.GET('/dyno/runs/{run}', { params: { path: { run: run.id } } })),
        enabled: !isOpen(run),
    });
    const analysis = (detail.data?.analysis ?? undefined) as Analysis | undefined;
    const { trace, good = [], reference = null } = detail.data ?? {};
    return { trace, analysis, good, reference, pending: detail.isPending };
}

function RunPanel({ section, run, card, onCard, can }: { run: Run } & SectionProps<'dyno'>) {
    const refresh = () => void fetchCard(card.coreTag, ['dyno']).then(onCard);
    const live = useLive(run, refresh);
    const { trace, analysis, good, reference, pending } = useDetail(run);
    useRefreshed(isOpen(run), refresh);
    return (
        <>
            {run.checks.length > 0 && (
                <Checks {...{ run, section, card, onCard, can, good, reference }} suspects={analysis?.suspects} />
            )}
            <Panel title={`Run ${run.id}`} aside={<RunAside run={run} traced={!!trace} />}>
                <RunHead run={run} progress={live.progress} refresh={can('dyno.run') ? refresh : undefined} />
                {isOpen(run) ? (
                    <Now row={live.last} program={section.program} course={live.course} />
                ) : (
                    pending && <Loading what="the trace" />
                )}
                <Curves data={trace ? recorded(trace) : live.data} analysis={analysis} />
            </Panel>
        </>
    );
}

type HeadProps = { run: Run; progress: number; refresh: (() => void) | undefined };

function RunHead({ run, progress, refresh }: HeadProps) {
    return (
        <div className="mb-2 flex flex-wrap items-center gap-4" aria-live="polite">
            <RunState run={run} progress={Math.max(progress, run.progress)} />
            {run.verdict && <Judged run={run} verdict={run.verdict} />}
            {refresh && <CancelRun run={run} refresh={refresh} />}
        </div>
    );
}

function Curves({ data, analysis }: { data: TraceData; analysis: Analysis | undefined }) {
    const marks = useMemo(() => marksOf(analysis), [analysis]);
    return (
        <>
            <TraceChart data={data} marks={marks} label="Speeds and line pressure over the run" />
            <Found analysis={analysis} />
        </>
    );
}

function RunAside({ run, traced }: { run: Run; traced: boolean }) {
    return (
        <>
            {run.startedBy}, {moment(run.queuedAt)} ·{' '}
            {run.purpose === 'foreign' ? `file ${run.specimen}` : `unit ${run.specimen} · cell ${run.cell}`}{' '}
            {traced && (
                <>
                    <a className="underline" href={`/api/dyno/runs/${run.id}/certificate.pdf`}>
                        certificate as PDF
                    </a>{' '}
                    <a className="underline" href={`/api/dyno/runs/${run.id}/trace.csv`}>
                        trace as CSV
                    </a>
                </>
            )}
        </>
    );
}

function RunState({ run, progress }: { run: Run; progress: number }) {
    if (run.state === 'queued') return <Mark kind="idle">waiting for the rig</Mark>;
    if (run.state === 'running') return <Mark kind="next">running, {Math.round(progress)} %</Mark>;
    if (run.state === 'recorded') return <Mark kind="next">recorded, being analysed</Mark>;
    if (run.state === 'cancelled') return <Mark kind="warn">cancelled</Mark>;
    return run.state === 'failed' && <Mark kind="bad">{run.error}</Mark>;
}

const JUDGED: Record<string, { kind: 'good' | 'bad' | 'warn'; text: string }> = {
    pass: { kind: 'good', text: 'passed' },
    fail: { kind: 'bad', text: 'failed' },
    conditional: { kind: 'warn', text: 'passed conditionally' },
};

function Judged({ run, verdict }: { run: Run; verdict: string }) {
    const { kind, text } = JUDGED[verdict] ?? { kind: 'warn', text: verdict };
    return (
        <span className="text-xl">
            <Mark kind={kind}>{text}</Mark> by {run.verdictBy}
            {run.suspect && (
                <>
                    , suspect <strong>{run.suspect}</strong>
                </>
            )}
            . {run.reason}
        </span>
    );
}

function CancelRun({ run, refresh }: { run: Run; refresh: () => void }) {
    const client = useQueryClient();
    const { busy, write } = useWrite();
    if (run.state !== 'queued' && run.state !== 'running') return null;
    const params = { path: { run: run.id } };
    const cancel = () =>
        write(
            () => api.POST('/dyno/runs/{run}/cancel', { params, body: {} }),
            () => {
                refresh();
                void client.invalidateQueries({ queryKey: ['run'] });
            },
        );
    return (
        <button type="button" className="btn" disabled={busy} onClick={() => void cancel()}>
            Cancel the run
        </button>
    );
}

type ChecksProps = { run: Run; suspects: Analysis['suspects'] } & Omit<Beside, 'before'> & SectionProps<'dyno'>;

/** Whether the cell was right when the unit ran in it. */
function CellSays({ of, cell }: { of: Reference | null; cell: string }) {
    if (of === null) return null;
    const { serial, at, verdict, readings } = of;
    const right = verdict === 'pass';
    return (
        <p className="mb-2 text-sm">
            <Mark kind={right ? 'good' : 'bad'}>
                Cell {cell} before this run: {serial} {right ? 'showed what it should' : 'had drifted'}, {moment(at)}
            </Mark>
            {readings.length === 0 && ' It runs another program, so its numbers are not laid beside these.'}
        </p>
    );
}

function Checks({ section, run, card, onCard, can, suspects, good, reference }: ChecksProps) {
    const beside = { before: beforeOf(section.runs, run), good, reference };
    const rows = rowsOf(run.checks);
    const failed = rows.filter((c) => !c.pass);
    const inside = rows.filter((c) => c.pass);
    const judging =
        run.purpose === 'unit' &&
        run.state === 'analysed' &&
        !run.verdict &&
        card.station === 'dyno' &&
        can('dyno.run');
    return (
        <div className={`grid items-start gap-3 ${judging ? 'lg:grid-cols-[1.6fr_1fr]' : ''}`}>
            <Panel title="Against the limits" aside={failed.length === 0 ? 'all inside' : `${failed.length} outside`}>
                <Deciding of={rows} />
                <CellSays of={reference} cell={run.cell} />
                <HeldAgainst program={section.program} purpose={run.purpose} />
                {failed.length > 0 && <CheckTable of={failed} {...beside} />}
                <details open={failed.length === 0 && !judging} className="mt-2">
                    <summary className="cursor-pointer py-2">
                        <Mark kind="good">{inside.length} inside their limits</Mark>
                    </summary>
                    <CheckTable of={inside} {...beside} />
                </details>
            </Panel>
            {judging && (
                <div className="flex flex-col gap-3">
                    <Judge run={run} section={section} onCard={onCard} />
                    <Suspects of={suspects} names={Object.fromEntries(section.elements.map((e) => [e.id, e.name]))} />
                </div>
            )}
        </div>
    );
}

const judgement = z.object({
    verdict: z.enum(['pass', 'fail', 'conditional']).nullable(),
    reason: z.string(),
    suspect: z.string(),
});
const judging = fieldsOf<z.input<typeof judgement>>();
const VERDICTS: Record<string, string> = { pass: 'Pass', fail: 'Fail', conditional: 'Conditional pass' };
const ELSEWHERE = [
    { id: 'line-pressure', name: 'Line pressure' },
    { id: 'converter', name: 'Converter' },
    { id: 'control', name: 'Control' },
];

function deed(verdict: string | null) {
    if (verdict === null) return 'Choose a verdict first';
    return verdict === 'fail' ? 'Fail it and send it back to the bench' : 'Pass the unit on';
}

const suspects = (elements: { id: string; name: string }[]) =>
    [...elements, ...ELSEWHERE].map((e) => ({ value: e.id, text: e.name === e.id ? e.id : `${e.id} ${e.name}` }));

type GiveProps = { verdict: string | null; busy: boolean; onGive: (() => void) | undefined };

function Give({ verdict, busy, onGive }: GiveProps) {
    return (
        <button type="button" className="btn btn-main" disabled={busy || verdict === null} onClick={onGive}>
            {deed(verdict)}
        </button>
    );
}

function Judge({ section, run, onCard }: { run: Run } & Pick<SectionProps<'dyno'>, 'section' | 'onCard'>) {
    const form = useForm({ schema: judgement, start: { verdict: null, reason: '', suspect: '' } });
    const verdict = form.fields.watch('verdict');
    const give = (chosen: NonNullable<typeof verdict>) =>
        form.submit(
            ({ reason, suspect }) =>
                api.POST('/dyno/runs/{run}/verdict', {
                    params: { path: { run: run.id } },
                    body: { verdict: chosen, reason, suspect },
                }),
            onCard,
        );
    return (
        <Panel title="Verdict" aside="by name">
            <FormFields of={form}>
                <div className="flex flex-col gap-3">
                    <judging.Buttons
                        name="verdict"
                        label="This run is a"
                        values={Object.keys(VERDICTS)}
                        text={(v) => VERDICTS[v] ?? v}
                    />
                    {verdict === 'fail' && (
                        <judging.Pick
                            name="suspect"
                            label="Element suspected"
                            empty="choose"
                            options={suspects(section.elements)}
                        />
                    )}
                    {verdict !== null && verdict !== 'pass' && <judging.Text name="reason" label="Reason" />}
                    <FormProblem of={form} />
                    <Give verdict={verdict} busy={form.busy} onGive={verdict === null ? undefined : give(verdict)} />
                </div>
            </FormFields>
        </Panel>
    );
}

/** Live samples from the gateway while the run is open; a reload gets what came before again. */
type Live = { data: TraceData; progress: number; last: number[] | undefined; course: Course };

/** What the gateway sends (docs/formats/rig.md). */
type LiveSamples = {
    rows: number[][];
    replay?: boolean;
    progress?: number;
    late_s?: number;
    waits?: number | null;
};

function useLive(run: Run, ended: () => void): Live {
    const [data, setData] = useState<TraceData>(NO_DATA);
    const [last, setLast] = useState<number[]>();
    const [progress, setProgress] = useState(0);
    const [course, setCourse] = useState<Course>(ON_TIME);
    const url = run.liveUrl && OPEN.includes(run.state) ? run.liveUrl.split('?')[0] : null;
    useEffect(() => {
        if (!url || !run.liveUrl) return;
        const source = new EventSource(run.liveUrl);
        source.addEventListener('samples', (e) => {
            const message = JSON.parse((e as MessageEvent<string>).data) as LiveSamples;
            const { late_s = 0, waits = null } = message;
            if (!message.replay) setCourse((c) => (c.late_s === late_s && c.waits === waits ? c : { late_s, waits }));
            if (message.rows.length > 0) setLast(message.rows.at(-1));
            setData((d) => {
                const base = message.replay ? NO_DATA : d;
                const column = (i: number) => message.rows.map((r) => r[i] ?? Number.NaN);
                return {
                    t: [...base.t, ...column(0)],
                    input: [...base.input, ...column(1)],
                    turbine: [...base.turbine, ...column(2)],
                    output: [...base.output, ...column(3)],
                    line: [...base.line, ...column(6)],
                };
            });
            if (message.progress) setProgress(message.progress);
        });
        source.addEventListener('end', () => {
            source.close();
            ended();
        });
        return () => source.close();
        // eslint-disable-next-line react-hooks/exhaustive-deps -- only a new address opens a new connection
    }, [url]);
    return { data, progress, last, course };
}
