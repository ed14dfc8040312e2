import { Panel } from '../../kit/basics';
import { moment, percent } from '../../kit/format';
import type { SectionProps } from '../../card/section';

/** Why it came back. */
export function ReturnsSummary({ section }: SectionProps<'returns'>) {
    return section.cases.map((r) => (
        <Panel
            key={r.number}
            title={`Return ${r.number}`}
            aside={r.verdictBy && r.verdictAt ? `${r.verdictBy}, ${moment(r.verdictAt)}` : 'open'}
        >
            <p className="text-lg">“{r.complaint}”</p>
            <p>
                {r.serial}, {r.daysInService} days in service
            </p>
            <Stands case={r} />
        </Panel>
    ));
}

type Case = SectionProps<'returns'>['section']['cases'][number];

/** The verdict, or where the evidence points so far. */
function Stands({ case: { verdict, ranking, note } }: { case: Case }) {
    const first = ranking?.[0];
    if (verdict)
        return (
            <p>
                Verdict: <strong>{ranking?.find((v) => v.verdict === verdict)?.name ?? verdict}</strong>. {note}
            </p>
        );
    return (
        <p>
            Evidence so far: {first?.name} at {percent(first?.posterior ?? 0)}
        </p>
    );
}
