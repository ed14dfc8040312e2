import { useState } from 'react';
import { api, fieldProblem, type Schemas } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import type { SectionProps } from '../../card/section';
import { Caution, Choice, Field, HeadRow, Mark, Panel, ProblemNote, Select } from '../../kit/basics';
import { More } from '../../kit/More';

type Sheet = NonNullable<Schemas['Dyno']['withoutCell']>;
type Tested = Schemas['RoadTest'];
type Said = Record<string, { right: boolean; note: string }>;

const KPA_A_PSI = 6.894757;

const psi = (kpa: number) => (kpa / KPA_A_PSI).toFixed(0);

/** Pressures at the taps and a drive, where there is no cell or no adapter: released by name, or back to the bench. */
export function WithoutCell(props: SectionProps<'dyno'>) {
    const sheet = props.section.withoutCell;
    if (!sheet) return null;
    const open = props.card.station === 'dyno' && props.can('dyno.approve');
    return (
        <>
            {sheet.tests.map((t) => (
                <Panel key={t.id} title="Tested without a cell" aside={`${t.on}, by ${t.by}`}>
                    <RoadTested test={t} />
                </Panel>
            ))}
            {open && (
                <More title="No cell or no adapter for it: pressures and a road test">
                    <RoadSheet {...props} sheet={sheet} />
                </More>
            )}
        </>
    );
}

function RoadTested({ test: t }: { test: Tested }) {
    const outside = t.pressures.filter((p) => !p.inside).map((p) => p.gear);
    const wrong = t.road.filter((r) => !r.right).map((r) => r.name);
    return (
        <div>
            <Mark kind={t.verdict === 'pass' ? 'warn' : 'bad'}>
                {t.verdict === 'pass' ? 'Not dyno-tested; released by pressures and a drive' : `Back for ${t.suspect}`}
            </Mark>
            <p>
                {t.why} {t.by}, {t.on}.
            </p>
            <p className="num">{t.pressures.map((p) => `${p.gear}: ${p.typed}`).join(' · ')}</p>
            {(outside.length > 0 || wrong.length > 0) && <p>Outside or wrong: {[...outside, ...wrong].join('; ')}.</p>}
            {t.road.some((r) => r.note) && (
                <ul className="list-disc pl-5 text-sm">
                    {t.road
                        .filter((r) => r.note)
                        .map((r) => (
                            <li key={r.code}>
                                {r.name}: {r.note}
                            </li>
                        ))}
                </ul>
            )}
        </div>
    );
}

type Wrong = Parameters<typeof fieldProblem>[0];

function useRoadSheet({ card, onCard }: Pick<SectionProps<'dyno'>, 'card' | 'onCard'>) {
    const [why, setWhy] = useState('');
    const [typed, setTyped] = useState<Record<string, string>>({});
    const [said, setSaid] = useState<Said>({});
    const [suspect, setSuspect] = useState('');
    const { busy, problem, write } = useWrite();
    const params = { path: { number: card.coreTag } };
    const body = { why, pressures: typed, road: said, suspect };
    const send = () => void write(() => api.POST('/units/{number}/dyno/road-tests', { params, body }), onCard);
    return { why, setWhy, typed, setTyped, said, setSaid, suspect, setSuspect, busy, problem, send };
}

function RoadSheet({ sheet, ...props }: SectionProps<'dyno'> & { sheet: Sheet }) {
    const { why, setWhy, typed, setTyped, said, setSaid, suspect, setSuspect, busy, problem, send } =
        useRoadSheet(props);
    const elements = props.section.elements.map((e) => ({ value: e.id, text: `${e.id} ${e.name}` }));
    return (
        <div className="sheet flex flex-col gap-3 p-4">
            <Caution>
                Hot oil under pressure at the taps; wheels chocked and clear on the hoist; the drive by a licensed
                driver on a road where it is allowed.
            </Caution>
            <Field
                className="max-w-xl"
                label="Why it is not run in the cell"
                value={why}
                onChange={setWhy}
                problem={fieldProblem(problem, '/why')}
            />
            <Taps sheet={sheet} typed={typed} onType={setTyped} problem={problem} />
            <Driven of={sheet.road} said={said} onSay={setSaid} problem={problem} />
            <div className="flex flex-wrap items-end gap-3">
                <Select
                    label="Back to the bench for"
                    value={suspect}
                    onChange={setSuspect}
                    options={[{ value: '', text: 'not back: it goes on' }, ...elements]}
                />
                <button type="button" className="btn btn-main" disabled={busy} onClick={send}>
                    {suspect === '' ? 'Release it, not dyno-tested' : 'Send it back'}
                </button>
            </div>
            {problem && <ProblemNote problem={problem} except={fieldsOf(sheet)} />}
        </div>
    );
}

const fieldsOf = ({ gears, road }: Sheet) => [
    '/why',
    ...gears.map((g) => `/pressures/${g.gear}`),
    ...road.map((r) => `/road/${r.code}`),
];

type DrivenProps = { of: Sheet['road']; said: Said; onSay: (said: Said) => void; problem: Wrong };

/** What is driven, one by one. Nothing is chosen beforehand. */
const Driven = ({ of, said, onSay, problem }: DrivenProps) => (
    <table className="w-full">
        <HeadRow of={['On the road', 'How it was', 'Note']} />
        <tbody>
            {of.map((r) => (
                <DrivenRow
                    key={r.code}
                    name={r.name}
                    said={said[r.code]}
                    onSay={(change) =>
                        onSay({ ...said, [r.code]: { ...{ right: true, note: '' }, ...said[r.code], ...change } })
                    }
                    wrong={fieldProblem(problem, `/road/${r.code}`)}
                />
            ))}
        </tbody>
    </table>
);

type RowProps = {
    name: string;
    said: Said[string] | undefined;
    onSay: (change: Partial<Said[string]>) => void;
    wrong: string | undefined;
};

function DrivenRow({ name, said, onSay, wrong }: RowProps) {
    const how = said ? (said.right ? 'right' : 'wrong') : null;
    return (
        <tr>
            <th scope="row" className="td text-left font-normal">
                {name}
                {wrong && (
                    <span role="alert" className="block font-semibold text-bad">
                        {wrong}
                    </span>
                )}
            </th>
            <td className="td">
                <Choice
                    small
                    label={name}
                    value={how}
                    values={['right', 'wrong']}
                    onChange={(v) => onSay({ right: v === 'right' })}
                />
            </td>
            <td className="td">
                {said && <Field label={`Note on: ${name}`} value={said.note} onChange={(note) => onSay({ note })} />}
            </td>
        </tr>
    );
}

type TapsProps = {
    sheet: Sheet;
    typed: Record<string, string>;
    onType: (typed: Record<string, string>) => void;
    problem: Wrong;
};

const Taps = ({ sheet, typed, onType, problem }: TapsProps) => (
    <div className="flex flex-wrap gap-3">
        {sheet.gears.map((g) => (
            <Field
                key={g.gear}
                className="w-44"
                label={`Line in ${g.gear}, full (psi)`}
                hint={`${psi(g.min)} to ${psi(g.max)} psi`}
                value={typed[g.gear] ?? ''}
                onChange={(v) => onType({ ...typed, [g.gear]: v })}
                problem={fieldProblem(problem, `/pressures/${g.gear}`)}
            />
        ))}
    </div>
);
