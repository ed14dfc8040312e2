import { useState } from 'react';
import { fieldProblem, type Card, type Problem, type Schemas } from '../../api/client';
import { Choice, Field, Mark } from '../../kit/basics';
import { GaugeBar } from '../../kit/GaugeBar';
import { BurnMap } from './BurnMap';
import { GaugeFields } from './GaugeFields';

type Item = NonNullable<Card['teardown']>['inspection'][number];
type Grade = {
    condition: string;
    plates: string[];
    reading: string;
    gauge: string;
    disposition: string;
    role: string;
    note: string;
    ours: boolean;
};

const DISPOSITIONS = ['reuse', 'recondition', 'replace', 'scrap', 'shelf'];
const ROLES: Record<string, string> = { cause: 'the cause', collateral: 'done by its debris', none: 'neither' };

const NOTHING: Grade = {
    condition: '',
    plates: [],
    reading: '',
    gauge: '',
    disposition: '',
    role: '',
    note: '',
    ours: false,
};

/** What was found before, or nothing: nobody's judgement is chosen beforehand. */
export function useGrade(item: Item | undefined) {
    const f = item?.finding;
    // What is renewed as a rule is not a judgement: it stands there, and another choice asks for a word.
    const disposition = item?.always ? 'replace' : '';
    return useState<Grade>({ ...NOTHING, disposition, ...f, reading: f?.reading ?? '', gauge: f?.gauge ?? '' });
}

/** What is sent of it: the worst plate is the condition of the pack, so that is not said twice. */
export function saidOf({ condition, plates, reading, gauge, ...rest }: Grade, item: Item) {
    return {
        ...rest,
        ...(plates.some((p) => p !== '') ? { plates } : { condition }),
        ...(item.measure && { reading, gauge }),
    };
}

/** Whether enough is said to be sent. */
export const isGraded = (g: Grade): boolean =>
    (g.condition !== '' || g.plates.some((p) => p !== '')) && !!g.disposition;

type Props = {
    item: Item;
    gauges: Schemas['Gauge'][];
    grade: Grade;
    onGrade: (g: Grade) => void;
    problem: Problem | null;
    /** Where in what is sent the fields stand. */
    at: string;
};

/** Condition of a part, what becomes of it, whether it is the cause. */
export function GradeFields({ item, gauges, grade, onGrade, problem, at }: Props) {
    const set = (change: Partial<Grade>) => onGrade({ ...grade, ...change });
    return (
        <div className="@container">
            <div className="grid gap-x-6 gap-y-1 @2xl:grid-cols-2">
                <div className="flex min-w-0 flex-col gap-2">
                    {item.always && <Mark kind="next">always renewed: {item.always}</Mark>}
                    <Condition {...{ item, grade, set }} />
                    {item.measure && <Measure {...{ item, gauges, grade, set, problem, at }} measure={item.measure} />}
                </div>
                <Becomes {...{ grade, set, problem }} />
            </div>
        </div>
    );
}

type Part = Pick<Props, 'item' | 'grade'> & { set: (change: Partial<Grade>) => void };

function Becomes({ grade, set, problem }: Omit<Part, 'item'> & Pick<Props, 'problem'>) {
    return (
        <div className="flex flex-col gap-1">
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
            <Field
                label="Note"
                value={grade.note}
                onChange={(note) => set({ note })}
                problem={fieldProblem(problem, '/note')}
            />
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
    );
}

function Condition({ item, grade, set }: Part) {
    const label = `${item.name} (${item.partNumber})`;
    if (item.plates !== null) {
        return (
            <BurnMap
                name={label}
                count={item.plates}
                conditions={item.conditions}
                plates={grade.plates}
                onPlates={(plates) => set({ plates })}
            />
        );
    }
    return (
        <Choice
            label={`${label}: condition`}
            value={grade.condition}
            values={item.conditions}
            onChange={(condition) => set({ condition })}
        />
    );
}

type MeasureProps = Part & Pick<Props, 'gauges' | 'problem' | 'at'> & { measure: NonNullable<Item['measure']> };

function Measure({ measure: m, gauges, grade, set, problem, at }: MeasureProps) {
    const kind = m.unit === 'N.m' ? 'torque' : 'length';
    return (
        <div>
            <GaugeFields
                label={`${m.what} (${m.unit})`}
                gauges={gauges.filter((g) => g.kind === kind)}
                reading={grade.reading}
                gauge={grade.gauge}
                onReading={(reading) => set({ reading })}
                onGauge={(gauge) => set({ gauge })}
                {...{ problem, at }}
            />
            <GaugeBar
                label={m.what}
                unit={m.unit}
                min={m.window.min}
                max={m.window.max}
                reading={Number.parseFloat(grade.reading) || undefined}
            />
        </div>
    );
}
