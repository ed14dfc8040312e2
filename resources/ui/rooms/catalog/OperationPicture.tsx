import { useState } from 'react';
import { Drawing } from '../../bench/Drawing';
import { Choice } from '../../kit/basics';

type Body = { parts?: string[]; removes?: string[] };
type Node = { body?: Body };

const IN_HAND = 'is in hand here';
const COMES_OFF = 'comes off here';

/** Puts a part into a list of the operation, or takes it out again; an empty list is left out. */
export function toggled(node: Node, field: keyof Body, part: string): Node {
    const { [field]: before = [], ...rest } = node.body ?? {};
    const after = before.includes(part) ? before.filter((p) => p !== part) : [...before, part];
    return { ...node, body: after.length > 0 ? { ...rest, [field]: after } : rest };
}

type Props = { family: string; node: Node; editable: boolean; onChange: (node: Node) => void };

/** The drawing beside an operation that is written: touched parts are those it concerns, or those it takes off. */
export function OperationPicture({ family, node, editable, onChange }: Props) {
    const [touch, setTouch] = useState(IN_HAND);
    const field = touch === IN_HAND ? 'parts' : 'removes';
    const { parts = [], removes = [] } = node.body ?? {};
    return (
        <div className="mb-3 border border-rule">
            <Drawing
                family={family}
                states={{
                    ...Object.fromEntries(removes.map((p) => [p, 'off' as const])),
                    ...Object.fromEntries(parts.map((p) => [p, 'hand' as const])),
                }}
                follow={parts}
                {...(editable && { onPart: (p: string) => onChange(toggled(node, field, p)) })}
                className="h-64"
            />
            {editable && (
                <div className="border-t border-rule p-2">
                    <Choice
                        label="A part that is touched"
                        value={touch}
                        values={[IN_HAND, COMES_OFF]}
                        onChange={setTouch}
                    />
                </div>
            )}
        </div>
    );
}
