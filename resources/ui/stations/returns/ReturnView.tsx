import { useState } from 'react';
import { z } from 'zod';
import { api, type Card } from '../../api/client';
import { formatValue, moment, percent } from '../../kit/format';
import { useSession } from '../../api/session';
import { useWrite } from '../../api/useWrite';
import { Bench } from '../../bench/Bench';
import { isFinished } from '../../bench/types';
import { Answers, HeadRow, Mark, Panel, ProblemNote } from '../../kit/basics';
import { fieldsOf, FormFields, FormProblem, useForm } from '../../kit/form';
import { More } from '../../kit/More';
import { typedNumber } from '../../kit/form/values';
import type { SectionProps } from '../../card/section';

type Case = NonNullable<Card['returns']>['cases'][number];

/** Which build was this, what did we measure then, what does it look like now, whose fault is it. */
export function ReturnView(props: SectionProps<'returns'>) {
    const { section: r } = props;
    const looked = isFinished(r.work);
    const desk = <Desk {...props} />;
    return (
        <div className="flex flex-col gap-3">
            {!looked && desk}
            {r.cases.map((one) => (
                <CasePanel key={one.number} c={one} {...props} />
            ))}
            {looked && desk}
        </div>
    );
}

/** What must be looked at before anybody says whose fault it is. */
function Desk({ card, onCard, can, section }: SectionProps<'returns'>) {
    const { person } = useSession();
    const c = section.cases[0];
    if (!c || c.verdict || card.station !== 'returns' || !can('returns.handle')) return null;
    return (
        <Bench
            bench="returns"
            material={{}}
            editable
            lead={<p className="border-b border-rule px-3 py-1">“{c.complaint}”</p>}
            me={person?.name ?? null}
            badge={person?.badge ?? null}
            {...{ card, onCard }}
        />
    );
}

type CaseProps = { c: Case } & SectionProps<'returns'>;

const isHandled = ({ card, can }: CaseProps) => can('returns.handle') && card.station === 'returns';

function CasePanel(props: CaseProps) {
    const { c, section, card, onCard } = props;
    const open = !c.verdict && isHandled(props);
    return (
        <>
            <Came c={c} section={section} />
            <div className="grid items-start gap-3 lg:grid-cols-2">
                <div className="flex flex-col gap-3">
                    <WhoseFault c={c} section={section} />
                    <ThenAndNow c={c} card={card} onCard={onCard} open={open} />
                    {open && <Verdict c={c} section={section} onCard={onCard} />}
                    {c.verdict && !c.secondBuildOpened && isHandled(props) && <Rebuild c={c} onCard={onCard} />}
                </div>
                <AllEvidence c={c} section={section} onCard={onCard} open={open} />
            </div>
        </>
    );
}

const servedSaid = ({ installedOn, failedOn, daysInService, odometerKm, codes }: Case) =>
    [
        installedOn
            ? `Fitted ${installedOn}, failed ${failedOn}: ${daysInService} days in service`
            : `Failed ${failedOn}`,
        odometerKm && `${odometerKm} km`,
        codes.length > 0 && `codes ${codes.join(', ')}`,
    ]
        .filter(Boolean)
        .join(' · ');

/** What came back, and what was decided of it. */
function Came({ c, section }: Pick<CaseProps, 'c' | 'section'>) {
    const shares = Object.entries(c.split ?? {}).map(([who, share]) => `${who} ${String(share)} %`);
    return (
        <Panel title={`Return ${c.number}, ${c.serial}`} aside={`${c.openedBy}, ${moment(c.openedAt)}`}>
            <p className="text-lg">“{c.complaint}”</p>
            <p>{servedSaid(c)}</p>
            {c.verdict && (
                <p className="mt-1 text-xl">
                    <Mark kind="good">Verdict: {section.verdicts.find((v) => v.id === c.verdict)?.name}</Mark> by{' '}
                    {c.verdictBy}. {c.note} <span className="text-base">Paid by {shares.join(', ')}.</span>
                </p>
            )}
        </Panel>
    );
}

function WhoseFault({ c, section }: Pick<CaseProps, 'c' | 'section'>) {
    const name = (id: string) => section.questions.find((q) => q.feature === id)?.name ?? id;
    return (
        <Panel title="Whose fault is it" aside={section.source}>
            <ol>
                {(c.ranking ?? []).slice(0, 6).map((v, i) => (
                    <li key={v.verdict} className="border-b border-rule py-1">
                        <span className="flex items-baseline justify-between">
                            <strong className={i === 0 ? 'font-head text-2xl' : ''}>{v.name}</strong>
                            <span className={`num ${i === 0 ? 'font-head text-3xl' : ''}`}>{percent(v.posterior)}</span>
                        </span>
                        <span className="text-sm">
                            {v.supports.length > 0 && <>for: {v.supports.map(name).join(', ')}. </>}
                            {v.contradicts.length > 0 && <>against: {v.contradicts.map(name).join(', ')}.</>}
                        </span>
                    </li>
                ))}
            </ol>
            {c.impossible && <Mark kind="bad">{c.impossible}</Mark>}
        </Panel>
    );
}

type AllEvidenceProps = Pick<CaseProps, 'c' | 'section' | 'onCard'> & { open: boolean };

function AllEvidence({ c, section, onCard, open }: AllEvidenceProps) {
    const { problem, write } = useWrite();
    const params = { path: { return: c.number } };
    const see = (feature: string, value: string) => {
        const body = { feature, value: c.observed[feature] === value ? null : value, version: c.version };
        void write(() => api.POST('/returns/{return}/observations', { params, body }), onCard);
    };
    const gain = (q: Question) => Number(c.next[q.feature] ?? -1);
    const questions = [...section.questions].sort((a, b) => gain(b) - gain(a));
    return (
        <Panel title="Evidence" aside={open ? 'most telling first' : undefined}>
            <ProblemNote problem={problem} />
            <ul className="flex flex-col gap-2">
                {questions.map((q) => (
                    <Evidence key={q.feature} q={q} c={c} open={open} see={(v) => see(q.feature, v)} />
                ))}
            </ul>
        </Panel>
    );
}

type Question = NonNullable<Card['returns']>['questions'][number];

/** One clue. What the record knows is not asked: it counts as it stands until somebody knows better. */
function Evidence({ q, c, open, see }: { q: Question; c: Case; open: boolean; see: (value: string) => void }) {
    const seen = c.observed[q.feature];
    const known = c.known[q.feature];
    const choose = open && <Answers label={q.name} value={seen ?? null} values={q.values} onAnswer={see} />;
    if (known === undefined || seen !== undefined) {
        return (
            <li>
                {choose || <Said name={q.name} answer={seen ?? 'not looked at'} />}
                {known && known.value !== seen && (
                    <p className="text-sm">
                        The record says {known.value}: {known.says}
                    </p>
                )}
            </li>
        );
    }
    return (
        <li>
            <Said name={q.name} answer={known.value} />
            <p className="text-sm">From the record: {known.says}</p>
            {choose && <More title="I know better">{choose}</More>}
        </li>
    );
}

function Said({ name, answer }: { name: string; answer: string }) {
    return (
        <>
            <span className="text-faint">{name}:</span> <strong>{answer}</strong>
        </>
    );
}

type ThenAndNowProps = { c: Case; open: boolean } & Pick<SectionProps<'returns'>, 'card' | 'onCard'>;
type Compared = Case['thenAndNow'][number];

function ThenAndNow({ c, onCard, open }: ThenAndNowProps) {
    const { problem, write } = useWrite();
    const params = { path: { return: c.number } };
    const measure = ({ kind, code }: Compared, reading: string) => {
        const body = { kind, code, reading, version: c.version };
        void write(() => api.POST('/returns/{return}/measurements', { params, body }), onCard);
    };
    return (
        <Panel title="Then and now">
            <table className="w-full">
                <HeadRow of={['Place', 'Then', 'Now', 'Change']} />
                <tbody>
                    {c.thenAndNow.map((n) => (
                        <tr key={`${n.kind}:${n.code}`}>
                            <td className="td">{n.name}</td>
                            <td className="td num">
                                {formatValue(n.value, n.unit)} {n.unit}
                            </td>
                            <Now n={n} onRead={open ? (reading) => measure(n, reading) : undefined} />
                        </tr>
                    ))}
                </tbody>
            </table>
            {open && <p className="text-sm text-faint">Type the reading and press Enter.</p>}
            <ProblemNote problem={problem} />
        </Panel>
    );
}

/** What the place measures now and how far it went, or the field that takes the reading. */
function Now({ n, onRead }: { n: Compared; onRead: ((reading: string) => void) | undefined }) {
    const now = n.now as { value: number; unit: string } | null;
    if (!now) return <td className="td num">{onRead ? <NowField label={`${n.name} now`} onRead={onRead} /> : '–'}</td>;
    const change = now.value - n.value;
    return (
        <>
            <td className="td num">
                <strong>
                    {formatValue(now.value, now.unit)} {now.unit}
                </strong>
            </td>
            <td className="td num">
                {(change > 0 ? '+' : '') + formatValue(change, n.unit)}{' '}
                {n.max !== null && now.value > n.max && <Mark kind="bad">over {formatValue(n.max, n.unit)}</Mark>}
            </td>
        </>
    );
}

function NowField({ label, onRead }: { label: string; onRead: (reading: string) => void }) {
    const [typed, setTyped] = useState('');
    return (
        <input
            aria-label={label}
            className="input w-28"
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            onKeyDown={(e) => {
                if (e.key === 'Enter' && typed) onRead(typed);
            }}
        />
    );
}

const PERCENT = 'Type a number from 0 to 100.';
const judgement = z.object({
    verdict: z.string({ error: 'Choose the cause first.' }),
    share: typedNumber(PERCENT).pipe(z.number().min(0, PERCENT).max(100, PERCENT)),
    note: z.string(),
});
type Judgement = Omit<z.input<typeof judgement>, 'verdict'> & { verdict: string | null };
const judging = fieldsOf<Judgement>();

function Verdict({ section, c, onCard }: { c: Case } & Pick<SectionProps<'returns'>, 'section' | 'onCard'>) {
    const form = useForm<Judgement, z.output<typeof judgement>>({
        schema: judgement as z.ZodType<z.output<typeof judgement>, Judgement>,
        start: { verdict: null, share: '100', note: '' },
    });
    const payerOf = (verdict: string | null) => section.verdicts.find((v) => v.id === verdict)?.pays ?? 'shop';
    const otherOf = (payer: string) => (payer === 'shop' ? 'owner' : 'shop');
    const payer = payerOf(form.fields.watch('verdict'));
    const give = form.submit(({ verdict, share, note }) => {
        const pays = payerOf(verdict);
        const split = share === 100 ? { [pays]: 100 } : { [pays]: share, [otherOf(pays)]: 100 - share };
        const body = { verdict, note, version: c.version, split };
        return api.POST('/returns/{return}/verdict', { params: { path: { return: c.number } }, body });
    }, onCard);
    return (
        <Panel title="Verdict" aside="a person decides; the weights are kept beside it">
            <FormFields of={form}>
                <div className="flex flex-col gap-2">
                    <judging.Buttons
                        name="verdict"
                        label="Cause"
                        values={section.verdicts.map((v) => v.id)}
                        text={(id) => section.verdicts.find((v) => v.id === id)?.name ?? id}
                    />
                    <judging.Text
                        name="share"
                        label={`Share paid by the ${payer}, in percent; the rest by the ${otherOf(payer)}`}
                        inputMode="decimal"
                    />
                    <judging.Area name="note" label="Why" />
                    <FormProblem of={form} />
                    <button type="button" className="btn btn-main" disabled={form.busy} onClick={give}>
                        Give the verdict
                    </button>
                </div>
            </FormFields>
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
                            api.POST('/returns/{return}/rebuild', {
                                params: { path: { return: c.number } },
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
