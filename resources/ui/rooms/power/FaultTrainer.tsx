import { useState } from 'react';
import { api, type Schemas } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { Mark, Panel, ProblemNote, Select } from '../../kit/basics';
import { percent } from '../../kit/format';
import { LOOK, suspectSaid } from '../../work/suspect';

type Round = Schemas['FaultRound'];
type Dealt = Pick<Round, 'looks' | 'causes'>;
type Looks = NonNullable<Round['looks']>;
type Causes = NonNullable<Round['causes']>;

const splitCause = (cause: string) => {
    const [element = '', fault = ''] = cause.split(' ');
    return { element, fault };
};

function useRound(code: string) {
    const [round, setRound] = useState<Round | null>(null);
    const [{ looks = [], causes = [] }, setDealt] = useState<Dealt>({});
    const { busy, problem, write } = useWrite();
    const deal = (two: boolean) =>
        void write(
            () => api.POST('/fault-trainer', { body: { family: code, two } }),
            (dealt: Round) => {
                setDealt(dealt);
                setRound(dealt);
            },
        );
    const look = (kind: string, what: string) =>
        void write(
            () => api.POST('/fault-trainer/looks', { body: { round: round?.round ?? '', kind, what } }),
            setRound,
        );
    const name = (cause: string) =>
        void write(
            () => api.POST('/fault-trainer/verdict', { body: { round: round?.round ?? '', ...splitCause(cause) } }),
            setRound,
        );
    return { round, looks, causes, busy, problem, deal, look, name };
}

/** A unit with a hidden fault: look where it pays, name the cause, and be held against the engine. */
export function FaultTrainer({ code }: { code: string }) {
    const { round, looks, causes, busy, problem, deal, look, name } = useRound(code);
    const over = round?.fault !== undefined;
    return (
        <Panel title="Find the fault" aside="a hidden fault, dealt as often as faults come; every look costs">
            {round && (
                <div className="grid items-start gap-4 lg:grid-cols-2">
                    <Asking {...{ looks, round, busy, over }} onLook={look} />
                    <div aria-live="polite">
                        <Shown round={round} />
                        {over ? <Outcome round={round} /> : <Naming causes={causes} busy={busy} onName={name} />}
                    </div>
                </div>
            )}
            <ProblemNote problem={problem} />
            <div className="mt-2 flex gap-2">
                <button type="button" className="btn" disabled={busy} onClick={() => deal(false)}>
                    Deal one fault
                </button>
                <button type="button" className="btn" disabled={busy} onClick={() => deal(true)}>
                    Deal two at once
                </button>
            </div>
        </Panel>
    );
}

type AskingProps = {
    looks: Looks;
    round: Round;
    busy: boolean;
    over: boolean;
    onLook: (kind: string, what: string) => void;
};

const said = (kind: string, what: string) => LOOK[kind]?.(what) ?? what;

function Asking({ looks, round, busy, over, onLook }: AskingProps) {
    const seen = new Set(round.seen.map((s) => `${s.kind} ${s.what}`));
    return (
        <div className="flex flex-wrap gap-1.5">
            {looks
                .filter((l) => !seen.has(`${l.kind} ${l.what}`))
                .sort((a, b) => a.effort - b.effort)
                .map((l) => (
                    <button
                        key={`${l.kind} ${l.what}`}
                        type="button"
                        className="btn px-3"
                        disabled={busy || over}
                        onClick={() => onLook(l.kind, l.what)}
                    >
                        {said(l.kind, l.what)} <span className="text-faint num">{l.effort}</span>
                    </button>
                ))}
        </div>
    );
}

function Shown({ round }: { round: Round }) {
    if (round.seen.length === 0) return <p className="text-faint">Nothing was looked at yet.</p>;
    return (
        <>
            <ul>
                {round.seen.map((s) => (
                    <li key={`${s.kind} ${s.what}`} className="flex justify-between border-b border-rule">
                        <span>{said(s.kind, s.what)}</span>
                        <strong>{s.state}</strong>
                    </li>
                ))}
            </ul>
            <p className="num">Looks cost {round.effort} so far.</p>
        </>
    );
}

function Naming({ causes, busy, onName }: { causes: Causes; busy: boolean; onName: (cause: string) => void }) {
    const [cause, setCause] = useState('');
    return (
        <div className="mt-2 flex flex-wrap items-end gap-3">
            <Select
                label="The cause"
                value={cause}
                empty="which?"
                onChange={setCause}
                options={causes.map((c) => ({ value: `${c.element} ${c.fault}`, text: suspectSaid(c) }))}
            />
            <button
                type="button"
                className="btn btn-main"
                disabled={busy || cause === ''}
                onClick={() => onName(cause)}
            >
                That is it
            </button>
        </div>
    );
}

function Outcome({ round }: { round: Round }) {
    if (!round.fault || !round.leader) return null;
    const verdict: ['good' | 'warn' | 'bad', string] = round.right
        ? ['good', 'Right']
        : round.alike
          ? ['warn', 'As good as right: nothing you looked at tells the two apart']
          : ['bad', 'No'];
    return (
        <div className="mt-2">
            <p className="font-head text-2xl">
                <Mark kind={verdict[0]}>{verdict[1]}</Mark>
            </p>
            <p>
                It was <strong>{suspectSaid(round.fault)}</strong>. With your looks the engine gives it{' '}
                <span className="num">{percent(round.posterior ?? 0)}</span> and would have named{' '}
                {suspectSaid(round.leader)}.
            </p>
        </div>
    );
}
