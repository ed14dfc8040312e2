import { Mark, Panel } from '../../kit/basics';
import { moment } from '../../kit/format';
import type { SectionProps } from '../../card/section';

/** What the rig said last. */
export function DynoSummary({ section }: SectionProps<'dyno'>) {
    const run = section.runs[0];
    if (!run) return null;
    const verdict = { pass: 'good', fail: 'bad', conditional: 'warn' } as const;
    return (
        <Panel
            title="Dyno"
            aside={run.verdictBy && run.verdictAt ? `${run.verdictBy}, ${moment(run.verdictAt)}` : run.state}
        >
            <p className="text-lg">
                {run.verdict ? (
                    <Mark kind={verdict[run.verdict as keyof typeof verdict] ?? 'warn'}>{run.verdict}</Mark>
                ) : (
                    'not judged'
                )}{' '}
                {run.reason}
            </p>
            <p className="text-sm">
                {run.checks.filter((c) => c.pass).length} of {run.checks.length} checks inside their limits, loop{' '}
                {run.loop}
            </p>
        </Panel>
    );
}
