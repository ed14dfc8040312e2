import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { answer, api, type Schemas } from '../../api/client';
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

type Family = Schemas['Family'];

/** The catalog as it stands: trains, apply charts, windows and applications, each with its source. */
export function Families() {
    const list = useQuery({ queryKey: ['families'], queryFn: () => answer(api.GET('/catalog/families')) });
    const [chosen, setChosen] = useState<string | null>(null);
    const codes = list.data?.families.map((f) => f.code) ?? [];
    const code = chosen ?? codes[0];
    if (!code) return <Pending of={[list]} what="the catalog" />;
    return (
        <>
            <div className="mb-2 flex items-baseline justify-between">
                <h1 className="text-3xl">Catalog</h1>
                <Link to="/catalog/entries" className="btn">
                    Open the catalog desk
                </Link>
            </div>
            {codes.length > 1 && <Choice label="Family" value={code} values={codes} onChange={setChosen} />}
            <FamilyView code={code} />
        </>
    );
}

function FamilyView({ code }: { code: string }) {
    const family = useQuery({
        queryKey: ['family', code],
        queryFn: () => answer(api.GET('/catalog/families/{code}', { params: { path: { code } } })),
    });
    if (!family.data) return <Pending of={[family]} what="the family" />;
    const f = family.data;
    const train = f.train as Train;
    return (
        <>
            <FamilyPicture family={f.code} gears={train.gears} />
            <div className="grid items-start gap-3 lg:grid-cols-2">
                <Panel title={f.name} aside={f.topology}>
                    <TrainAtAGlance train={train} solved={f.solved as Solved} />
                </Panel>
                <Variants family={f} />
                <div className="lg:col-span-2">
                    <Windows specs={f.specs} />
                </div>
            </div>
        </>
    );
}

function TrainAtAGlance({ train, solved }: { train: Train; solved: Solved }) {
    const sets = train.sets.map((s) => {
        const kind = s.kind === 'double' ? 'meshed planet pair' : 'simple set';
        return `${s.id}: ${kind}, sun ${s.sunTeeth}, ring ${s.ringTeeth}`;
    });
    return (
        <>
            <ApplyChart train={train} solved={solved} />
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
            <p className="mt-1 text-sm">{sets.join('; ')}.</p>
        </>
    );
}

function ApplyChart({ train, solved }: { train: Train; solved: Solved }) {
    return (
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
                {solved.gears.map((g) => (
                    <ApplyRow
                        key={g.name}
                        gear={g}
                        train={train}
                        applied={train.gears.find((x) => x.name === g.name)?.applied ?? []}
                    />
                ))}
            </tbody>
        </table>
    );
}

type ApplyRowProps = { gear: Solved['gears'][number]; train: Train; applied: string[] };

function ApplyRow({ gear, train, applied }: ApplyRowProps) {
    return (
        <tr>
            <th scope="row" className="td text-left">
                {gear.name}
            </th>
            <td className="td font-head text-xl num text-right">{gear.ratio?.toFixed(3) ?? gear.state}</td>
            {train.elements.map((e) => (
                <td key={e.id} className="td num text-center">
                    {applied.includes(e.id) ? (
                        <strong>● {Math.abs(gear.elementTorque[e.id] ?? 0).toFixed(2)}</strong>
                    ) : (
                        <span aria-label="released">·</span>
                    )}
                </td>
            ))}
        </tr>
    );
}

function Variants({ family: f }: { family: Family }) {
    return (
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
    );
}

type Spec = Family['specs'][number];

const windowOf = ({ window, unit, torque }: Spec) => {
    if (!window) return torque;
    const { min, max } = window as { min: number; max: number };
    return `${formatValue(min, unit ?? '')} to ${formatValue(max, unit ?? '')} ${unit}`;
};

function Windows({ specs }: { specs: Spec[] }) {
    return (
        <Panel title="Windows and torques" aside="each with its source and how sure it is">
            <table className="w-full">
                <HeadRow of={['Kind', 'What', 'Window', 'Target', 'Source']} />
                <tbody>
                    {specs.map((s) => (
                        <tr key={s.kind + s.code}>
                            <td className="td">{s.kind}</td>
                            <td className="td font-semibold">{s.name}</td>
                            <td className="td num">{windowOf(s)}</td>
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
    );
}
