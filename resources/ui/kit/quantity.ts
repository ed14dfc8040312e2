import { createContext } from 'react';

/** Reads what was typed with a unit ("24 thou", "18 ft-lb") into the field's own; a sentence where it cannot be. */
export type ReadQuantity = (typed: string, unit: string) => Promise<number | string>;

export const QuantityReader = createContext<ReadQuantity | null>(null);

const UNITS: Record<string, string> = {
    nm: 'N.m',
    mm: 'mm',
    m: 'm',
    mm2: 'mm2',
    kg: 'kg',
    kpa: 'kPa',
    mpa: 'MPa',
    gpa: 'GPa',
    rpm: 'rpm',
    s: 's',
    kmh: 'km/h',
    n: 'N',
    l: 'L',
    ml: 'mL',
    deg: 'deg',
    kw: 'kW',
    kj: 'kJ',
};

/** The unit a field name ends in: torque_nm is in N.m. */
export const unitOf = (field: string): string | null => UNITS[/_([a-z0-9]+)$/.exec(field)?.[1] ?? ''] ?? null;
