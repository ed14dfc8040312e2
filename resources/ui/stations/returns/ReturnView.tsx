import { useState } from 'react';
import { api, fieldProblem, type Card } from '../../api/client';
import { formatValue, moment, percent } from '../../kit/format';
import { useWrite } from '../../api/useWrite';
import { Choice, Field, Mark, Panel, ProblemNote, TextArea } from '../../kit/basics';
import type { SectionProps } from '../../card/section';

type Case = NonNullable<Card['returns']>['cases'][number];

/** Which build was this, what did we measure then, what does it look like now, whose fault is it. */
export function ReturnView(props: SectionProps<'returns'>) {
    return props.section.cases.map((c) => <CasePanel key={c.number} c={c} {...props} />);
}

function CasePanel({ section, c, card, onCard, can }: { c: Case } & SectionProps<'returns'>) {
    const r = section;
    const open = !c.verdict && can('returns.handle') && card.station === 'returns';
    const { problem, write } = useWrite();
    const params = { path: { number: c.number } };
    const see = (feature: string, value: string) =>
        write(
            () =>
                api.POST('/returns/{number}/observations', {
                    params,
                    body: { feature, value: c.observed[feature] === value ? null : value, version: c.version },
                }),
            onCard,
        );
    const name = (id: string) => r.questions.find((q) => q.feature === id)?.name ?? id;
    const questions = [...r.questions].sort(
        (a, b) => Number(c.next[b.feature] ?? -1) - Number(c.next[a.feature] ?? -1),
    );
    return (
        <>
            <Panel title={`Return ${c.number}, ${c.serial}`} aside={`${c.openedBy}, ${moment(c.openedAt)}`}>
                <p className="text-lg">“{c.complaint}”</p>
                <p>
                    {c.installedOn
                        ? `Fitted ${c.installedOn}, failed ${c.failedOn}: ${c.daysInService} days in service`
                        : `Failed ${c.failedOn}`}
                    {c.odometerKm && ` · ${c.odometerKm} km`}
                    {c.codes.length > 0 && ` · codes ${c.codes.join(', ')}`}
                </p>
                {c.verdict && (
                    <p className="mt-1 text-xl">
                        <Mark kind="good">Verdict: {r.verdicts.find((v) => v.id === c.verdict)?.name}</Mark> by{' '}
                        {c.verdictBy}. {c.note}{' '}
                        <span className="text-base">
                            Paid by{' '}
                            {Object.entries(c.split ?? {})
                                .map(([who, share]) => `${who} ${String(share)} %`)
                                .join(', ')}
                            .
                        </span>
                    </p>
                )}
            </Panel>
            <div className="grid items-start gap-3 lg:grid-cols-2">
                <div className="flex flex-col gap-3">
                    <Panel title="Whose fault is it" aside={r.source}>
                        <ol>
                            {(c.ranking ?? []).slice(0, 6).map((v, i) => (
                                <li key={v.verdict} className="border-b border-rule py-1">
                                    <span className="flex items-baseline justify-between">
                                        <strong className={i === 0 ? 'font-head text-2xl' : ''}>{v.name}</strong>
                                        <span className={`num ${i === 0 ? 'font-head text-3xl' : ''}`}>
                                            {percent(v.posterior)}
                                        </span>
                                    </span>
                                    <span className="text-sm">
                                        {v.supports.length > 0 && <>for: {v.supports.map(name).join(', ')}. </>}
                                        {v.contradicts.length > 0 && (
                                            <>against: {v.contradicts.map(name).join(', ')}.</>
                                        )}
                                    </span>
                                </li>
                            ))}
                        </ol>
                        {c.impossible && <Mark kind="bad">{c.impossible}</Mark>}
                    </Panel>
                    <ThenAndNow c={c} card={card} onCard={onCard} open={open} />
                    {open && <Verdict c={c} section={section} onCard={onCard} />}
                    {c.verdict && !c.secondBuildOpened && card.station === 'returns' && can('returns.handle') && (
                        <Rebuild c={c} onCard={onCard} />
                    )}
                </div>
                <Panel title="Evidence" aside={open ? 'most telling first' : undefined}>
                    <ProblemNote problem={problem} />
                    <ul className="flex flex-col gap-2">
                        {questions.map((q) => (
                            <li key={q.feature}>
                                {open ? (
                                    <Choice
                                        label={q.name}
                                        value={c.observed[q.feature] ?? null}
                                        values={q.values}
                                        onChange={(v) => void see(q.feature, v)}
                                    />
                                ) : (
                                    <>
                                        <span className="text-faint">{q.name}:</span>{' '}
                                        <strong>{c.observed[q.feature] ?? 'not looked at'}</strong>
                                    </>
                                )}
                            </li>
                        ))}
                    </ul>
                </Panel>
            </div>
        </>
    );
}

function ThenAndNow({
    c,
    onCard,
    open,
}: { c: Case; open: boolean } & Pick<SectionProps<'returns'>, 'card' | 'onCard'>) {
    const { problem, write } = useWrite();
    const [typed, setTyped] = useState<Record<string, string>>({});
    return (
        <Panel title="Then and now">
            <table className="w-full">
                <thead>
                    <tr>
                        {['Place', 'Then', 'Now', 'Change'].map((h) => (
                            <th key={h} scope="col" className="th">
                                {h}
                            </th>
                        ))}
                    </tr>
                </thead>
                <tbody>
                    {c.thenAndNow.map((n) => {
                        const key = `${n.kind}:${n.code}`;
                        const now = n.now as { value: number; unit: string } | null;
                        return (
                            <tr key={key}>
                                <td className="td">{n.name}</td>
                                <td className="td num">
                                    {formatValue(n.value, n.unit)} {n.unit}
                                </td>
                                <td className="td num">
                                    {now ? (
                                        <strong>
                                            {formatValue(now.value, now.unit)} {now.unit}
                                        </strong>
                                    ) : open ? (
                                        <input
                                            aria-label={`${n.name} now`}
                                            className="input w-28"
                                            value={typed[key] ?? ''}
                                            onChange={(e) => setTyped({ ...typed, [key]: e.target.value })}
                                            onKeyDown={(e) => {
                                                if (e.key === 'Enter' && typed[key])
                                                    void write(
                                                        () =>
                                                            api.POST('/returns/{number}/measurements', {
                                                                params: { path: { number: c.number } },
                                                                body: {
                                                                    kind: n.kind,
                                                                    code: n.code,
                                                                    reading: typed[key]!,
                                                                    version: c.version,
                                                                },
                                                            }),
                                                        onCard,
                                                    );
                                            }}
                                        />
                                    ) : (
                                        '–'
                                    )}
                                </td>
                                <td className="td num">
                                    {now &&
                                        `${now.value - n.value > 0 ? '+' : ''}${formatValue(now.value - n.value, n.unit)}`}{' '}
                                    {now && n.max !== null && now.value > n.max && (
                                        <Mark kind="bad">over {formatValue(n.max, n.unit)}</Mark>
                                    )}
                                </td>
                            </tr>
                        );
                    })}
                </tbody>
            </table>
            {open && <p className="text-sm text-faint">Type the reading and press Enter.</p>}
            <ProblemNote problem={problem} />
        </Panel>
    );
}

function Verdict({ section, c, onCard }: { c: Case } & Pick<SectionProps<'returns'>, 'section' | 'onCard'>) {
    const r = section;
    const [verdict, setVerdict] = useState(c.ranking?.[0]?.verdict ?? '');
    const payer = r.verdicts.find((v) => v.id === verdict)?.pays ?? 'shop';
    const [share, setShare] = useState('100');
    const [note, setNote] = useState('');
    const { busy, problem, write } = useWrite();
    const part = Number(share);
    const other = payer === 'shop' ? 'owner' : 'shop';
    return (
        <Panel title="Verdict" aside="a person decides; the weights are kept beside it">
            <div className="flex flex-col gap-2">
                <Choice
                    label="Cause"
                    value={verdict}
                    values={r.verdicts.map((v) => v.id)}
                    text={(id) => r.verdicts.find((v) => v.id === id)!.name}
                    onChange={setVerdict}
                />
                <Field
                    label={`Share paid by the ${payer}, in percent; the rest by the ${other}`}
                    inputMode="decimal"
                    value={share}
                    onChange={setShare}
                    problem={
                        fieldProblem(problem, '/split') ??
                        (Number.isNaN(part) ? 'Type a number from 0 to 100.' : undefined)
                    }
                />
                <TextArea label="Why" value={note} onChange={setNote} problem={fieldProblem(problem, '/note')} />
                <ProblemNote problem={problem} except={['/split', '/note']} />
                <button
                    type="button"
                    className="btn btn-main"
                    disabled={busy || Number.isNaN(part)}
                    onClick={() =>
                        void write(
                            () =>
                                api.POST('/returns/{number}/verdict', {
                                    params: { path: { number: c.number } },
                                    body: {
                                        verdict,
                                        note,
                                        version: c.version,
                                        split: part === 100 ? { [payer]: 100 } : { [payer]: part, [other]: 100 - part },
                                    },
                                }),
                            onCard,
                        )
                    }
                >
                    Give the verdict
                </button>
            </div>
        </Panel>
    );
}

function Rebuild({ c, onCard }: { c: Case } & Pick<SectionProps<'returns'>, 'onCard'>) {
    const { busy, problem, write } = useWrite();
    return (
        <Panel title="Second build">
            <p>The unit is built again under a new serial, linked to {c.serial}.</p>
            <ProblemNote problem={problem} />
            <button
                type="button"
                className="btn btn-main mt-2"
                disabled={busy}
                onClick={() =>
                    void write(
                        () =>
                            api.POST('/returns/{number}/rebuild', {
                                params: { path: { number: c.number } },
                                body: {},
                            }),
                        onCard,
                    )
                }
            >
                Open the second build
            </button>
        </Panel>
    );
}
