import { useSession } from '../../api/session';
import { api } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { Bench } from '../../bench/Bench';
import { isFinished } from '../../bench/types';
import type { SectionProps } from '../../card/section';
import { Mark, Panel, ProblemNote } from '../../kit/basics';
import { moment } from '../../kit/format';
import { More } from '../../kit/More';
import { AirLeaks } from './AirLeaks';
import { PickList } from './PickList';
import { SubAssemblies } from './SubAssemblies';

/** The unit goes together, one operation at a time; what is signed for and what came off the shelf stands below. */
export function AssemblyView(props: SectionProps<'assembly'>) {
    const { card, onCard, can, section: a } = props;
    const { person } = useSession();
    const finished = isFinished(a.work);
    return (
        <>
            <Bench
                bench="assembly"
                material={{ assembly: a }}
                editable={can('assembly.work') && card.station === 'assembly'}
                me={person?.name ?? null}
                badge={person?.badge ?? null}
                {...{ card, onCard }}
                finish={
                    finished && (
                        <div className="grid items-start gap-3 lg:grid-cols-2">
                            <SignOff {...props} />
                            <SubAssemblies {...props} />
                        </div>
                    )
                }
            />
            <div className="mt-3 grid items-start gap-3 lg:grid-cols-2">
                <div className="flex flex-col gap-3">
                    {!finished && <SubAssemblies {...props} />}
                    {!finished && <SignOff {...props} />}
                    <PickList number={card.coreTag} can={can('assembly.work') && card.station === 'assembly'} />
                </div>
                <div className="flex flex-col gap-3">
                    <Shelf installed={a.installed} />
                    <AirLeaks
                        number={card.coreTag}
                        read={a.places.filter((p) => p.kind === 'air-check').flatMap((p) => p.readings).length}
                    />
                    <Papers number={card.coreTag} />
                </div>
            </div>
        </>
    );
}

function Shelf({ installed }: Pick<SectionProps<'assembly'>['section'], 'installed'>) {
    return (
        <Panel title="Taken from the shelf">
            <ul className="text-sm">
                {installed.map((i, n) => (
                    <li key={n} className="num">
                        {i.count} × {i.part} {i.name} · lot {i.lot} · {i.place.startsWith('order:') ? 'order' : i.place}
                    </li>
                ))}
            </ul>
            {installed.length === 0 && <p className="text-faint">Nothing yet.</p>}
        </Panel>
    );
}

/** Every value, part, lot, person and gauge, on paper. */
function Papers({ number }: { number: string }) {
    const at = `/api/units/${number}/assembly/record`;
    return (
        <p className="flex flex-wrap gap-3">
            <a className="btn" href={at} target="_blank" rel="noreferrer">
                Build record to read or print
            </a>
            <a className="btn" href={`${at}.pdf`} target="_blank" rel="noreferrer">
                Build record as PDF
            </a>
        </p>
    );
}

function SignOff({ section: a, card, onCard, can }: SectionProps<'assembly'>) {
    const here = card.station === 'assembly';
    const last = a.signOffs.at(-1);
    return (
        <Panel title="Sign-off" aside={a.signOffs.map((s) => `loop ${s.loop}: ${s.by}`).join(', ')}>
            {here && <Open blockers={a.blockers} />}
            {!here && last && (
                <p>
                    <Mark kind="good">
                        signed by {last.by}, {moment(last.at)}
                    </Mark>
                </p>
            )}
            {here && can('assembly.sign') && <Sign number={card.coreTag} onCard={onCard} />}
        </Panel>
    );
}

type Blockers = SectionProps<'assembly'>['section']['blockers'];

/** What still bars the sign-off: the first seven, the rest one tap away. */
function Open({ blockers }: { blockers: Blockers }) {
    if (blockers.length === 0)
        return (
            <p>
                <Mark kind="good">Everything is measured and inside its window.</Mark>
            </p>
        );
    return (
        <>
            <p>
                <Mark kind="warn">{blockers.length} still open</Mark>
            </p>
            <Sentences of={blockers.slice(0, 7)} />
            {blockers.length > 7 && (
                <More title={<>and {blockers.length - 7} more</>}>
                    <Sentences of={blockers.slice(7)} />
                </More>
            )}
        </>
    );
}

const Sentences = ({ of }: { of: Blockers }) => (
    <ul className="list-disc pl-5 text-sm">
        {of.map((b) => (
            <li key={b.code}>{b.sentence}</li>
        ))}
    </ul>
);

function Sign({ number, onCard }: { number: string } & Pick<SectionProps<'assembly'>, 'onCard'>) {
    const { busy, problem, write } = useWrite();
    const params = { path: { number } };
    const sign = () => write(() => api.POST('/units/{number}/assembly/sign-off', { params, body: {} }), onCard);
    return (
        <>
            <ProblemNote problem={problem} />
            <button type="button" className="btn btn-main mt-2" disabled={busy} onClick={() => void sign()}>
                Sign for the assembly
            </button>
        </>
    );
}
