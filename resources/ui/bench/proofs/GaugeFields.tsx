import type { Schemas } from '../../api/client';
import { fieldProblem, type Problem } from '../../api/client';
import { Field, Select } from '../../kit/basics';

type Props = {
    /** What is read, with its unit. */
    label: string;
    gauges: Schemas['Gauge'][];
    reading: string;
    gauge: string;
    onReading: (v: string) => void;
    onGauge: (v: string) => void;
    problem: Problem | null;
    /** Where in what is sent the two fields stand. */
    at: string;
    autoFocus?: boolean;
};

/** A number off a gauge, and which gauge it was: none is chosen beforehand. */
export function GaugeFields({ label, gauges, reading, gauge, onReading, onGauge, problem, at, autoFocus }: Props) {
    return (
        <div className="flex flex-wrap items-end gap-3">
            <Field
                className="w-44 text-3xl"
                label={label}
                value={reading}
                onChange={onReading}
                autoFocus={autoFocus ?? false}
                problem={fieldProblem(problem, `${at}/reading`)}
            />
            <WhichGauge {...{ gauges, gauge, onGauge, problem, at }} />
        </div>
    );
}

/** None is chosen beforehand; one past its date says so. */
export function WhichGauge(props: Pick<Props, 'gauges' | 'gauge' | 'onGauge' | 'problem' | 'at'>) {
    const { gauges, gauge, onGauge, problem, at } = props;
    return (
        <Select
            label="Gauge"
            value={gauge}
            onChange={onGauge}
            empty="which gauge?"
            options={gauges.map((g) => ({
                value: g.code,
                text: `${g.name}${g.overdue ? ' (past its date)' : ''}`,
            }))}
            problem={fieldProblem(problem, `${at}/gauge`)}
        />
    );
}
