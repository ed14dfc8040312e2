import { Choice, Field, Panel } from '../../kit/basics';
import type { Draft, Writing } from './draft';

/** The converter that came along: a part of its own, with its own core value. */
export function ConverterCame({ d, set, at }: Writing) {
    const converter = (change: Partial<Draft['converter']>) => set({ converter: { ...d.converter, ...change } });
    return (
        <Panel title="Converter" aside="a part of its own, with its own core value">
            <div className="grid gap-3 sm:grid-cols-3">
                <Field
                    label="Serial, if it came along"
                    value={d.converter.serial}
                    onChange={(v) => converter({ serial: v })}
                    problem={at('/converter/serial')}
                />
                {d.converter.serial && (
                    <>
                        <Choice
                            label="State"
                            value={d.converter.state}
                            values={['core', 'contaminated']}
                            onChange={(v) => converter({ state: v })}
                        />
                        <Field
                            label="Core value"
                            inputMode="decimal"
                            value={d.converter.coreValue}
                            onChange={(v) => converter({ coreValue: v })}
                            problem={at('/converter/coreValue')}
                        />
                        <Field
                            label="Hub"
                            value={d.converter.hub}
                            onChange={(v) => converter({ hub: v })}
                            list={['sound', 'scored', 'blued']}
                        />
                        <Field
                            label="Stall class"
                            value={d.converter.stallClass}
                            onChange={(v) => converter({ stallClass: v })}
                            list={['stock', 'low', 'high']}
                        />
                        <Field
                            label="Lock-up"
                            value={d.converter.lockup}
                            onChange={(v) => converter({ lockup: v })}
                            list={['none', 'single plate', 'multi plate']}
                        />
                    </>
                )}
            </div>
        </Panel>
    );
}
