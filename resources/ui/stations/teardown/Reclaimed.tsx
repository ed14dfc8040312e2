import { Link } from 'react-router';
import type { SectionProps } from '../../card/section';
import { Panel } from '../../kit/basics';

/** Hard parts of this unit that went to the shelf: each is a lot of its own, with this core as its origin. */
export function Reclaimed({ card, section }: SectionProps<'teardown'>) {
    if (section.reclaimed.length === 0) return null;
    return (
        <Panel title="On the shelf from this core">
            <ul>
                {section.reclaimed.map((r) => (
                    <li key={r.lot} className="flex flex-wrap justify-between gap-3 border-b border-rule py-1">
                        <span>
                            {r.name} <span className="text-sm text-faint num">{r.part}</span>
                        </span>
                        <Link className="underline num" to={`/lots/${encodeURIComponent(r.lot)}`}>
                            {r.lot}
                        </Link>
                    </li>
                ))}
            </ul>
            <Link className="btn self-start" to={`/units/${card.coreTag}/teardown/labels`}>
                Their labels
            </Link>
        </Panel>
    );
}
