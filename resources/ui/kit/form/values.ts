import { z } from 'zod';

/** Words apart by blanks, commas or semicolons: trouble codes as they are read off. */
export const words = z.string().transform((typed) => typed.split(/[\s,;]+/).filter(Boolean));

/** What may be left empty; the contract takes null for it. */
export const maybe = z.string().transform((typed) => typed.trim() || null);

export const said = (sentence: string) => z.string().refine((typed) => typed.trim() !== '', sentence);

/** A number typed with a point. */
export const typedNumber = (sentence: string) =>
    z.string().transform((typed, context) => {
        const n = Number(typed.trim());
        if (typed.trim() !== '' && !Number.isNaN(n)) return n;
        context.addIssue({ code: 'custom', message: sentence });
        return z.NEVER;
    });
