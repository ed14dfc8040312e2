import { useState } from 'react';
import { api, type Card } from '../../api/client';
import { percent } from '../../kit/format';
import { useWrite } from '../../api/useWrite';
import { HouseNote, Mark, Panel, ProblemNote } from '../../kit/basics';
import type { SectionProps } from '../../card/section';
import { useSession } from '../../api/session';
import { Bench } from '../../bench/Bench';
import { Drawing } from '../../bench/Drawing';
import { isFinished } from '../../bench/types';
import { Trays } from '../../work/Trays';
import { Account } from './Account';
import { Counts } from './Counts';
import { Inspection } from './Inspection';
import { LeakTracer } from './LeakTracer';
import { Life } from './Life';
import { Reclaimed } from './Reclaimed';
import { RescueBench } from './RescueBench';
import { Symptoms } from './Symptoms';
import { suspectSaid } from '../../work/suspect';

type Teardown = NonNullable<Card['teardown']>;

/** Why it failed and which parts live. */
export function TeardownView(props: SectionProps<'teardown'>) {
    const { card, onCard, can, section: t } = props;
    const { person } = useSession();
    const editable = can('teardown.work') && ['teardown', 'returns'].includes(card.station);
    const finish = card.station === 'teardown' && editable && <Complete {...props} />;
    const finished = isFinished(t.work);
    return (
        <>
            <Bench
                bench="teardown"
                material={{ teardown: t }}
                me={person?.name ?? null}
                badge={person?.badge ?? null}
                {...{ card, onCard, editable }}
                finish={finished && finish}
            />
            <div className="mt-3 grid items-start gap-3 lg:grid-cols-2">
                <div className="flex flex-col gap-3">
                    <Counts {...props} editable={editable} />
                    <Symptoms {...props} />
                    <Life {...props} />
                    <LeakTracer {...props} />
                    <RescueBench {...props} editable={editable} />
                    <Account number={card.coreTag} can={can} />
                    {!finished && finish}
                    <Report number={card.coreTag} />
                </div>
                <div className="flex flex-col gap-3">
                    <Suspects section={t} />
                    <Inspection {...props} editable={editable} />
                    <Reclaimed {...props} />
                    <Trays number={card.coreTag} can={can('receiving.trays')} />
                </div>
            </div>
        </>
    );
}

/** The first five, without those that would stand there with no per cent at all. */
const likely = (suspects: Teardown['suspects']) =>
    suspects.slice(0, 5).filter((s, i) => i === 0 || s.posterior >= 0.005);

/** Where the suspects sit, each with its per cent. */
function SuspectsDrawn({ section: t }: Pick<SectionProps<'teardown'>, 'section'>) {
    const share = new Map<string, number>();
    for (const s of likely(t.suspects)) share.set(s.element, (share.get(s.element) ?? 0) + s.posterior);
    const first = [...share].slice(0, 4);
    return (
        <Drawing
            family={t.work.family}
            states={Object.fromEntries(first.map(([element]) => [element, 'suspect' as const]))}
            tags={Object.fromEntries(first.map(([element, sum]) => [element, percent(sum)]))}
            className="h-56 bg-sheet"
        />
    );
}

/** The rig's own words go before what was told when the unit came. */
function Tested({ by }: { by: NonNullable<Teardown['tested']> }) {
    const seen = Object.entries(by.observed).filter(([, state]) => state !== 'ok');
    return (
        <p className="text-sm">
            <Mark kind="next">Test run {by.run}</Mark> of {by.on} counts first:{' '}
            {seen.length === 0 ? 'no gear or shift was wrong' : seen.map(([at, state]) => `${at} ${state}`).join(', ')}.
        </p>
    );
}

function Suspects({ section: t }: Pick<SectionProps<'teardown'>, 'section'>) {
    return (
        <Panel
            title="Suspects"
            aside="from the apply chart, the torque each gear puts on each element, and the symptoms"
        >
            <HouseNote house={t.house.symptoms} />
            {t.tested && <Tested by={t.tested} />}
            {t.suspects.length > 0 ? (
                <SuspectsDrawn section={t} />
            ) : (
                <p className="text-faint">Say which gears worked and which did not.</p>
            )}
            <ol>
                {likely(t.suspects).map((s, i) => (
                    <li key={`${s.element} ${s.fault}`} className="border-b border-rule py-1">
                        <span className="flex items-baseline justify-between">
                            <strong className={i === 0 ? 'font-head text-2xl' : ''}>
                                {suspectSaid(s)} <span className="text-base font-normal">{t.elements[s.element]}</span>
                            </strong>
                            <span className={`num ${i === 0 ? 'font-head text-3xl' : ''}`}>{percent(s.posterior)}</span>
                        </span>
                        <span className="text-sm">{s.because}</span>
                    </li>
                ))}
            </ol>
        </Panel>
    );
}

/** The paper of the teardown: what the customer gets to read. */
function Report({ number }: { number: string }) {
    const at = `/api/units/${number}/teardown/report`;
    return (
        <p className="flex flex-wrap gap-3">
            <a className="btn" href={at} target="_blank" rel="noreferrer">
                Report to read or print
            </a>
            <a className="btn" href={`${at}.pdf`} target="_blank" rel="noreferrer">
                Report as PDF
            </a>
        </p>
    );
}

function Complete({ card, onCard }: SectionProps<'teardown'>) {
    const [none, setNone] = useState(false);
    const { busy, problem, write } = useWrite();
    return (
        <Panel title="Finish the teardown">
            <label className="flex min-h-11 items-center gap-2">
                <input
                    type="checkbox"
                    className="size-5 accent-[var(--hand)]"
                    checked={none}
                    onChange={() => setNone(!none)}
                />
                No cause was found (an honest result)
            </label>
            <ProblemNote problem={problem} />
            <button
                type="button"
                className="btn btn-main"
                disabled={busy}
                onClick={() =>
                    void write(
                        () =>
                            api.POST('/units/{number}/teardown/complete', {
                                params: { path: { number: card.coreTag } },
                                body: { noCauseFound: none },
                            }),
                        onCard,
                    )
                }
            >
                Teardown is complete
            </button>
        </Panel>
    );
}
