const DELIMITERS = [',', ';', '\t'];

const cellsOf = (line: string, delimiter: string) =>
    line.split(delimiter).map((cell) => cell.trim().replace(/^"(.*)"$/, '$1'));

const isNumber = (cell: string | undefined) => cell !== undefined && /^[-+]?\d+([.,]\d+)?(e[-+]?\d+)?$/i.test(cell);

/** The names of the columns of a CSV file: a line before the numbers with as many cells as they, all of them words. */
export function columnsOf(text: string): string[] {
    const lines = text
        .replace(/^\uFEFF/, '')
        .split(/\r?\n/)
        .slice(0, 40);
    const found = DELIMITERS.map((delimiter) => {
        const rows = lines.map((line) => cellsOf(line, delimiter));
        const first = rows.findIndex((cells) => cells.length > 1 && cells.every(isNumber));
        const width = rows[first]?.length;
        const words = rows
            .slice(0, Math.max(0, first))
            .filter((r) => r.length === width && r.every((c) => !isNumber(c)));
        // Units may stand in a line of their own below the names.
        return words.find((cells) => cells.every((c) => c !== '')) ?? [];
    });
    return found.reduce((best, columns) => (columns.length > best.length ? columns : best), []);
}
