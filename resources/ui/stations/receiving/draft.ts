import type { Schemas } from '../../api/client';

export type Grade = 'A' | 'B' | 'C' | 'D' | 'X';

/** What the receiver has written so far; kept on the tablet until the core is taken in. */
export const EMPTY = {
    coreTag: '',
    jobType: 'rebuild',
    ownership: 'exchange' as 'exchange' | 'customer',
    customer: '',
    family: '',
    rack: '',
    vehicle: '',
    vin: '',
    odometer: '',
    engine: '',
    complaint: '',
    codes: '',
    sender: 'own' as 'own' | 'shop',
    senderDiagnosis: '',
    clues: {} as Record<string, string>,
    missing: [] as string[],
    failedHard: [] as string[],
    observed: {} as Record<string, string>,
    damage: [] as { place: string; what: string }[],
    flags: [] as string[],
    tagCode: '',
    repairHours: '0',
    grade: null as Grade | null,
    gradeReason: '',
    weight: '',
    note: '',
    converter: { serial: '', state: 'core', stallClass: '', lockup: '', hub: '', coreValue: '', note: '' },
};

export type Draft = typeof EMPTY;
export type Form = Schemas['IntakeForm'];
export type Family = Form['families'][number];

/** What every part of the receiver's page works on. */
export type Writing = {
    d: Draft;
    set: (change: Partial<Draft>) => void;
    /** The server's sentence at a field, by its pointer. */
    at: (pointer: string) => string | undefined;
};

/** The draft as the contract takes it. */
export const intakeOf = (d: Draft, nextTag: string) => ({
    coreTag: (d.coreTag || nextTag).trim().toUpperCase(),
    jobType: d.jobType,
    ownership: d.ownership,
    customer: d.customer || null,
    family: d.family || null,
    rack: d.rack,
    vehicle: d.vehicle,
    vin: d.vin,
    odometer: d.odometer,
    engine: d.engine,
    complaint: d.complaint,
    codes: d.codes.split(/[\s,;]+/).filter(Boolean),
    sender: d.sender,
    senderDiagnosis: d.senderDiagnosis,
    clues: d.clues,
    observed: d.observed,
    damage: d.damage,
    flags: d.flags,
    tagCode: d.tagCode,
    ...worthOf(d),
    gradeReason: d.gradeReason,
    weight: d.weight,
    note: d.note,
    ...(d.converter.serial ? { converter: { ...d.converter, coreValue: Number(d.converter.coreValue) || 0 } } : {}),
});

/** What grade and credit follow from. */
export const worthOf = (d: Draft) => ({
    missing: d.missing.map((part) => ({ part, count: 1 })),
    failedHard: d.failedHard.map((part) => ({ part })),
    repairHours: Number(d.repairHours),
    ...(d.grade ? { grade: d.grade } : {}),
});
