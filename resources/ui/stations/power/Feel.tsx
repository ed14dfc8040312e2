import { useEffect, useState } from 'react';
import { api, asProblem, type Problem } from '../../lib/api';
import { Field, Panel, ProblemNote } from '../../parts/basics';

const FIELDS = [['pistonDiameter_mm', 'Piston (mm)'], ['wire_mm', 'Wire (mm)'], ['meanDiameter_mm', 'Coil, mean (mm)'], ['activeCoils', 'Active coils'], ['freeLength_mm', 'Free length (mm)'], ['installedLength_mm', 'Installed (mm)'], ['stroke_mm', 'Stroke (mm)'], ['orifice_mm', 'Feed orifice (mm)']] as const;
type Key = (typeof FIELDS)[number][0];
type Build = Record<Key, string>;
type Answer = { builds: { name: string; start_kpa: number; end_kpa: number; volume_ml: number; curve: { volume_ml: number; pressure_kpa: number }[] }[] };

/** Shear modulus of spring steel and density of the fluid: usual values of handbooks, from memory. */
const [MODULUS, DENSITY, DISCHARGE] = [79.3, 850, 0.62];
const STOCK: Build = { pistonDiameter_mm: '30', wire_mm: '2.2', meanDiameter_mm: '18', activeCoils: '8', freeLength_mm: '75', installedLength_mm: '70', stroke_mm: '44.5', orifice_mm: '2.0' };

/** What a spring, a stroke or an orifice does to the feel of a shift: the accumulator before and after. */
export function Feel() {
    const [builds, setBuilds] = useState<{ before: Build; after: Build }>({ before: STOCK, after: { ...STOCK, stroke_mm: '25.4' } });
    const [got, setGot] = useState<Answer | null>(null);
    const [ratio, setRatio] = useState<number | null>(null);
    const [problem, setProblem] = useState<Problem | null>(null);
    const asked = JSON.stringify(builds);
    useEffect(() => {
        let stale = false;
        const timer = setTimeout(() => {
            const n = (s: string) => (s.trim() === '' || Number.isNaN(Number(s)) ? s : Number(s));
            const input = (['before', 'after'] as const).map((name) => {
                const b = builds[name];
                return { name, pistonDiameter_mm: n(b.pistonDiameter_mm), installedLength_mm: n(b.installedLength_mm), stroke_mm: n(b.stroke_mm), springs: [{ wire_mm: n(b.wire_mm), meanDiameter_mm: n(b.meanDiameter_mm), activeCoils: n(b.activeCoils), freeLength_mm: n(b.freeLength_mm), modulus_gpa: MODULUS }] };
            });
            void api.POST('/calc/{name}', { params: { path: { name: 'accumulator.window' } }, body: { builds: input } as never }).then(({ data, error, response }) => {
                if (stale) return;
                setProblem(data ? null : asProblem(error, response.status));
                if (data) setGot(data as never);
            });
            void api.POST('/calc/{name}', { params: { path: { name: 'orifice.flow' } }, body: { diameter_mm: n(builds.before.orifice_mm), dischargeCoefficient: DISCHARGE, pressureDrop_kpa: 200, density: DENSITY, compare: { diameter_mm: n(builds.after.orifice_mm) } } as never }).then(({ data }) => !stale && setRatio(data ? ((data as { ratio?: number }).ratio ?? null) : null));
        }, 150);
        return () => {
            stale = true;
            clearTimeout(timer);
        };
        // eslint-disable-next-line react-hooks/exhaustive-deps
    }, [asked]);
    const [before, after] = got?.builds ?? [];
    const faster = before && after && ratio ? before.volume_ml / Math.max(after.volume_ml, 1e-9) * ratio : null;
    return (
        <Panel title="Feel: an accumulator before and after" aside="shorter stroke or stiffer spring: firmer and quicker; a blocked piston must still sit below the gasket face">
            <div className="grid items-start gap-4 lg:grid-cols-2">
                <div>
                    {(['before', 'after'] as const).map((which) => (
                        <fieldset key={which} className="mb-2">
                            <legend className="font-semibold">{which === 'before' ? 'Before' : 'After'}</legend>
                            <div className="grid grid-cols-2 gap-2 sm:grid-cols-4">{FIELDS.map(([k, label]) => <Field key={k} label={label} inputMode="decimal" value={builds[which][k]} onChange={(v) => setBuilds({ ...builds, [which]: { ...builds[which], [k]: v } })} />)}</div>
                        </fieldset>
                    ))}
                    <ProblemNote problem={problem} />
                </div>
                {before && after && (
                    <div>
                        <Curve before={before.curve} after={after.curve} />
                        <table className="w-full">
                            <thead><tr>{['', 'Starts at', 'Ends at', 'Takes up'].map((h) => <th key={h} scope="col" className="th">{h}</th>)}</tr></thead>
                            <tbody>{[before, after].map((b) => <tr key={b.name}><th scope="row" className="td text-left">{b.name}</th><td className="td num">{b.start_kpa.toFixed(0)} kPa</td><td className="td num">{b.end_kpa.toFixed(0)} kPa</td><td className="td num">{b.volume_ml.toFixed(1)} mL</td></tr>)}</tbody>
                        </table>
                        {faster !== null && after.volume_ml > 0 && <p className="mt-1">Filled in about <strong className="num">{(100 / faster).toFixed(0)} %</strong> of the time: volume and orifice together, at equal pressure drop.</p>}
                        {after.volume_ml === 0 && <p className="mt-1">Blocked solid: nothing softens the shift.</p>}
                    </div>
                )}
            </div>
        </Panel>
    );
}

function Curve({ before, after }: { before: { volume_ml: number; pressure_kpa: number }[]; after: { volume_ml: number; pressure_kpa: number }[] }) {
    const all = [...before, ...after];
    const [w, h, l, b] = [460, 200, 48, 26];
    const [vx, py] = [Math.max(1, ...all.map((p) => p.volume_ml)), Math.max(1, ...all.map((p) => p.pressure_kpa))];
    const points = (c: typeof before) => c.map((p) => `${l + (p.volume_ml / vx) * (w - l - 70)},${h - b - (p.pressure_kpa / py) * (h - b - 14)}`).join(' ');
    const end = (c: typeof before) => { const p = c.at(-1)!; return [l + (p.volume_ml / vx) * (w - l - 70) + 6, h - b - (p.pressure_kpa / py) * (h - b - 14) + 4] as const; };
    return (
        <svg viewBox={`0 0 ${w} ${h}`} role="img" aria-label="Pressure against oil taken up, before and after" className="w-full">
            <line x1={l} x2={l} y1={8} y2={h - b} stroke="var(--frame)" /><line x1={l} x2={w - 64} y1={h - b} y2={h - b} stroke="var(--frame)" />
            <text x={l - 6} y={18} fontSize={12} textAnchor="end" fill="var(--faint)">{py.toFixed(0)}</text><text x={l - 6} y={h - b} fontSize={12} textAnchor="end" fill="var(--faint)">0 kPa</text><text x={w - 70} y={h - 8} fontSize={12} textAnchor="end" fill="var(--faint)">{vx.toFixed(0)} mL</text>
            <polyline fill="none" stroke="var(--edge)" strokeWidth={3} points={points(before)} /><polyline fill="none" stroke="var(--hand)" strokeWidth={3} strokeDasharray="8 4" points={points(after)} />
            <text x={end(before)[0]} y={end(before)[1]} fontSize={13} fill="currentColor">before</text><text x={end(after)[0]} y={end(after)[1] + 14} fontSize={13} fill="currentColor">after</text>
        </svg>
    );
}
