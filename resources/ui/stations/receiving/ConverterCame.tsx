import { Panel } from '../../kit/basics';
import { Buttons, Text, useIntake } from './draft';

/** The converter that came along: a part of its own, with its own core value. */
export function ConverterCame() {
    const { d } = useIntake();
    return (
        <Panel title="Converter" aside="a part of its own, with its own core value">
            <div className="grid gap-3 sm:grid-cols-3">
                <Text name="converter.serial" label="Serial, if it came along" />
                {d.converter.serial && (
                    <>
                        <Buttons name="converter.state" label="State" values={['core', 'contaminated']} />
                        <Text name="converter.coreValue" label="Core value" inputMode="decimal" />
                        <Text name="converter.hub" label="Hub" list={['sound', 'scored', 'blued']} />
                        <Text name="converter.stallClass" label="Stall class" list={['stock', 'low', 'high']} />
                        <Text name="converter.lockup" label="Lock-up" list={['none', 'single plate', 'multi plate']} />
                    </>
                )}
            </div>
        </Panel>
    );
}
