import { useState } from 'react';
import { api, fieldProblem, type Card } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { GradeFields, isGraded, saidOf, useGrade } from '../../bench/proofs/Grade';
import type { SectionProps } from '../../card/section';
import { Field, HouseNote, Mark, Panel, ProblemNote } from '../../kit/basics';
import { More } from '../../kit/More';
import { ReferencePicture } from './ReferencePicture';

type Item = NonNullable<Card['teardown']>['inspection'][number];
type Group = { code: string; name: string; items: Item[] };
type Props = SectionProps<'teardown'> & { editable: boolean };

/** The list in groups: by the element a part belongs to, else by what the list calls its place. */
export function groupsOf(inspection: Item[], elements: Record<string, string>): Group[] {
    const groups = new Map<string, Group>();
    for (const item of inspection) {
        const code = item.group || 'the rest';
        const group = groups.get(code) ?? { code, name: elements[code] ?? code, items: [] };
        group.items.push(item);
        groups.set(code, group);
    }
    return [...groups.values()];
}

const isSound = (i: Item): boolean => i.finding?.condition === i.conditions[0];

/** What a group comes to in a few words. */
export function saidOfGroup(items: Item[]): string {
    const seen = items.filter((i) => i.finding);
    const bad = seen.filter((i) => !isSound(i));
    const looked = `${seen.length} of ${items.length} looked at`;
    return seen.length === 0 ? looked : `${looked}, ${bad.length === 0 ? 'unharmed' : `${bad.length} not sound`}`;
}

/** Every part of the family's list: what was found, what becomes of it. Parts that are unharmed are evidence too. */
export function Inspection(props: Props) {
    const { house, inspection, elements } = props.section;
    const [q, setQ] = useState('');
    const named = inspection.filter((i) => `${i.name} ${i.partNumber}`.toLowerCase().includes(q.trim().toLowerCase()));
    return (
        <Panel title="Inspection" aside="first failure and what its debris did are two things">
            <HouseNote house={house.inspection} />
            <Field className="max-w-sm" label={`Part, of ${inspection.length}`} value={q} onChange={setQ} />
            {named.length === 0 && <p className="text-faint">No part of this family is called that.</p>}
            {groupsOf(named, elements).map((group) => (
                <OneGroup key={group.code} group={group} open={q !== ''} {...props} />
            ))}
        </Panel>
    );
}

function OneGroup({ group, open, ...props }: { group: Group; open: boolean } & Props) {
    const cause = group.items.some((i) => i.finding?.role === 'cause');
    return (
        <More
            className="border-b border-rule"
            open={open || cause}
            title={
                <>
                    <span className="flex-1 first-letter:uppercase">{group.name}</span>
                    {cause && <Mark kind="bad">cause</Mark>}
                    <span className="text-sm font-normal text-faint">{saidOfGroup(group.items)}</span>
                </>
            }
        >
            <ul className="divide-y divide-rule pl-3">
                {group.items.map((i) => (
                    <Finding key={i.part} item={i} {...props} />
                ))}
            </ul>
            {props.editable && <Unharmed parts={notLookedAt(group.items)} {...props} />}
        </More>
    );
}

/** What a look can tell and nobody has looked at yet. */
export const notLookedAt = (items: Item[]): Item[] => items.filter((i) => !i.finding && !i.measure);

/** The rest of a group was looked at and is sound: said in one go, by name. */
function Unharmed({ parts, card, onCard }: { parts: Item[] } & Props) {
    const { busy, problem, write } = useWrite();
    if (parts.length < 2) return null;
    const save = () =>
        write(
            () =>
                api.POST('/units/{number}/teardown/unharmed', {
                    params: { path: { number: card.coreTag } },
                    body: { parts: parts.map((i) => i.part) },
                }),
            onCard,
        );
    return (
        <div className="py-2 pl-3">
            <p className="text-sm text-faint">{parts.map((i) => i.name).join(', ')}</p>
            <ProblemNote problem={problem} />
            <button type="button" className="btn" disabled={busy} onClick={() => void save()}>
                I looked at these {parts.length}: unharmed
            </button>
        </div>
    );
}

function Finding({ item, editable, ...props }: { item: Item; editable: boolean } & SectionProps<'teardown'>) {
    const [open, setOpen] = useState(false);
    const f = item.finding;
    return (
        <li className="py-1">
            <div className="flex flex-wrap items-center gap-x-3">
                <strong className="flex-1">
                    {item.name} <span className="text-sm font-normal text-faint num">{item.partNumber}</span>
                </strong>
                <Found finding={f} />
                {editable && (
                    <button
                        type="button"
                        className="btn"
                        aria-expanded={open}
                        aria-label={`${f ? 'Change' : 'Inspect'} ${item.name}`}
                        onClick={() => setOpen(!open)}
                    >
                        {f ? 'change' : 'inspect'}
                    </button>
                )}
            </div>
            {f && !open && <Said finding={f} />}
            {f && open && props.can('teardown.reference') && (
                <ReferencePicture
                    number={props.card.coreTag}
                    part={item.part}
                    name={item.name}
                    condition={f.condition}
                    onCard={props.onCard}
                />
            )}
            {open && <WriteFinding item={item} {...props} onWritten={() => setOpen(false)} />}
        </li>
    );
}

/** What lies behind the word: the plates, the number, the note. */
function Said({ finding: f }: { finding: NonNullable<Item['finding']> }) {
    return (
        <>
            {f.plates.length > 0 && (
                <p className="text-sm">
                    From the piston: {f.plates.join(', ')}. {f.burn}
                </p>
            )}
            {f.reading && (
                <p className="text-sm num">
                    {f.reading} by {f.gauge}{' '}
                    <Mark kind={f.inside ? 'good' : 'bad'}>{f.inside ? 'inside' : 'outside its window'}</Mark>
                </p>
            )}
            {f.pieces && (
                <p className="text-sm">
                    {f.pieces === 'whole' ? (
                        'All its pieces were found.'
                    ) : (
                        <Mark kind="bad">pieces of it are missing</Mark>
                    )}
                </p>
            )}
            {f.note && <p className="text-sm">{f.note}</p>}
        </>
    );
}

function Found({ finding: f }: { finding: Item['finding'] }) {
    if (!f) return <Mark kind="idle">not looked at</Mark>;
    return (
        <span>
            {f.condition}, {f.disposition} {f.role === 'cause' && <Mark kind="bad">cause</Mark>}
            {f.role === 'collateral' && <Mark kind="warn">collateral</Mark>}{' '}
            <span className="text-sm text-faint">{f.by}</span>
        </span>
    );
}

/** The customer lets a part of their own unit go: who said so, and how. */
function Swap({ part, card, onCard }: { part: string } & Pick<SectionProps<'teardown'>, 'card' | 'onCard'>) {
    const [agreedBy, setAgreedBy] = useState('');
    const [how, setHow] = useState('');
    const { busy, problem, write } = useWrite();
    const save = () =>
        write(
            () =>
                api.POST('/units/{number}/teardown/swaps', {
                    params: { path: { number: card.coreTag } },
                    body: { part, agreedBy, how },
                }),
            onCard,
        );
    return (
        <div className="flex flex-wrap items-end gap-3">
            <Field
                label="Who of the customer agreed"
                value={agreedBy}
                onChange={setAgreedBy}
                problem={fieldProblem(problem, '/agreedBy')}
            />
            <Field label="How" value={how} onChange={setHow} problem={fieldProblem(problem, '/how')} />
            <button type="button" className="btn" disabled={busy} onClick={() => void save()}>
                They agreed: write it down
            </button>
            <ProblemNote problem={problem} except={['/agreedBy', '/how']} />
        </div>
    );
}

function WriteFinding({
    item,
    card,
    onCard,
    section,
    onWritten,
}: { item: Item; onWritten: () => void } & SectionProps<'teardown'>) {
    const [grade, setGrade] = useGrade(item);
    const { gauges, routes, references } = section;
    const { busy, problem, write } = useWrite();
    const save = () =>
        write(
            () =>
                api.POST('/units/{number}/teardown/findings', {
                    params: { path: { number: card.coreTag } },
                    body: { part: item.part, ...saidOf(grade, item), version: item.finding?.version ?? null },
                }),
            (next) => {
                onCard(next);
                onWritten();
            },
        );
    return (
        <div className="my-2 flex flex-col gap-2 border-l-4 border-hand pl-3">
            <GradeFields {...{ item, grade, problem, gauges, routes, references }} onGrade={setGrade} at="" />
            <ProblemNote problem={problem} except={['/reading', '/gauge', '/pieces', '/route', '/note']} />
            {fieldProblem(problem, '/disposition') && <Swap part={item.part} {...{ card, onCard }} />}
            <button
                type="button"
                className="btn btn-main self-start"
                disabled={busy || !isGraded(grade)}
                onClick={() => void save()}
            >
                Write it down
            </button>
        </div>
    );
}
