import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { compute } from '../../api/calc';
import { Field } from '../../kit/basics';
import { More } from '../../kit/More';

type Props = { wantedNm: number; armMm: number | null };

const number = (typed: string): number | null => (/^-?\d+(\.\d+)?$/.test(typed.trim()) ? Number(typed) : null);

/** An adapter lengthens the wrench: what to set on this one, so that the bolt gets what it should. */
export function Adapter({ wantedNm, armMm }: Props) {
    const [typed, setTyped] = useState<Typed>({ arm: '', length: '', angle: '0' });
    const [arm, length, angle] = [number(typed.arm) ?? armMm, number(typed.length), number(typed.angle)];
    const asked = { wanted_nm: wantedNm, wrenchLength_mm: arm, adapterLength_mm: length, angle_deg: angle };
    const setting = useQuery({
        queryKey: ['adapter', asked],
        queryFn: () => compute<{ setting_nm: number }>('torque.adapter', asked),
        enabled: arm !== null && length !== null && angle !== null,
        retry: false,
    });
    return (
        <More title="With an adapter on the wrench">
            <Lengths typed={typed} arm={armMm} onTyped={setTyped} />
            {setting.data && (
                <p role="status" className="text-lg">
                    Set the wrench to <strong className="num">{setting.data.setting_nm.toFixed(1)} N·m</strong>; the
                    bolt gets {wantedNm.toFixed(1)} N·m.
                </p>
            )}
            {setting.isError && (
                <p role="alert" className="font-semibold text-bad">
                    This cannot be reckoned: look at the lengths and the angle.
                </p>
            )}
        </More>
    );
}

type Typed = { arm: string; length: string; angle: string };
type LengthsProps = { typed: Typed; arm: number | null; onTyped: (typed: Typed) => void };

function Lengths({ typed, arm, onTyped }: LengthsProps) {
    const fields: [keyof Typed, string, string][] = [
        ['arm', 'Arm of the wrench, mm', typed.arm || String(arm ?? '')],
        ['length', 'Adapter, mm', typed.length],
        ['angle', 'Turned by, degrees (90: square)', typed.angle],
    ];
    return (
        <div className="flex flex-wrap gap-3">
            {fields.map(([field, label, value]) => (
                <Field
                    key={field}
                    className="w-44"
                    label={label}
                    inputMode="decimal"
                    value={value}
                    onChange={(v) => onTyped({ ...typed, [field]: v })}
                />
            ))}
        </div>
    );
}
