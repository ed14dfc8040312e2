import { useState, type ReactNode } from 'react';
import { api, type Card } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { Answers, Panel, ProblemNote } from '../../kit/basics';
import type { SectionProps } from '../../card/section';
import { More } from '../../kit/More';

type Teardown = NonNullable<Card['teardown']>;

const CODE_MEANS: Record<string, string> = {
    ratio: 'wrong ratio',
    solenoid: 'solenoid circuit',
    pressure: 'pressure control',
    lockup: 'lock-up',
};
const GEAR_STATES = ['ok', 'slips', 'missing'];
const RARE_GEAR_STATES = ['neutral', 'locks', 'wrong-ratio', 'delayed', 'harsh'];
const SHIFT_STATES = ['ok', 'flare', 'tie-up', 'delayed', 'harsh'];
const LOCKUP_STATES = ['ok', 'none', 'hunts', 'shudder', 'stays-on'];

/** One thing of the list answered; the same answer again takes it back. */
const turned = (all: Record<string, string>, key: string, state: string) =>
    all[key] === state ? Object.fromEntries(Object.entries(all).filter(([k]) => k !== key)) : { ...all, [key]: state };

/** The stations at which what was driven or tested may still be said. */
const TOLD_AT = ['identification', 'ordering', 'teardown', 'assembly', 'returns'];

/** Shifts between neighbouring forward gears. */
const shiftsOf = (gears: string[]) =>
    gears.flatMap((gear, i) => {
        const next = gears[i + 1];
        return next && gear !== 'R' && next !== 'R' ? [`${gear}-${next}`] : [];
    });

/** What the unit did, as driven or tested before teardown. */
export function Symptoms({ section: t, card, onCard, can }: SectionProps<'teardown'>) {
    const { busy, problem, write } = useWrite();
    const params = { path: { number: card.coreTag } };
    const say = (body: { observed: Record<string, string>; pressures?: Record<string, string> }) => {
        if (!busy) void write(() => api.POST('/units/{number}/teardown/symptoms', { params, body }), onCard);
    };
    const changeable = can('yard.hold') && TOLD_AT.includes(card.station);
    const set = (key: string, state: string) => say({ observed: turned(t.symptoms, key, state) });
    const tap = (circuit: string, state: string) =>
        say({ observed: t.symptoms, pressures: turned(t.pressures, circuit, state) });
    const row = { changeable, said: t.symptoms, onAnswer: set, unknown: 'not known' };
    return (
        <Panel title="Which gears worked" aside="as driven or tested before teardown">
            <Driven section={t} row={row} />
            <Taps section={t} changeable={changeable} onAnswer={tap} />
            {t.codes.length > 0 && (
                <p className="mt-1 text-sm">
                    Stored codes: {t.codes.map(codeSaid).join(', ')}. A solenoid code often means that slip was noticed,
                    not that the solenoid is bad.
                </p>
            )}
            <ProblemNote problem={problem} />
        </Panel>
    );
}

function codeSaid({ code, means, gear }: Teardown['codes'][number]): string {
    if (!means) return `${code} (not in the vocabulary)`;
    return `${code} (${CODE_MEANS[means]}${gear ? `, gear ${gear}` : ''})`;
}

function Driven({
    section: t,
    row,
}: {
    section: Teardown;
    row: Pick<AskedProps, 'changeable' | 'said' | 'onAnswer' | 'unknown'>;
}) {
    return (
        <table className="w-full">
            <tbody>
                {t.gears.map((g) => (
                    <Asked key={g} {...row} code={g} what="Gear" values={GEAR_STATES} rare={RARE_GEAR_STATES} large />
                ))}
                {shiftsOf(t.gears).map((s) => (
                    <Asked key={s} {...row} code={s} what="Shift" values={SHIFT_STATES} />
                ))}
                <Asked {...row} code="lockup" what="Converter" values={LOCKUP_STATES}>
                    Lock-up
                </Asked>
            </tbody>
        </table>
    );
}

type AskedProps = {
    code: string;
    /** What kind of thing is asked: with the code it names the buttons. */
    what: string;
    values: string[];
    /** Answers that stand behind a button until one is given or asked for. */
    rare?: string[];
    said: Record<string, string>;
    unknown: string;
    changeable: boolean;
    onAnswer: (code: string, value: string) => void;
    large?: boolean;
    children?: ReactNode;
};

function Asked({ code, what, said, unknown, changeable, large, children, ...more }: AskedProps) {
    return (
        <tr>
            <th scope="row" className={`td text-left ${large ? 'w-16 font-head text-2xl' : ''}`}>
                {children ?? code}
            </th>
            <td className="td">
                {changeable ? (
                    <AskedAnswers {...more} code={code} label={`${what} ${code}`} value={said[code] ?? null} />
                ) : (
                    (said[code] ?? unknown)
                )}
            </td>
        </tr>
    );
}

type AskedAnswersProps = Pick<AskedProps, 'code' | 'values' | 'rare' | 'onAnswer'> & {
    label: string;
    value: string | null;
};

function AskedAnswers({ code, label, value, values, rare = [], onAnswer }: AskedAnswersProps) {
    const [opened, setOpened] = useState(false);
    const open = opened || (value !== null && rare.includes(value));
    return (
        <div className="flex flex-wrap items-start gap-1.5">
            <Answers
                small
                label={label}
                value={value}
                values={open ? [...values, ...rare] : values}
                onAnswer={(v) => onAnswer(code, v)}
            />
            {rare.length > 0 && !open && (
                <button
                    type="button"
                    className="min-h-11 px-2 text-sm text-faint underline"
                    aria-label={`${label}: something else`}
                    onClick={() => setOpened(true)}
                >
                    something else
                </button>
            )}
        </div>
    );
}

type TapsProps = { section: Teardown; changeable: boolean; onAnswer: (circuit: string, state: string) => void };

function Taps({ section: t, changeable, onAnswer }: TapsProps) {
    const read = Object.keys(t.pressures).length;
    const title = (
        <>Pressures at the case taps {read > 0 && <span className="font-normal text-faint">{read} read</span>}</>
    );
    return (
        <More className="mt-2" open={read > 0} title={title}>
            <table className="w-full">
                <tbody>
                    {['line', ...Object.keys(t.elements)].map((c) => (
                        <Asked
                            key={c}
                            code={c}
                            what="Pressure"
                            values={['low', 'normal', 'high']}
                            said={t.pressures}
                            unknown="not read"
                            changeable={changeable}
                            onAnswer={onAnswer}
                        >
                            {c === 'line' ? 'Line' : c}{' '}
                            <span className="text-sm font-normal text-faint">{t.elements[c]}</span>
                        </Asked>
                    ))}
                </tbody>
            </table>
        </More>
    );
}
