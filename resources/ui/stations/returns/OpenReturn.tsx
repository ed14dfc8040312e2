import { useState } from 'react';
import { api, fieldProblem } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { Field, Panel, ProblemNote, TextArea } from '../../kit/basics';
import type { CardProps } from '../../card/section';

/** A unit that is with the customer comes back. */
export function OpenReturn({ card, onCard, can }: CardProps) {
    const [v, setV] = useState({
        complaint: '',
        codes: '',
        installedOn: card.dispatch?.commissioning?.installedOn ?? '',
        failedOn: new Date().toISOString().slice(0, 10),
        odometer: '',
    });
    const { busy, problem, write } = useWrite();
    const set = (change: Partial<typeof v>) => setV({ ...v, ...change });
    if (!can('returns.handle')) return null;
    return (
        <Panel title={`${card.serial} comes back`} aside="first question: is it the unit or the car">
            <div className="grid gap-3 sm:grid-cols-2">
                <TextArea
                    label="Complaint, in the owner's words"
                    value={v.complaint}
                    onChange={(complaint) => set({ complaint })}
                    problem={fieldProblem(problem, '/complaint')}
                />
                <Field label="Stored codes" value={v.codes} onChange={(codes) => set({ codes })} />
                <Field
                    label="Fitted on"
                    type="date"
                    value={v.installedOn}
                    onChange={(installedOn) => set({ installedOn })}
                    problem={fieldProblem(problem, '/installedOn')}
                />
                <Field
                    label="Failed on"
                    type="date"
                    value={v.failedOn}
                    onChange={(failedOn) => set({ failedOn })}
                    problem={fieldProblem(problem, '/failedOn')}
                />
                <Field
                    label="Odometer"
                    value={v.odometer}
                    onChange={(odometer) => set({ odometer })}
                    problem={fieldProblem(problem, '/odometer')}
                />
            </div>
            <ProblemNote problem={problem} except={['/complaint', '/installedOn', '/failedOn', '/odometer']} />
            <button
                type="button"
                className="btn btn-main mt-2"
                disabled={busy}
                onClick={() =>
                    void write(
                        () =>
                            api.POST('/returns', {
                                body: {
                                    serial: card.serial ?? '',
                                    complaint: v.complaint,
                                    codes: v.codes.split(/[\s,;]+/).filter(Boolean),
                                    installedOn: v.installedOn || null,
                                    failedOn: v.failedOn,
                                    odometer: v.odometer,
                                },
                            }),
                        onCard,
                    )
                }
            >
                Open a return
            </button>
        </Panel>
    );
}
