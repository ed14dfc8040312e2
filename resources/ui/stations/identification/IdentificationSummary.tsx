import { Mark, Panel } from '../../kit/basics';
import { moment, percent } from '../../kit/format';
import type { SectionProps } from '../../card/section';

/** Which variant it is, or what speaks for which so far. */
export function IdentificationSummary({ section }: SectionProps<'identification'>) {
    const decision = section.decisions.at(-1);
    const top = section.ranking[0];
    return (
        <Panel title="Identified" aside={decision ? `${decision.by}, ${moment(decision.at)}` : 'open'}>
            {decision ? (
                <>
                    <p className="text-lg">
                        {decision.outcome === 'confirmed' ? (
                            <>
                                <strong>{decision.variant}</strong> at {percent(decision.posterior ?? 0, 1)}
                            </>
                        ) : (
                            'marked unknown'
                        )}
                    </p>
                    {decision.foreignParts.length > 0 && (
                        <p>
                            <Mark kind="warn">mixed</Mark> {decision.foreignParts.map((p) => p.part).join(', ')}
                        </p>
                    )}
                    {decision.note && <p>{decision.note}</p>}
                </>
            ) : (
                <p>
                    So far{' '}
                    {top ? (
                        <>
                            most likely <strong>{top.variant}</strong> at {percent(top.posterior)}
                        </>
                    ) : (
                        'nothing known'
                    )}
                    .
                </p>
            )}
        </Panel>
    );
}
