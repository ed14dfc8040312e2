import { useState } from 'react';
import { api, fieldProblem, type Schemas } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { Field, HouseNote, Mark, ProblemNote } from '../../kit/basics';
import { formatValue } from '../../kit/format';
import { More } from '../../kit/More';
import { StackDrawing, type Plate } from '../../kit/StackDrawing';
import type { ProofProps } from '../types';
import { ProofForm } from './ProofForm';
import { placeOf } from './Reading';

type Proposal = Schemas['Proposal'];
type Choice = { clearance: number; picks: { slot: string; part: string; count: number }[] };
type Result = {
    feasible: boolean;
    reason?: string;
    best?: Choice;
    alternatives: Choice[];
    nearest?: Choice & { shortBy: number };
};
type Place = NonNullable<ReturnType<typeof placeOf>>;

/** Selective parts: a depth or a trial play in, the parts that reach the window out. */
export function FitProof(props: ProofProps) {
    const place = placeOf(props.material, props.proof);
    return place ? <FitPlace {...props} place={place} /> : <p>This build has no such place.</p>;
}

/** What is measured, and what is proposed for it; a measure typed anew wants a new proposal. */
function useProposal(number: string, place: Place) {
    const [reading, setReading] = useState('');
    const [washer, setWasher] = useState(place.trialWasher == null ? '' : String(place.trialWasher));
    const [proposal, setProposal] = useState<Proposal | null>(null);
    const { write, problem } = useWrite();
    const measured = { reading, trialWasher: place.kind === 'end-play' ? washer : null };
    const propose = () =>
        void write(
            () =>
                api.POST('/units/{number}/assembly/places/{place}/propose', {
                    params: { path: { number, place: place.code } },
                    body: measured,
                }),
            setProposal,
        );
    const anew = (set: (v: string) => void) => (v: string) => {
        set(v);
        setProposal(null);
    };
    return {
        reading,
        washer,
        measured,
        proposal,
        propose,
        problem,
        onReading: anew(setReading),
        onWasher: anew(setWasher),
    };
}

function FitPlace({ number, send, problem, place: p }: ProofProps & { place: Place }) {
    const fit = useProposal(number, p);
    const best = (fit.proposal?.result as Result | undefined)?.best;
    const take = (choice: Choice) => send({ ...fit.measured, picks: choice.picks });
    return (
        <ProofForm onSend={() => (best ? take(best) : fit.propose())} problem={problem}>
            {p.forOptions.length > 0 && <NotUsual place={p} />}
            <div className="flex flex-wrap items-end gap-3">
                <Field
                    className="w-44 text-2xl"
                    label={p.kind === 'end-play' ? 'Play, trial fit' : 'Groove depth'}
                    value={fit.reading}
                    autoFocus
                    onChange={fit.onReading}
                    hint={p.nominalDepth ? `about ${p.nominalDepth} ${p.unit}` : undefined}
                    problem={fieldProblem(fit.problem, '/reading')}
                />
                {p.kind === 'end-play' && (
                    <Field
                        className="w-44"
                        label="Washer fitted for trial"
                        value={fit.washer}
                        onChange={fit.onWasher}
                        problem={fieldProblem(fit.problem, '/trialWasher')}
                    />
                )}
                <p className="flex-1 text-sm">
                    {p.how} {p.note}
                </p>
            </div>
            <ProblemNote problem={fit.problem} except={['/reading', '/trialWasher']} />
            {fit.proposal && <Proposed proposal={fit.proposal} place={p} onTake={take} />}
            <HouseNote house={p.house} />
        </ProofForm>
    );
}

function NotUsual({ place: p }: { place: Place }) {
    return (
        <p className="border-l-4 border-warn bg-sheet px-3 py-1">
            <Mark kind="warn">Not the usual stack</Mark>{' '}
            {p.fixed.length > 0 && <strong>{p.fixed.map((f) => `${f.count} × ${f.name}`).join(', ')}</strong>}
            <span className="block text-sm">Changed for: {p.forOptions.join('; ')}</span>
        </p>
    );
}

function Proposed({ proposal, place: p, onTake }: { proposal: Proposal; place: Place; onTake: (c: Choice) => void }) {
    const result = proposal.result as Result;
    const show = (v: number) => formatValue(v, p.unit);
    if (!result.best) return <Nothing result={result} place={p} />;
    return (
        <div className="grid gap-3 border-l-4 border-hand pl-3 sm:grid-cols-[auto_1fr]">
            {p.kind === 'pack' && (
                <StackDrawing
                    plates={platesOf(proposal, result.best)}
                    clearance={result.best.clearance}
                    depth={proposal.depth}
                    unit={p.unit}
                />
            )}
            <div>
                <p>
                    Best from the shelf:{' '}
                    <strong className="font-head text-4xl num">
                        {show(result.best.clearance)} {p.unit}
                    </strong>{' '}
                    <span className="num">{result.best.picks.map((k) => `${k.count} × ${k.part}`).join(', ')}</span>
                </p>
                {proposal.needed != null && (
                    <p className="text-sm">
                        New washer = {show(proposal.fitted ?? 0)} + ({show(proposal.measured ?? 0)} −{' '}
                        {show(proposal.target)}) = <strong className="num">{show(proposal.needed)}</strong>
                    </p>
                )}
                {result.alternatives.length > 0 && <OtherWays onTake={onTake} result={result} show={show} />}
                <Working proposal={proposal} show={show} />
            </div>
        </div>
    );
}

function OtherWays({
    onTake,
    result,
    show,
}: {
    onTake: (c: Choice) => void;
    result: Result;
    show: (v: number) => string;
}) {
    return (
        <More title={<>{result.alternatives.length} other ways</>}>
            <ul>
                {result.alternatives.map((c, i) => (
                    <li key={i} className="num text-sm">
                        <button type="button" className="min-h-11 text-left underline" onClick={() => onTake(c)}>
                            {show(c.clearance)}: {c.picks.map((k) => `${k.count} × ${k.part}`).join(', ')}
                        </button>
                    </li>
                ))}
            </ul>
        </More>
    );
}

function Working({ proposal, show }: { proposal: Proposal; show: (v: number) => string }) {
    return (
        <More title="The working">
            <p className="text-sm">
                Clearance = depth {show(proposal.depth)} −{' '}
                {proposal.fixed.map((f) => `${f.count} × ${f.name} ${f.thickness}`).join(' − ') || 'nothing fixed'} −
                the parts picked; nearest to {show(proposal.target)} within {show(proposal.window.min)} to{' '}
                {show(proposal.window.max)}, from today's shelf stock. Exact search (fit.stack).
            </p>
        </More>
    );
}

/** Why the shelf does not help, and how near it comes. */
function Nothing({ result, place: p }: { result: Result; place: Place }) {
    const nearest = result.nearest;
    if (result.reason === 'stock' || !nearest) return <Mark kind="bad">The shelf does not hold enough pieces.</Mark>;
    const [clearance, short] = [nearest.clearance, Math.abs(nearest.shortBy)].map((v) => formatValue(v, p.unit));
    const way = nearest.shortBy > 0 ? 'tight' : 'loose';
    return (
        <Mark kind="bad">
            Nothing on the shelf reaches the window: the nearest is {clearance} {p.unit}, {short} too {way}.
        </Mark>
    );
}

function platesOf(proposal: Proposal, choice: Choice): Plate[] {
    const thickness = new Map(proposal.slots.flatMap((s) => s.options.map((o) => [o.part, o.thickness] as const)));
    const fixed = proposal.fixed.flatMap((f) =>
        Array.from({ length: f.count }, (): Plate => ({ name: f.name, thickness: f.thickness, kind: 'fixed' })),
    );
    const picked = choice.picks.flatMap((k) =>
        Array.from({ length: k.count }, (): Plate => ({
            name: k.part,
            thickness: thickness.get(k.part) ?? 0,
            kind: 'picked',
        })),
    );
    // Friction and steel by turns where there are several of both; single plates go on top.
    const many = picked.filter((p) => choice.picks.some((k) => k.part === p.name && k.slot === 'steels'));
    const rest = picked.filter((p) => !many.includes(p));
    const out: Plate[] = [];
    for (let i = 0; i < Math.max(many.length, fixed.length); i++)
        out.push(...[many[i], fixed[i]].filter((p) => p !== undefined));
    return [...out, ...rest];
}
