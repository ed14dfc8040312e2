import { useFormContext, type Path, type PathValue } from 'react-hook-form';
import { z } from 'zod';
import type { Schemas } from '../../api/client';
import { fieldsOf } from '../../kit/form';
import { maybe, typedNumber, words } from '../../kit/form/values';

export type Form = Schemas['IntakeForm'];
export type Family = Form['families'][number];

const HOURS = 'Type a number with a point, for example 1.5';
const found = z.record(z.string(), z.string());
const numbers = z.array(z.string());
const upper = z.string().transform((typed) => typed.trim().toUpperCase());

/** What the receiver writes down, and what the contract takes of it. */
export const intake = z.object({
    coreTag: upper,
    jobType: z.string(),
    ownership: z.enum(['exchange', 'customer']),
    customer: maybe,
    family: maybe,
    rack: z.string(),
    vehicle: z.string(),
    vin: z.string(),
    odometer: z.string(),
    engine: z.string(),
    complaint: z.string(),
    codes: words,
    sender: z.enum(['own', 'shop']),
    senderDiagnosis: z.string(),
    clues: found,
    missing: numbers.transform((parts) => parts.map((part) => ({ part, count: 1 }))),
    failedHard: numbers.transform((parts) => parts.map((part) => ({ part }))),
    observed: found,
    damage: z.array(z.object({ place: z.string(), what: z.string() })),
    flags: numbers,
    tagCode: z.string(),
    repairHours: typedNumber(HOURS),
    grade: z
        .enum(['A', 'B', 'C', 'D', 'X'])
        .nullable()
        .transform((grade) => grade ?? undefined),
    gradeReason: z.string(),
    weight: z.string(),
    note: z.string(),
    converter: z
        .object({
            serial: z.string(),
            state: z.string(),
            stallClass: z.string(),
            lockup: z.string(),
            hub: z.string(),
            coreValue: z.string().transform((typed) => Number(typed) || 0),
            note: z.string(),
        })
        .transform((converter) => (converter.serial ? converter : undefined)),
});

export type Draft = z.input<typeof intake>;
export const { Text, Area, Pick, Find, Buttons, Checks } = fieldsOf<Draft>();

export const EMPTY: Draft = {
    coreTag: '',
    jobType: 'rebuild',
    ownership: 'exchange',
    customer: '',
    family: '',
    rack: '',
    vehicle: '',
    vin: '',
    odometer: '',
    engine: '',
    complaint: '',
    codes: '',
    sender: 'own',
    senderDiagnosis: '',
    clues: {},
    missing: [],
    failedHard: [],
    observed: {},
    damage: [],
    flags: [],
    tagCode: '',
    repairHours: '0',
    grade: null,
    gradeReason: '',
    weight: '',
    note: '',
    converter: { serial: '', state: 'core', stallClass: '', lockup: '', hub: '', coreValue: '', note: '' },
};

/** What is written so far, and a way to change several answers at once. */
export function useIntake() {
    const { watch, setValue, formState } = useFormContext<Draft>();
    const set = (change: Partial<Draft>) => {
        for (const [name, value] of Object.entries(change)) {
            setValue(name as Path<Draft>, value as PathValue<Draft, Path<Draft>>);
        }
    };
    return { d: watch(), set, errors: formState.errors };
}

/** What grade and credit follow from; null while it cannot be reckoned. */
export function worthOf(d: Draft) {
    const worth = intake.pick({ missing: true, failedHard: true, repairHours: true, grade: true, flags: true });
    const read = worth.safeParse(d);
    return read.success && d.family !== '' ? { family: d.family, ...read.data } : null;
}
