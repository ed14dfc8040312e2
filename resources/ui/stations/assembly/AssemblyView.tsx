import { useSession } from '../../api/session';
import { api } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { Bench } from '../../bench/Bench';
import type { SectionProps } from '../../card/section';
import { Mark, Panel, ProblemNote } from '../../kit/basics';
import { moment } from '../../kit/format';
import { More } from '../../kit/More';

/** The unit goes together, one operation at a time; what is signed for and what came off the shelf stands below. */
export function AssemblyView(props: SectionProps<'assembly'>) {
    const { card, onCard, can, section: a } = props;
    const { person } = useSession();
    return (
        <>
            <Bench
                bench="assembly"
                material={{ assembly: a }}
                editable={can('assembly.work') && card.station === 'assembly'}
                me={person?.name ?? null}
                badge={person?.badge ?? null}
                {...{ card, onCard }}
            />
            <div className="mt-3 grid items-start gap-3 lg:grid-cols-2">
                <SignOff {...props} />
                <Panel title="Taken from the shelf">
                    <ul className="text-sm">
                        {a.installed.map((i, n) => (
                            <li key={n} className="num">
                                {i.count} × {i.part} {i.name} · lot {i.lot} · {i.place}
                            </li>
                        ))}
                    </ul>
                    {a.installed.length === 0 && <p className="text-faint">Nothing yet.</p>}
                </Panel>
            </div>
        </>
    );
}

function SignOff({ section, card, onCard, can }: SectionProps<'assembly'>) {
    const a = section;
    const { busy, problem, write } = useWrite();
    return (
        <Panel title="Sign-off" aside={a.signOffs.map((s) => `loop ${s.loop}: ${s.by}`).join(', ')}>
            {card.station === 'assembly' && a.blockers.length > 0 && (
                <>
                    <p>
                        <Mark kind="warn">{a.blockers.length} still open</Mark>
                    </p>
                    <ul className="list-disc pl-5 text-sm">
                        {a.blockers.slice(0, 7).map((b) => (
                            <li key={b.code}>{b.sentence}</li>
                        ))}
                    </ul>
                    {a.blockers.length > 7 && (
                        <More title={<>and {a.blockers.length - 7} more</>}>
                            <ul className="list-disc pl-5 text-sm">
                                {a.blockers.slice(7).map((b) => (
                                    <li key={b.code}>{b.sentence}</li>
                                ))}
                            </ul>
                        </More>
                    )}
                </>
            )}
            {card.station === 'assembly' && a.blockers.length === 0 && (
                <p>
                    <Mark kind="good">Everything is measured and inside its window.</Mark>
                </p>
            )}
            {card.station !== 'assembly' &&
                a.signOffs.slice(-1).map((last) => (
                    <p key={last.at}>
                        <Mark kind="good">
                            signed by {last.by}, {moment(last.at)}
                        </Mark>
                    </p>
                ))}
            <ProblemNote problem={problem} />
            {card.station === 'assembly' && can('assembly.sign') && (
                <button
                    type="button"
                    className="btn btn-main mt-2"
                    disabled={busy}
                    onClick={() =>
                        void write(
                            () =>
                                api.POST('/units/{number}/assembly/sign-off', {
                                    params: { path: { number: card.coreTag } },
                                    body: {},
                                }),
                            onCard,
                        )
                    }
                >
                    Sign for the assembly
                </button>
            )}
        </Panel>
    );
}
