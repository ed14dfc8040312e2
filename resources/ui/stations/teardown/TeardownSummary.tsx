import { Panel } from '../../kit/basics';
import { percent } from '../../kit/format';
import type { SectionProps } from '../../card/section';
import { suspectSaid } from '../../work/suspect';

/** Why it failed. */
export function TeardownSummary({ section }: SectionProps<'teardown'>) {
    if (!section.inspection.some((i) => i.finding)) return null;
    const causes = section.inspection.filter((i) => i.finding?.role === 'cause');
    const done = section.work.operations.filter((s) => s.state === 'done').length;
    const suspect = section.suspects[0];
    return (
        <Panel title="Teardown" aside={`${done} of ${section.work.operations.length} operations`}>
            {causes.length > 0 ? (
                <p>
                    Cause:{' '}
                    {causes.map((c) => (
                        <strong key={c.part} className="mr-2">
                            {c.name}, {c.finding?.condition}
                        </strong>
                    ))}
                </p>
            ) : (
                <p>No cause marked.</p>
            )}
            {suspect && (
                <p className="text-sm">
                    From chart and symptoms: {suspectSaid(suspect)} at {percent(suspect.posterior)}. {suspect.because}
                </p>
            )}
        </Panel>
    );
}
