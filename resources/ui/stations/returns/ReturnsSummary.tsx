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
            {r.verdict ? (
                <p>
                    Verdict: <strong>{r.ranking?.find((v) => v.verdict === r.verdict)?.name ?? r.verdict}</strong>.{' '}
                    {r.note}
                </p>
            ) : (
                <p>
                    Evidence so far: {r.ranking?.[0]?.name} at {percent(r.ranking?.[0]?.posterior ?? 0)}
                </p>
            )}
        </Panel>
    ));
}
