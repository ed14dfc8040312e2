import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState, type FormEvent } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { answer, api, fieldProblem, isProblem, type Schemas } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { Field, HeadRow, Mark, Panel, ProblemNote, Select } from '../../kit/basics';
import { Fetched, Pending } from '../../kit/Fetched';
import { formatValue } from '../../kit/format';

type Plan = Schemas['BinPlan'];
type Depths = Record<string, string>;

/** One bin for all builds at the bench: who gets which plates, who goes without, what one more piece would bring. */
export function BinPlan() {
    const { family, pack } = useParams();
    const go = useNavigate();
    const choices = useQuery({ queryKey: ['processes'], queryFn: () => answer(api.GET('/processes')) });
    if (!choices.data) return <Pending of={[choices]} what="the packs" />;
    const chosen = choices.data.families.find((f) => f.family === family);
    const packs = chosen?.places.filter((p) => p.kind === 'pack') ?? [];
    return (
        <>
            <h1 className="mb-2 text-3xl">The bin, shared out</h1>
            <div className="mb-3 flex flex-wrap gap-3">
                <Select
                    label="Family"
                    value={family ?? ''}
                    empty="which family?"
                    options={choices.data.families.map((f) => ({ value: f.family, text: f.name }))}
                    onChange={(f) => void go(`/bin-plan/${f}`)}
                />
                {chosen && (
                    <Select
                        label="Pack"
                        value={pack ?? ''}
                        empty="which pack?"
                        options={packs.map((p) => ({ value: p.code, text: p.name }))}
                        onChange={(p) => void go(`/bin-plan/${family}/${p}`)}
                    />
                )}
            </div>
            {family && pack ? (
                <OnePlan key={`${family} ${pack}`} {...{ family, pack }} />
            ) : (
                <p className="sheet p-4 text-faint">Choose a family and a pack of it.</p>
            )}
        </>
    );
}

/** The plan with the depths typed so far; the last plan stays while a new one is reckoned. */
function usePlan(family: string, pack: string) {
    const [depths, setDepths] = useState<Depths>({});
    const plan = useQuery({
        queryKey: ['bin-plan', family, pack, depths],
        queryFn: () =>
            answer(api.POST('/bin-plans/{family}/{pack}', { params: { path: { family, pack } }, body: { depths } })),
        placeholderData: (before) => before,
        retry: false,
    });
    return { plan, depths, setDepths, problem: isProblem(plan.error) ? plan.error : null };
}

function OnePlan({ family, pack }: { family: string; pack: string }) {
    const [typed, setTyped] = useState<Depths>({});
    const { plan, depths, setDepths, problem } = usePlan(family, pack);
    const share = (e: FormEvent) => {
        e.preventDefault();
        setDepths(typed);
    };
    return (
        <Fetched query={plan} what="the plan">
            {(p) =>
                p.builds.length === 0 ? (
                    <p className="sheet p-4">No build at the bench waits for this pack.</p>
                ) : (
                    <div className="grid items-start gap-3 lg:grid-cols-[3fr_2fr]">
                        <Panel title={`${p.assigned} of ${p.builds.length} builds land in their windows`}>
                            <form onSubmit={share}>
                                <Builds
                                    plan={p}
                                    typed={typed}
                                    wrong={(tag) => fieldProblem(problem, `/depths/${tag}`)}
                                    onTyped={(tag, depth) => setTyped({ ...typed, [tag]: depth })}
                                />
                                <button type="submit" className="btn btn-main mt-2" disabled={plan.isFetching}>
                                    Share it out with these depths
                                </button>
                            </form>
                            <Keep {...{ family, pack, depths }} plan={p} />
                        </Panel>
                        <OneMore plan={p} />
                    </div>
                )
            }
        </Fetched>
    );
}

type KeepProps = { family: string; pack: string; depths: Depths; plan: Plan };

function useKeep({ family, pack, depths }: KeepProps) {
    const client = useQueryClient();
    const { busy, problem, write } = useWrite();
    const again = () => void client.invalidateQueries({ queryKey: ['bin-plan', family, pack] });
    const path = { family, pack };
    const keep = () =>
        void write(() => api.POST('/bin-plans/{family}/{pack}/kept', { params: { path }, body: { depths } }), again);
    const giveBack = (number: string) =>
        void write(
            () => api.DELETE('/bin-plans/{family}/{pack}/kept/{number}', { params: { path: { ...path, number } } }),
            again,
        );
    return { busy, problem, keep, giveBack };
}

/** Accepted is kept: no other build is offered these pieces. */
function Keep(props: KeepProps) {
    const { builds, assigned } = props.plan;
    const { busy, problem, keep, giveBack } = useKeep(props);
    return (
        <div className="mt-3 border-t border-rule pt-2">
            <button type="button" className="btn" disabled={busy || assigned === 0} onClick={keep}>
                Keep these pieces for their builds
            </button>
            <ul className="mt-2">
                {builds
                    .filter((b) => b.kept)
                    .map((b) => (
                        <li key={b.coreTag} className="flex flex-wrap items-center gap-3 py-1">
                            <Mark kind="good">kept for {b.serial ?? b.coreTag}</Mark>
                            <button
                                type="button"
                                className="btn"
                                disabled={busy}
                                aria-label={`Give back what is kept for ${b.serial ?? b.coreTag}`}
                                onClick={() => giveBack(b.coreTag)}
                            >
                                give back
                            </button>
                        </li>
                    ))}
            </ul>
            <ProblemNote problem={problem} />
        </div>
    );
}

type BuildsProps = {
    plan: Plan;
    typed: Depths;
    wrong: (tag: string) => string | undefined;
    onTyped: (tag: string, depth: string) => void;
};

function Builds({ plan: p, typed, wrong, onTyped }: BuildsProps) {
    return (
        <table className="w-full">
            <HeadRow of={['Build', `Depth, ${p.unit}`, 'Gets', 'Clearance']} />
            <tbody>
                {p.builds.map((b) => (
                    <tr key={b.coreTag} className="border-b border-rule align-top">
                        <th scope="row" className="td text-left">
                            <Link className="underline num" to={`/units/${b.coreTag}/assembly`}>
                                {b.serial ?? b.coreTag}
                            </Link>
                        </th>
                        <td className="td">
                            <Field
                                className="w-32"
                                label={b.measured ? 'as measured' : `usual ${b.depth}`}
                                value={typed[b.coreTag] ?? ''}
                                onChange={(depth) => onTyped(b.coreTag, depth)}
                                problem={wrong(b.coreTag)}
                            />
                        </td>
                        <td className="td text-sm">
                            {b.clearance === null ? (
                                <Mark kind="bad">goes without</Mark>
                            ) : (
                                b.picks.map((k) => `${k.count} × ${k.name}`).join(', ')
                            )}
                        </td>
                        <td className="td num">{b.clearance === null ? '–' : formatValue(b.clearance, p.unit)}</td>
                    </tr>
                ))}
            </tbody>
        </table>
    );
}

/** What one more piece of each size would bring: what to buy, or to swap from another build. */
function OneMore({ plan: p }: { plan: Plan }) {
    return (
        <Panel title="One more piece would bring">
            {!p.optimal && (
                <p>
                    <Mark kind="warn">searched as far as time allows: no plan fills more than {p.most}</Mark>
                </p>
            )}
            {p.oneMore.length === 0 && (
                <p className="text-faint">
                    {p.assigned === p.builds.length
                        ? 'Every build is served.'
                        : 'No single piece more would fill another build: measure the depths, or look at the windows.'}
                </p>
            )}
            <ul>
                {p.oneMore.map((m) => (
                    <li key={m.part} className="flex flex-wrap justify-between gap-3 border-b border-rule py-1">
                        <span>
                            <strong>{m.name}</strong> <span className="num text-faint">{m.part}</span>
                        </span>
                        <span className="num">
                            {m.builds} more {m.builds === 1 ? 'build' : 'builds'}, {m.shelf} on the shelf
                        </span>
                    </li>
                ))}
            </ul>
        </Panel>
    );
}
