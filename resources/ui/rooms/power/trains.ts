export type PlanetSet = {
    id: string;
    kind: 'simple' | 'double';
    sun: string;
    ring: string;
    carrier: string;
    sunTeeth: number;
    ringTeeth: number;
    planetTeeth?: number | number[];
    planets?: number;
};
export type Element = {
    id: string;
    kind: 'clutch' | 'brake' | 'one-way';
    a: string;
    b: string;
    locks?: 'negative' | 'positive';
    name?: string;
};
export type Train = {
    input: string;
    output: string;
    sets: PlanetSet[];
    elements: Element[];
    gears: { name: string; applied: string[] }[];
};
export type SolvedGear = {
    name: string;
    state: 'driven' | 'neutral' | 'held' | 'locked';
    ratio: number | null;
    speeds: Record<string, number>;
    elementTorque: Record<string, number>;
    slip: Record<string, number>;
    setTorque: Record<string, { sun: number; ring: number; carrier: number }>;
    outputTorque?: number;
    oneWayConsistent?: Record<string, boolean>;
};
export type Solved = {
    gears: SolvedGear[];
    step: number[];
    spread?: number;
    warnings: { code: string; message: string }[];
};
export type Shift = {
    from: string;
    to: string;
    on: string[];
    off: string[];
    inputDrop_rpm: number;
    inertiaTorque_nm: number;
    elements: {
        element: string;
        slipBefore_rpm: number;
        torque_nm: number;
        energy_j: number;
        meanPower_kw: number;
        perArea_j_mm2?: number;
    }[];
};

/** Every shaft in the order it is first named, the case last. */
export function shafts(train: Train): string[] {
    const names = [
        train.input,
        ...train.sets.flatMap((s) => [s.sun, s.carrier, s.ring]),
        ...train.elements.flatMap((e) => [e.a, e.b]),
        train.output,
    ];
    return [...new Set(names.filter((n) => n !== 'case' && n !== train.output)), train.output];
}

/** An element as the bench calls it. */
export const elementName = (e: Element) => (e.name && e.name !== e.id ? `${e.id} ${e.name}` : e.id);

/** What is typed goes as a number; what is none goes as it is, so that the answer says which field it is. */
export const typedNumber = (s: string) => (s.trim() === '' || Number.isNaN(Number(s)) ? s : Number(s));
