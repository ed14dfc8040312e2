import { useState } from 'react';
import { Drawing } from '../../bench/Drawing';
import { Choice } from '../../kit/basics';

type Props = { family: string; gears: { name: string; applied: string[] }[] };

const NONE = 'none';

/** The family cut along its axis; what a gear applies is lit in it. */
export function FamilyPicture({ family, gears }: Props) {
    const [gear, setGear] = useState(NONE);
    const applied = gears.find((g) => g.name === gear)?.applied ?? [];
    return (
        <section aria-label="Section drawing" className="sheet mb-3">
            <Drawing
                key={family}
                family={family}
                states={Object.fromEntries(applied.map((e) => [e, 'hand' as const]))}
                className="h-80"
            />
            <div className="border-t border-rule p-2">
                <Choice
                    label="Lit: what is applied in gear"
                    value={gear}
                    values={[NONE, ...gears.map((g) => g.name)]}
                    onChange={setGear}
                />
            </div>
        </section>
    );
}
