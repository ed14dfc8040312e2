import { createContext } from 'react';

/** Reads what was typed with a unit ("24 thou", "18 ft-lb") into the field's own; a sentence where it cannot be. */
export type ReadQuantity = (typed: string, quantity: Quantity) => Promise<number | string>;

/** A unit as it is written, and the kind of quantity that may be typed in its place; null: plain numbers only. */
export type Quantity = { unit: string; kind: string };

export const QuantityReader = createContext<ReadQuantity | null>(null);

const UNITS: Record<string, [unit: string, kind: string | null]> = {
    nm: ['N.m', 'torque'],
    mm: ['mm', 'length'],
    m: ['m', 'length'],
    in: ['in', 'length'],
    mm2: ['mm2', null],
    kg: ['kg', 'mass'],
    kpa: ['kPa', 'pressure'],
    mpa: ['MPa', 'pressure'],
    gpa: ['GPa', null],
    psi: ['psi', 'pressure'],
    degc: ['degC', 'temperature'],
    rpm: ['rpm', 'rotation'],
    s: ['s', null],
    kmh: ['km/h', 'speed'],
    n: ['N', 'force'],
    l: ['L', 'volume'],
    ml: ['mL', 'volume'],
    deg: ['deg', null],
    kw: ['kW', 'power'],
    kj: ['kJ', null],
};

const found = (field: string) => UNITS[/_([a-z0-9]+)$/.exec(field)?.[1] ?? ''];

/** The unit a field name ends in: torque_nm is in N.m. */
export const unitOf = (field: string): string | null => found(field)?.[0] ?? null;

/** What may be typed into a field with a unit of its own; null where only a plain number fits. */
export function quantityOf(field: string): Quantity | null {
    const [unit, kind] = found(field) ?? [];
    return unit && kind ? { unit, kind } : null;
}
