import type { Card, Problem } from '../api/client';
import { Caution, HouseNote, Mark } from '../kit/basics';
import { moment } from '../kit/format';
import { PROOFS } from './proofs';
import { Spoken } from './Spoken';
import { dueAt, type BenchName, type Material, type Operation, type ProofAsked, type Send } from './types';

type Props = {
    bench: BenchName;
    card: Card;
    material: Material;
    operation: Operation;
    editable: boolean;
    busy: boolean;
    problem: Problem | null;
    prove: (operation: string, proof: string, ...sent: Parameters<Send>) => Promise<boolean>;
};

/** The operation in hand: the proof that is due, and what one must know. */
export function InHand({ bench, card, material, operation: o, editable, busy, problem, prove }: Props) {
    const at = dueAt(o);
    const proof = o.state === 'done' ? undefined : o.proofs[at];
    const Due = proof && PROOFS[proof.kind];
    return (
        <div className="grid flex-1 content-start gap-4 p-3 lg:grid-cols-[1.6fr_1fr]">
            <div>
                <h2 className="mb-1 text-4xl">{o.name}</h2>
                <Standing operation={o} />
                {o.proofs.length > 1 && <Proofs operation={o} at={at} material={material} />}
                {Due && editable && o.state === 'open' && (
                    <div data-proof={`${o.code}/${proof.code}`}>
                        <Due
                            key={proof.code}
                            number={card.coreTag}
                            {...{ bench, operation: o, proof, material, busy, problem }}
                            proven={o.proven[at]}
                            send={(...sent) => void prove(o.code, proof.code, ...sent)}
                        />
                    </div>
                )}
            </div>
            <Know number={card.coreTag} bench={bench} operation={o} />
        </div>
    );
}

function Standing({ operation: o }: { operation: Operation }) {
    if (o.activity === 'jammed') return <Mark kind="bad">Set aside, it jams: {o.reason}</Mark>;
    if (o.state === 'done') {
        return (
            <Mark kind="good">
                done by {o.by}, {o.at && moment(o.at)}
            </Mark>
        );
    }
    return o.reason ? <Mark kind="warn">{o.reason}</Mark> : null;
}

const PROOF_WORDS: Record<ProofAsked['kind'], string> = {
    done: 'done',
    count: 'count',
    reading: 'measure',
    fit: 'choose parts',
    torque: 'torque',
    air: 'air check',
    metal: 'metal of the bolts',
    orientation: 'which way round',
    photo: 'picture',
    scan: 'scan',
    timer: 'time',
    condition: 'look at',
    sign: 'second person',
    observation: 'what is seen',
    tool: 'tool',
    patch: 'patch',
    values: 'test',
    free: 'moving freely:',
    skilled: 'skill',
};

function Proofs({ operation: o, at, material }: { operation: Operation; at: number; material: Material }) {
    const named = (p: ProofAsked) =>
        p.kind === 'condition' ? (material.teardown?.inspection.find((i) => i.part === p.of)?.name ?? p.of) : p.of;
    return (
        <ol className="mb-1 flex flex-wrap gap-x-4">
            {o.proofs.map((p, n) => (
                <li key={p.code} aria-current={n === at ? 'step' : undefined}>
                    <Mark kind={o.proven[n]?.open === null ? 'good' : n === at ? 'next' : 'idle'}>
                        {PROOF_WORDS[p.kind]}{' '}
                        {['count', 'done', 'orientation', 'observation'].includes(p.kind) ? '' : named(p)}
                    </Mark>
                </li>
            ))}
        </ol>
    );
}

const ROWS = [
    ['tool', 'Tool'],
    ['comesWith', 'Comes with it'],
    ['staysBehind', 'Stays behind'],
    ['keepTogether', 'Keep together'],
    ['mark', 'Mark first'],
    ['because', 'Asked for by'],
] as const;

function Know({ number, bench, operation: o }: { number: string; bench: BenchName; operation: Operation }) {
    return (
        <div className="flex flex-col gap-2">
            <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
                {ROWS.map(([field, label]) =>
                    o[field] ? (
                        <div key={field} className="contents">
                            <dt className="text-faint">{label}</dt>
                            <dd className="font-semibold">{o[field]}</dd>
                        </div>
                    ) : null,
                )}
            </dl>
            {o.stages && (
                <ol className="flex flex-wrap gap-x-2" aria-label="Stages of washing, in order">
                    {o.stages.map((stage, n) => (
                        <li key={stage} className="font-semibold">
                            {n > 0 && <span aria-hidden="true">→ </span>}
                            {stage}
                        </li>
                    ))}
                </ol>
            )}
            {o.earlier.map((said) => (
                <p key={said} className="border-l-4 border-bad px-3">
                    <strong>On this very unit.</strong> {said}
                </p>
            ))}
            {o.trap && (
                <p className="border-l-4 border-warn px-3">
                    <strong>Trap.</strong> {o.trap}
                </p>
            )}
            {o.caution && <Caution>{o.caution}</Caution>}
            <HouseNote house={o.house} />
            {o.note && <p className="text-sm">Note: {o.note}</p>}
            <Spoken {...{ number, bench }} spoken={o.spoken} />
        </div>
    );
}
