import type { Schemas } from '../../api/client';
import { Choice, Field, Panel } from '../../kit/basics';
import { formatMoney } from '../../kit/format';
import { CreditLines } from './CreditLines';
import type { Family, Form, Grade, Writing } from './draft';

const FLAGS: Record<string, string> = { caseBroken: 'Case broken', wrongUnit: 'Not a unit we take' };

type Props = Writing & { form: Form; family: Family | undefined; credit: Schemas['CreditPreview'] | null };

/** What is missing and lost, the grade that follows, and the credit, beside the unit all the time. */
export function Worth({ d, set, at, form: f, family, credit, children }: Props & { children: React.ReactNode }) {
    const hours = Number(d.repairHours);
    const toggleHard = (part: string) =>
        set({
            failedHard: d.failedHard.includes(part) ? d.failedHard.filter((p) => p !== part) : [...d.failedHard, part],
        });
    return (
        <div className="flex flex-col gap-3 lg:sticky lg:top-14">
            <Panel title="Credit">
                {credit && d.family ? (
                    <>
                        <p className="font-head text-5xl num">{formatMoney(credit.credit)}</p>
                        <CreditLines lines={credit.lines} />
                        <p className="text-sm text-faint">
                            Lowest core charge of the family until the variant is confirmed.
                        </p>
                    </>
                ) : (
                    <p className="text-faint">Shown when the family is chosen.</p>
                )}
                {children}
            </Panel>
            <Panel title="Missing and lost">
                {!family && <p className="text-faint">Choose the family to see its parts.</p>}
                {family && (
                    <p className="mb-2 text-sm">
                        {d.missing.length === 0
                            ? 'Nothing is marked missing.'
                            : `Missing: ${d.missing.map((n) => family.outsideParts.find((p) => p.number === n)?.name ?? n).join(', ')}.`}
                    </p>
                )}
                {family && (
                    <Toggles
                        title="Hard parts lost at receipt"
                        parts={family.hardParts}
                        chosen={d.failedHard}
                        onToggle={toggleHard}
                    />
                )}
                <div className="mt-2 grid grid-cols-2 items-start gap-3">
                    <Field
                        label="Repair hours"
                        inputMode="decimal"
                        value={d.repairHours}
                        onChange={(v) => set({ repairHours: v })}
                        problem={
                            Number.isNaN(hours) ? 'Type a number with a point, for example 1.5' : at('/repairHours')
                        }
                    />
                    <fieldset>
                        <legend className="text-sm font-semibold text-faint">Refuse it</legend>
                        {Object.entries(FLAGS).map(([k, text]) => (
                            <label key={k} className="flex min-h-9 items-center gap-2">
                                <input
                                    type="checkbox"
                                    className="size-5 accent-[var(--hand)]"
                                    checked={d.flags.includes(k)}
                                    onChange={() =>
                                        set({
                                            flags: d.flags.includes(k)
                                                ? d.flags.filter((x) => x !== k)
                                                : [...d.flags, k],
                                        })
                                    }
                                />
                                {text}
                            </label>
                        ))}
                    </fieldset>
                </div>
            </Panel>
            <Panel title="Grade">
                {credit && d.family && (
                    <p className="mb-1">
                        <span className="font-head text-4xl">{credit.proposedGrade}</span>{' '}
                        <span className="text-sm">by the house rules: {credit.proposedReason}</span>
                    </p>
                )}
                <Choice
                    label="Give another grade"
                    value={d.grade}
                    values={f.grades}
                    onChange={(v) => set({ grade: d.grade === v ? null : (v as Grade) })}
                />
                {d.grade && d.grade !== credit?.proposedGrade && (
                    <Field
                        label="Why this grade"
                        value={d.gradeReason}
                        onChange={(v) => set({ gradeReason: v })}
                        problem={at('/gradeReason')}
                    />
                )}
            </Panel>
        </div>
    );
}

function Toggles({
    title,
    parts,
    chosen,
    onToggle,
}: {
    title: string;
    parts: { number: string; name: string; price: number }[];
    chosen: string[];
    onToggle: (part: string) => void;
}) {
    return (
        <fieldset className="mb-2">
            <legend className="text-sm font-semibold text-faint">{title}</legend>
            <ul>
                {parts.map((p) => (
                    <li key={p.number}>
                        <label className="flex min-h-9 items-center gap-2">
                            <input
                                type="checkbox"
                                className="size-5 accent-[var(--hand)]"
                                checked={chosen.includes(p.number)}
                                onChange={() => onToggle(p.number)}
                            />
                            <span className="flex-1">{p.name}</span>
                            <span className="num">{formatMoney(p.price)}</span>
                        </label>
                    </li>
                ))}
            </ul>
        </fieldset>
    );
}
