import { useState } from 'react';
import { api, fieldProblem, type Card, type Problem } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import type { SectionProps } from '../../card/section';
import { Choice, Field, Mark, ProblemNote, Select } from '../../kit/basics';
import { More } from '../../kit/More';
import { moment } from '../../kit/format';

type Rescue = NonNullable<Card['teardown']>['rescue'];
type Method = Rescue['methods'][number];

const TROUBLES = ['seized', 'stripped', 'broken'] as const;
type Trouble = (typeof TROUBLES)[number];

/** What helps against a trouble, in the order it is tried; what is forbidden here keeps its place and says why. */
export const waysFor = (methods: Method[], trouble: Trouble): Method[] =>
    methods.filter((m) => m.for.includes(trouble));

/** A fastener or shaft that will not come: what may be done about it here, and what was. */
export function RescueBench(props: SectionProps<'teardown'> & { editable: boolean }) {
    const { rescue } = props.section;
    return (
        <section className="sheet px-4 py-1">
            <More title="A bolt or shaft that will not come" open={rescue.repairs.length > 0}>
                <p className="text-sm text-faint">
                    Seized, stripped or broken: what may be done here, in this order. The maker&apos;s procedure, local
                    rules and licensed practice come first.
                </p>
                {rescue.repairs.map((r) => (
                    <div key={r.at + r.place} className="border-b border-rule py-1">
                        <strong>
                            {r.name}, {r.trouble}
                        </strong>{' '}
                        {r.method}. <span className="text-sm">Then: {r.after}</span>{' '}
                        <span className="text-sm text-faint">
                            {r.by}, {moment(r.at)}
                            {r.note && `: ${r.note}`}
                        </span>
                    </div>
                ))}
                {props.editable && <Repair {...props} />}
            </More>
        </section>
    );
}

type Draft = { place: string; trouble: Trouble | null; method: string; note: string };
const NOTHING: Draft = { place: '', trouble: null, method: '', note: '' };

function Repair({ card, onCard, section }: SectionProps<'teardown'>) {
    const [draft, setDraft] = useState(NOTHING);
    const { busy, problem, write } = useWrite();
    const set = (change: Partial<Draft>) => setDraft({ ...draft, ...change });
    const trouble = draft.trouble;
    const save = async (trouble: Trouble) => {
        const sent = { params: { path: { number: card.coreTag } }, body: { ...draft, trouble } };
        const done = (next: Card) => {
            onCard(next);
            setDraft(NOTHING);
        };
        await write(() => api.POST('/units/{number}/teardown/repairs', sent), done);
    };
    return (
        <div className="flex flex-col gap-2">
            <Where rescue={section.rescue} {...{ draft, set, problem }} />
            {trouble && (
                <Ways
                    ways={waysFor(section.rescue.methods, trouble)}
                    method={draft.method}
                    onMethod={(method) => set({ method })}
                />
            )}
            {trouble && draft.method && (
                <>
                    <Field label="Note" value={draft.note} onChange={(note) => set({ note })} />
                    <ProblemNote problem={problem} except={['/place']} />
                    <button
                        type="button"
                        className="btn btn-main self-start"
                        disabled={busy || !draft.place}
                        onClick={() => void save(trouble)}
                    >
                        It came: write the repair down
                    </button>
                </>
            )}
        </div>
    );
}

type WhereProps = {
    rescue: Rescue;
    draft: Draft;
    set: (change: Partial<Draft>) => void;
    problem: Problem | null;
};

function Where({ rescue, draft, set, problem }: WhereProps) {
    return (
        <>
            <Select
                label="What"
                value={draft.place}
                onChange={(place) => set({ place })}
                empty="which bolts, which shaft?"
                options={rescue.places.map((p) => ({
                    value: p.code,
                    text: [p.name, p.size].filter(Boolean).join(': '),
                }))}
                problem={fieldProblem(problem, '/place')}
            />
            <Choice
                label="It is"
                value={draft.trouble}
                values={TROUBLES}
                onChange={(t) => set({ trouble: TROUBLES.find((k) => k === t) ?? null, method: '' })}
            />
        </>
    );
}

function Ways({ ways, method, onMethod }: { ways: Method[]; method: string; onMethod: (m: string) => void }) {
    return (
        <ol className="divide-y divide-rule">
            {ways.map((w, n) => (
                <li key={w.code} className="flex flex-wrap items-center gap-x-3 py-1">
                    <span className="flex-1">
                        <strong>
                            {n + 1}. {w.name}
                        </strong>{' '}
                        <span className="text-sm text-faint num">{w.hours} h</span>
                        {w.note && <span className="block text-sm">{w.note}</span>}
                        {w.forbidden && <Mark kind="bad">forbidden here: {w.forbidden}</Mark>}
                        {method === w.code && <span className="block text-sm">After it: {w.after}</span>}
                    </span>
                    {!w.forbidden && (
                        <button
                            type="button"
                            className={`btn ${method === w.code ? 'btn-chosen' : ''}`}
                            aria-pressed={method === w.code}
                            aria-label={`This way: ${w.name}`}
                            onClick={() => onMethod(w.code)}
                        >
                            {method === w.code && <span aria-hidden="true">✓ </span>}this way
                        </button>
                    )}
                </li>
            ))}
        </ol>
    );
}
