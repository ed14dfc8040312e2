import type { Schemas } from '../../api/client';
import { HeadRow, Mark } from '../../kit/basics';

type Run = Schemas['Run'];
type Check = Run['checks'][number];

/** Decimals by what is measured: times and ratios to a thousandth. */
const DECIMALS: Record<string, number> = { s: 3, ratio: 3, '%': 2 };

const valueOf = ({ value, unit }: Pick<Check, 'value' | 'unit'>) =>
    value === null ? '–' : `${value.toFixed(DECIMALS[unit ?? ''] ?? 0)} ${unit}`;

function limitOf({ min, max, unit, against }: Check): string {
    const window = [min != null && `from ${min}`, max != null && `to ${max}`].filter(Boolean).join(' ');
    if (window === '') return unit === 'inside' ? 'all of them' : 'must come';
    return against && against !== 'limits' ? `${against} ${window}` : window;
}

const placeOf = ({ check, where }: Pick<Check, 'check' | 'where'>) => `${check}, ${where}`;

/** How far a number is on its way from the middle of its window to the edge; beyond 1 it lies outside. */
function shareOf({ value, min, max, pass }: Check): number {
    if (value === null) return Infinity;
    if (min != null && max != null)
        return Math.abs(value - (min + max) / 2) / Math.max((max - min) / 2, Number.EPSILON);
    if (max != null && max > 0) return value / max;
    if (min != null && value > 0) return min / value;
    return pass ? 0 : Infinity;
}

type Row = Check & { limits: string };

/** One row a number, whatever limits it is held against. */
export function rowsOf(checks: Check[]): Row[] {
    const rows = new Map<string, Row>();
    for (const c of checks) {
        const key = `${placeOf(c)}, ${c.value}`;
        const row = rows.get(key);
        if (!row) {
            rows.set(key, { ...c, limits: limitOf(c) });
            continue;
        }
        const limits = row.limits.split(' and ').includes(limitOf(c)) ? row.limits : `${row.limits} and ${limitOf(c)}`;
        const worse = shareOf(c) > shareOf(row) ? c : row;
        rows.set(key, { ...worse, pass: row.pass && c.pass, limits });
    }
    return [...rows.values()];
}

/** The number furthest outside; with all of them inside, the one nearest to its limit. */
export function Deciding({ of }: { of: Row[] }) {
    const first = [...of]
        .filter((c) => c.min != null || c.max != null || !c.pass)
        .sort((a, b) => Number(a.pass) - Number(b.pass) || shareOf(b) - shareOf(a))[0];
    if (!first) return null;
    return (
        <div className="mb-2 flex flex-wrap items-baseline gap-x-4">
            <span className="num text-4xl font-semibold">{first.value === null ? 'not measured' : valueOf(first)}</span>
            <span className="text-lg">
                {first.check}, {first.where}
            </span>
            <span className="text-faint">
                {first.pass ? 'nearest to its limit' : 'furthest outside'}: {limitOf(first)}
            </span>
        </div>
    );
}

const NOT_READ = { value: null, unit: '' };

/** What the run before this one gave, by check and place. */
export function beforeOf(runs: Run[], run: Run): Map<string, Check> | undefined {
    const before = runs.find((r) => r.purpose === 'unit' && r.id < run.id && r.checks.length > 0);
    return before && new Map(before.checks.map((c) => [placeOf(c), c]));
}

type Band = Schemas['RunDetail']['good'][number];

/** Eight of ten good runs of the variant lie between these. */
function bandOf(band: Band | undefined, unit: string | undefined): string {
    const rough = (v: number) => v.toFixed(DECIMALS[unit ?? ''] ?? 0);
    return band ? `${rough(band.low)} to ${rough(band.high)}` : '–';
}

export type Reference = NonNullable<Schemas['RunDetail']['reference']>;

export type Beside = { before: Map<string, Check> | undefined; good: Band[]; reference: Reference | null };

export function CheckTable({ of, before, good, reference }: Beside & { of: Row[] }) {
    const last = (c: Check) => before?.get(placeOf(c));
    const bands = new Map(good.map((b) => [placeOf(b), b]));
    const shown = new Map(reference?.readings.map((r) => [placeOf(r), r.value]));
    const compared = of.some((c) => shown.has(placeOf(c)));
    const beside = [
        ...(before ? ['Run before'] : []),
        ...(good.length > 0 ? ['Good runs'] : []),
        ...(compared ? ['Reference unit'] : []),
    ];
    return (
        <table className="w-full">
            <HeadRow of={['Check', 'Where', 'Value', ...beside, 'Limit', 'Result']} />
            <tbody>
                {of.map((c, i) => (
                    <tr key={i}>
                        <td className="td">{c.check}</td>
                        <td className="td">{c.where}</td>
                        <td className="td num">{valueOf(c)}</td>
                        {before && <td className="td num text-faint">{valueOf(last(c) ?? NOT_READ)}</td>}
                        {good.length > 0 && (
                            <td className="td num text-faint">{bandOf(bands.get(placeOf(c)), c.unit)}</td>
                        )}
                        {compared && (
                            <td className="td num text-faint">
                                {valueOf({ value: shown.get(placeOf(c)) ?? null, unit: c.unit })}
                            </td>
                        )}
                        <td className="td num">{c.limits}</td>
                        <td className="td">
                            <Mark kind={c.pass ? 'good' : 'bad'}>{c.pass ? 'inside' : 'outside'}</Mark>
                        </td>
                    </tr>
                ))}
            </tbody>
        </table>
    );
}

type Program = Pick<NonNullable<Schemas['Dyno']['program']>, 'windows'> | null;

/** Which good units the numbers of a run are held against; what no good unit stands for must be looked at by hand. */
export function HeldAgainst({ program, purpose = 'unit' }: { program: Program; purpose?: string }) {
    if (program === null || purpose !== 'unit') return null;
    const { windows } = program;
    if (windows.of === 'built')
        return (
            <p className="mb-2 text-sm text-faint">{windows.count} numbers are held against good units built alike.</p>
        );
    return (
        <p className="mb-2 text-sm">
            <Mark kind="warn">No good units with this hardware are on record</Mark> Shift times, pressures and
            engagement are held against the limits alone: look at them before you judge.
        </p>
    );
}
