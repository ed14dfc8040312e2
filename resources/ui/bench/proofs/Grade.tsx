import { useState } from 'react';
import { fieldProblem, type Card, type Problem, type Schemas } from '../../api/client';
import { Choice, Field, FieldProblem, Mark, Select } from '../../kit/basics';
import { GaugeBar } from '../../kit/GaugeBar';
import { More } from '../../kit/More';
import { isDrawn, PartPicture, STATES } from '../../kit/PartPicture';
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
    pieces: 'whole' | 'missing' | null;
    route: string;
};
type Route = NonNullable<Card['teardown']>['routes'][number];
type Reference = NonNullable<Card['teardown']>['references'][number];

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
    pieces: null,
    route: '',
};

/** What was found before, or nothing: nobody's judgement is chosen beforehand. */
export function useGrade(item: Item | undefined) {
    const f = item?.finding;
    // What is renewed as a rule is not a judgement: it stands there, and another choice asks for a word.
    const disposition = item?.always ? 'replace' : '';
    const typed = { reading: f?.reading ?? '', gauge: f?.gauge ?? '', route: f?.route ?? '' };
    return useState<Grade>({ ...NOTHING, disposition, ...f, ...typed });
}

/** What is sent of it: the worst plate is the condition of the pack, so that is not said twice. */
export function saidOf({ condition, plates, reading, gauge, pieces, route, ...rest }: Grade, item: Item) {
    const broken = isBroken(item, { condition, plates });
    return {
        ...rest,
        ...(broken && pieces !== null && { pieces }),
        ...(rest.disposition === 'recondition' && { route }),
        ...(plates.some((p) => p !== '') ? { plates } : { condition }),
        ...(item.measure && { reading, gauge }),
    };
}

/** Whether pieces of it are loose. */
const isBroken = (item: Item, g: Pick<Grade, 'condition' | 'plates'>): boolean =>
    [g.condition, ...g.plates].some((c) => item.pieces.includes(c));

/** Whether enough is said to be sent. */
export const isGraded = (g: Grade): boolean =>
    (g.condition !== '' || g.plates.some((p) => p !== '')) && !!g.disposition;

type Props = {
    item: Item;
    gauges: Schemas['Gauge'][];
    routes: Route[];
    references: Reference[];
    grade: Grade;
    onGrade: (g: Grade) => void;
    problem: Problem | null;
    /** Where in what is sent the fields stand. */
    at: string;
};

/** Condition of a part, what becomes of it, whether it is the cause. */
export function GradeFields({ item, gauges, routes, references, grade, onGrade, problem, at }: Props) {
    const set = (change: Partial<Grade>) => onGrade({ ...grade, ...change });
    return (
        <div className="@container">
            <div className="grid gap-x-6 gap-y-1 @2xl:grid-cols-2">
                <div className="flex min-w-0 flex-col gap-2">
                    {item.always && <Mark kind="next">always renewed: {item.always}</Mark>}
                    <Condition {...{ item, grade, set }} />
                    {isBroken(item, grade) && <Pieces {...{ grade, set, problem, at }} />}
                    <Pictures {...{ item, references }} />
                    {item.measure && <Measure {...{ item, gauges, grade, set, problem, at }} measure={item.measure} />}
                </div>
                <Becomes {...{ grade, set, problem, at }} routes={routes.filter((r) => r.kinds.includes(item.kind))} />
            </div>
        </div>
    );
}

type Part = Pick<Props, 'item' | 'grade'> & { set: (change: Partial<Grade>) => void };

/** Every piece of what broke is accounted for before the work goes on. */
function Pieces({ grade, set, problem, at }: Omit<Part, 'item'> & Pick<Props, 'problem' | 'at'>) {
    const said: Record<string, string> = { whole: 'all pieces are here', missing: 'pieces are missing' };
    return (
        <div>
            <Choice
                label="Its pieces laid together"
                value={grade.pieces}
                values={Object.keys(said)}
                text={(v) => said[v] ?? v}
                onChange={(v) => set({ pieces: v === 'whole' ? 'whole' : 'missing' })}
            />
            <FieldProblem>{fieldProblem(problem, `${at}/pieces`)}</FieldProblem>
        </div>
    );
}

/** What such a part looks like: the product's drawings, and the shop's own pictures where it chose some. */
function Pictures({ item, references }: Pick<Props, 'item' | 'references'>) {
    const own = references.filter((r) => r.kind === item.kind && item.conditions.includes(r.condition));
    if (!isDrawn(item.kind) && own.length === 0) return null;
    return (
        <More title="What good, borderline and scrap look like">
            <ul className="flex flex-wrap gap-4">
                {isDrawn(item.kind) &&
                    STATES.map((state) => (
                        <li key={state} className="text-center text-sm">
                            <PartPicture kind={item.kind} state={state} />
                            {state}
                        </li>
                    ))}
                {own.map((r) => (
                    <li key={r.condition} className="text-center text-sm">
                        <img
                            className="size-20 object-cover"
                            src={`/api/photos/${r.photo}`}
                            alt={r.condition}
                            loading="lazy"
                        />
                        {r.condition}
                    </li>
                ))}
            </ul>
        </More>
    );
}

type BecomesProps = Omit<Part, 'item'> & Pick<Props, 'problem' | 'at' | 'routes'>;

function Becomes({ grade, set, problem, at, routes }: BecomesProps) {
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
            {grade.disposition === 'recondition' && <How {...{ grade, set, problem, at, routes }} />}
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

/** How it is made good, with the hours that takes and what must be looked at after. */
function How({ grade, set, problem, at, routes }: BecomesProps) {
    const chosen = routes.find((r) => r.code === grade.route);
    return (
        <>
            <Select
                label="How it is made good"
                value={grade.route}
                onChange={(route) => set({ route })}
                empty={routes.length === 0 ? 'such a part is not made good here' : 'which way?'}
                options={routes.map((r) => ({ value: r.code, text: `${r.name}, ${r.hours} h` }))}
                problem={fieldProblem(problem, `${at}/route`)}
            />
            {chosen && <p className="text-sm">Then: {chosen.after}</p>}
        </>
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
