import { useState } from 'react';
import { Drawing } from '../../bench/Drawing';
import { PortMap } from '../../bench/PortMap';
import { Choice } from '../../kit/basics';

type Props = { family: string; gears: { name: string; applied: string[] }[] };

const NONE = 'none';

/** The family cut along its axis: lit is what a gear applies, or what the port that is touched fills. */
export function FamilyPicture({ family, gears }: Props) {
    const [gear, setGear] = useState(NONE);
    const [blown, setBlown] = useState<string | undefined>();
    const lit = blown ? [blown] : (gears.find((g) => g.name === gear)?.applied ?? []);
    return (
        <section aria-label="Section drawing" className="sheet mb-3">
            <Drawing
                key={family}
                family={family}
                states={Object.fromEntries(lit.map((e) => [e, 'hand' as const]))}
                className="h-72"
            />
            <div className="grid border-t border-rule lg:grid-cols-[1fr_1.2fr]">
                <div className="p-2">
                    <Choice
                        label="Lit: what is applied in gear"
                        value={gear}
                        values={[NONE, ...gears.map((g) => g.name)]}
                        onChange={(g) => {
                            setGear(g);
                            setBlown(undefined);
                        }}
                    />
                </div>
                <PortMap
                    key={`ports of ${family}`}
                    family={family}
                    element={blown}
                    onElement={setBlown}
                    className="h-56 lg:border-l lg:border-rule"
                />
            </div>
        </section>
    );
}
