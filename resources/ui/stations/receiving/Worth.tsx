import type { ReactNode } from 'react';
import type { Schemas } from '../../api/client';
import { Panel } from '../../kit/basics';
import { formatMoney } from '../../kit/format';
import { CreditLines } from './CreditLines';
import { Buttons, Checks, Text, useIntake, type Family, type Form } from './draft';

const FLAGS = [
    { value: 'caseBroken', text: 'Case broken' },
    { value: 'wrongUnit', text: 'Not a unit we take' },
];

type Props = { form: Form; family: Family | undefined; credit: Schemas['CreditPreview'] | null };

/** What is missing and lost, the grade that follows, and the credit, beside the unit all the time. */
export function Worth({ form: f, family, credit, children }: Props & { children: React.ReactNode }) {
    const { d } = useIntake();
    return (
        <div className="flex flex-col gap-3 lg:sticky lg:top-14">
            <Credit credit={credit} children={children} d={d} />
            <Lost family={family} d={d} />
            <Grade f={f} credit={credit} d={d} />
        </div>
    );
}

function Credit({
    credit,
    children,
    d,
}: {
    credit: Schemas['CreditPreview'] | null;
    children: ReactNode;
    d: ReturnType<typeof useIntake>['d'];
}) {
    return (
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
    );
}

function Lost({ family, d }: { family: Family | undefined; d: ReturnType<typeof useIntake>['d'] }) {
    return (
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
                <Checks
                    name="failedHard"
                    label="Hard parts lost at receipt"
                    values={family.hardParts.map((p) => ({
                        value: p.number,
                        text: (
                            <>
                                <span className="flex-1">{p.name}</span>
                                <span className="num">{formatMoney(p.price)}</span>
                            </>
                        ),
                    }))}
                />
            )}
            <div className="mt-2 grid grid-cols-2 items-start gap-3">
                <Text name="repairHours" label="Repair hours" inputMode="decimal" />
                <Checks name="flags" label="Refuse it" values={FLAGS} />
            </div>
        </Panel>
    );
}

function Grade({
    f,
    credit,
    d,
}: {
    f: Schemas['IntakeForm'];
    credit: Schemas['CreditPreview'] | null;
    d: ReturnType<typeof useIntake>['d'];
}) {
    return (
        <Panel title="Grade">
            {credit && d.family && (
                <p className="mb-1">
                    <span className="font-head text-4xl">{credit.proposedGrade}</span>{' '}
                    <span className="text-sm">by the house rules: {credit.proposedReason}</span>
                </p>
            )}
            <Buttons name="grade" label="Give another grade" values={f.grades} optional />
            {d.grade && d.grade !== credit?.proposedGrade && <Text name="gradeReason" label="Why this grade" />}
        </Panel>
    );
}
