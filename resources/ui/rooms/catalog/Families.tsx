import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { answer, api } from '../../api/client';
import { formatValue } from '../../kit/format';
import { Choice, HeadRow, Panel, Source } from '../../kit/basics';
import { Pending } from '../../kit/Fetched';
import { FamilyPicture } from './FamilyPicture';

type Solved = {
    gears: {
        name: string;
        ratio: number | null;
        state: string;
        speeds: Record<string, number>;
        elementTorque: Record<string, number>;
    }[];
    step: number[];
    spread?: number;
};
type Train = {
    elements: { id: string; name?: string; kind: string; a: string; b: string }[];
    gears: { name: string; applied: string[] }[];
    sets: { id: string; kind: string; sunTeeth: number; ringTeeth: number }[];
};

/** The catalog as it stands: trains, apply charts, windows and applications, each with its source. */
export function Families() {
    const list = useQuery({ queryKey: ['families'], queryFn: () => answer(api.GET('/catalog/families')) });
    const [chosen, setChosen] = useState<string | null>(null);
    const code = chosen ?? list.data?.families[0]?.code;
    const family = useQuery({
        queryKey: ['family', code],
        queryFn: () => answer(api.GET('/catalog/families/{code}', { params: { path: { code: code! } } })),
        enabled: !!code,
    });
    if (!family.data || !list.data) return <Pending of={[list, family]} what="the catalog" />;
    const f = family.data;
    const solved = f.solved as Solved;
    const train = f.train as Train;
    return (
        <>
            <div className="mb-2 flex items-baseline justify-between">
                <h1 className="text-3xl">Catalog</h1>
                <Link to="/catalog/entries" className="btn">
                    Open the catalog desk
                </Link>
            </div>
            {list.data.families.length > 1 && (
                <Choice
                    label="Family"
                    value={code!}
                    values={list.data.families.map((x) => x.code)}
                    onChange={setChosen}
                />
            )}
            <FamilyPicture family={f.code} gears={train.gears} />
            <div className="grid items-start gap-3 lg:grid-cols-2">
                <Panel title={f.name} aside={f.topology}>
                    <table className="w-full">
                        <thead>
                            <tr>
                                <th scope="col" className="th">
                                    Gear
                                </th>
                                <th scope="col" className="th text-right">
                                    Ratio
                                </th>
                                {train.elements.map((e) => (
                                    <th key={e.id} scope="col" className="th text-center" title={e.name}>
                                        {e.id}
                                    </th>
                                ))}
                            </tr>
                        </thead>
                        <tbody>
                            {solved.gears.map((g) => {
                                const applied = train.gears.find((x) => x.name === g.name)?.applied ?? [];
                                return (
                                    <tr key={g.name}>
                                        <th scope="row" className="td text-left">
                                            {g.name}
                                        </th>
                                        <td className="td font-head text-xl num text-right">
                                            {g.ratio?.toFixed(3) ?? g.state}
                                        </td>
                                        {train.elements.map((e) => (
                                            <td key={e.id} className="td num text-center">
                                                {applied.includes(e.id) ? (
                                                    <strong>● {Math.abs(g.elementTorque[e.id] ?? 0).toFixed(2)}</strong>
                                                ) : (
                                                    <span aria-label="released">·</span>
                                                )}
                                            </td>
                                        ))}
                                    </tr>
                                );
                            })}
                        </tbody>
                    </table>
                    <p className="mt-1 text-sm text-faint">
                        ● applied, with the torque it carries for an input torque of 1. Steps{' '}
                        {solved.step.map((s) => s.toFixed(2)).join(', ')}; spread {solved.spread?.toFixed(2)}.
                    </p>
                    <ul className="mt-1 text-sm">
                        {train.elements.map((e) => (
                            <li key={e.id}>
                                <strong>{e.id}</strong> {e.name} ({e.kind}, {e.a} to {e.b})
                            </li>
                        ))}
                    </ul>
                    <p className="mt-1 text-sm">
                        {train.sets
                            .map(
                                (s) =>
                                    `${s.id}: ${s.kind === 'double' ? 'meshed planet pair' : 'simple set'}, sun ${s.sunTeeth}, ring ${s.ringTeeth}`,
                            )
                            .join('; ')}
                        .
                    </p>
                </Panel>
                <Panel title="Variants and vehicles">
                    <ul>
                        {f.variants.map((v) => (
                            <li key={v.code} className="border-b border-rule py-1">
                                <strong>{v.code}</strong> {v.name}, {v.years}
                                <span className="block text-sm">
                                    {f.applications
                                        .filter((a) => a.variant === v.code)
                                        .map((a) => `${a.vehicle} (${a.years})`)
                                        .join(' · ')}
                                </span>
                            </li>
                        ))}
                    </ul>
                </Panel>
                <div className="lg:col-span-2">
                    <Panel title="Windows and torques" aside="each with its source and how sure it is">
                        <table className="w-full">
                            <HeadRow of={['Kind', 'What', 'Window', 'Target', 'Source']} />
                            <tbody>
                                {f.specs.map((s) => (
                                    <tr key={s.kind + s.code}>
                                        <td className="td">{s.kind}</td>
                                        <td className="td font-semibold">{s.name}</td>
                                        <td className="td num">
                                            {s.window
                                                ? `${formatValue((s.window as { min: number }).min, s.unit ?? '')} to ${formatValue((s.window as { max: number }).max, s.unit ?? '')} ${s.unit}`
                                                : s.torque}
                                        </td>
                                        <td className="td num">{s.target}</td>
                                        <td className="td">
                                            <Source
                                                source={`${s.source}${s.edition ? `, ${s.edition}` : ''}`}
                                                confidence={s.confidence}
                                            />
                                        </td>
                                    </tr>
                                ))}
                            </tbody>
                        </table>
                    </Panel>
                </div>
            </div>
        </>
    );
}
