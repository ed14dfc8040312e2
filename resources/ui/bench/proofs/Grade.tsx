import { useState } from 'react';
import type { Card } from '../../api/client';
import { Choice, Field } from '../../kit/basics';

type Item = NonNullable<Card['teardown']>['inspection'][number];
export type Grade = { condition: string; disposition: string; role: string; note: string; ours: boolean };

const DISPOSITIONS = ['reuse', 'recondition', 'replace', 'scrap', 'shelf'];
const ROLES: Record<string, string> = { cause: 'the cause', collateral: 'done by its debris', none: 'neither' };

const NOTHING: Grade = { condition: '', disposition: '', role: '', note: '', ours: false };

/** What was found before, or nothing: nobody's judgement is chosen beforehand. */
export const useGrade = (item: Item | undefined) => useState<Grade>({ ...NOTHING, ...item?.finding });

/** Condition of a part, what becomes of it, whether it is the cause. */
export function GradeFields({ item, grade, onGrade }: { item: Item; grade: Grade; onGrade: (g: Grade) => void }) {
    const set = (change: Partial<Grade>) => onGrade({ ...grade, ...change });
    return (
        <div className="grid gap-x-6 gap-y-1 sm:grid-cols-2">
            <Choice
                label={`${item.name} (${item.partNumber}): condition`}
                value={grade.condition}
                values={item.conditions}
                onChange={(condition) => set({ condition })}
            />
            <Choice
                label="Is it"
                value={grade.role}
                values={Object.keys(ROLES)}
                text={(r) => ROLES[r] ?? r}
                onChange={(role) => set({ role })}
            />
            <Choice
                label="What becomes of it"
                value={grade.disposition}
                values={DISPOSITIONS}
                onChange={(disposition) => set({ disposition })}
            />
            <div>
                <Field label="Note" value={grade.note} onChange={(note) => set({ note })} />
                <label className="flex min-h-11 items-center gap-2">
                    <input
                        type="checkbox"
                        className="size-5 accent-[var(--hand)]"
                        checked={grade.ours}
                        onChange={() => set({ ours: !grade.ours })}
                    />
                    Done by our own teardown
                </label>
            </div>
        </div>
    );
}
