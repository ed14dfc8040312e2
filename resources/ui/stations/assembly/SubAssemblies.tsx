import { Link } from 'react-router';
import { api } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import type { SectionProps } from '../../card/section';
import { Mark, Panel, ProblemNote } from '../../kit/basics';
import { moment } from '../../kit/format';

type Props = SectionProps<'assembly'>;
type Sub = Props['section']['subs'][number];

/** What is built by itself: who signed for it, and the label for its bag. */
export function SubAssemblies(props: Props) {
    const { card, section: a } = props;
    if (a.subs.length === 0) return null;
    const labels = (
        <Link className="underline" to={`/units/${card.coreTag}/assembly/bags`}>
            bag labels
        </Link>
    );
    return (
        <Panel title="Sub-assemblies" aside={labels}>
            <ul className="divide-y divide-rule">
                {a.subs.map((s) => (
                    <li key={s.name} className="flex flex-wrap items-center gap-x-3 py-1">
                        <strong className="flex-1">{s.name}</strong>
                        <Standing sub={s} {...props} />
                    </li>
                ))}
            </ul>
        </Panel>
    );
}

function Standing({ sub: s, ...props }: { sub: Sub } & Props) {
    if (s.by !== null)
        return (
            <Mark kind="good">
                {s.by}, {s.at !== null && moment(s.at)}
            </Mark>
        );
    if (s.left.length > 0)
        return (
            <Mark kind="idle">
                {s.left.length} of {s.operations.length} left
            </Mark>
        );
    return props.can('assembly.sign') && props.card.station === 'assembly' ? (
        <Sign name={s.name} {...props} />
    ) : (
        <Mark kind="warn">not signed</Mark>
    );
}

function Sign({ name, card, onCard }: { name: string } & Props) {
    const { busy, problem, write } = useWrite();
    const params = { path: { number: card.coreTag, sub: name } };
    const sign = () =>
        write(() => api.POST('/units/{number}/assembly/subs/{sub}/sign-off', { params, body: {} }), onCard);
    return (
        <>
            <button type="button" className="btn" disabled={busy} onClick={() => void sign()}>
                Sign for the {name.toLowerCase()}
            </button>
            <ProblemNote problem={problem} />
        </>
    );
}
