import type { Problem } from '../../api/client';

/** The field a JSON pointer of a problem document speaks of, as a form names it: /converter/serial is converter.serial. */
export const fieldOf = (pointer: string) =>
    pointer
        .split('/')
        .slice(1)
        .map((part) => part.replaceAll('~1', '/').replaceAll('~0', '~'))
        .join('.');

/** The sentence of each field a problem document speaks of; the first one counts. */
export function sentencesOf(problem: Problem | null): Record<string, string> {
    const out: Record<string, string> = {};
    for (const { pointer, detail } of problem?.errors ?? []) out[fieldOf(pointer)] ??= detail;
    return out;
}
