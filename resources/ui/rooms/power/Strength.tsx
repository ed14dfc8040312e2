import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, isProblem, type Schemas } from '../../api/client';
import { Field, HeadRow, Mark, Panel, ProblemNote, Source } from '../../kit/basics';

type Part = Schemas['Strength']['parts'][number];
type Asked = { engine: string; stall: string; shock: string };

function useStrength(code: string, asked: Asked) {
    const { engine, stall, shock } = asked;
    const query = { engine, stall, ...(shock === '' ? {} : { shock }) };
    const known = useQuery({
        queryKey: ['strength', code, asked],
        queryFn: () => answer(api.GET('/catalog/families/{code}/strength', { params: { path: { code }, query } })),
        placeholderData: (before) => before,
        retry: false,
    });
    return { register: known.data ?? null, problem: isProblem(known.error) ? known.error : null };
}

/** What shafts, hubs and drums would take, the weakest first; what vendors claim stands beside. */
export function Strength({ code }: { code: string }) {
    const [asked, setAsked] = useState<Asked>({ engine: '300', stall: '2', shock: '' });
    const { register, problem } = useStrength(code, asked);
    const set = (field: keyof Asked) => (v: string) => setAsked({ ...asked, [field]: v.trim() });
    return (
        <Panel title="Strength" aside="twisted at the weakest place, in the gear that asks most">
            <div className="flex flex-wrap items-end gap-3">
                <Field label="Engine (N·m)" value={asked.engine} onChange={set('engine')} className="w-48" />
                <Field label="Converter at stall, times" value={asked.stall} onChange={set('stall')} className="w-48" />
                <Field
                    label={`Shock, times (house: ${register?.shock ?? '–'})`}
                    value={asked.shock}
                    onChange={set('shock')}
                    className="w-48"
                />
            </div>
            <ProblemNote problem={problem} />
            {register && !problem && <Register parts={register.parts} />}
        </Panel>
    );
}

function Register({ parts }: { parts: Part[] }) {
    if (parts.length === 0) return <p>The catalog holds no shaft or drum of this family with its size.</p>;
    return (
        <table className="mt-2 w-full" aria-live="polite">
            <HeadRow of={['Part', 'Most asked in', 'Carries', 'Stress', 'Would take', 'Margin']} />
            <tbody>
                {parts.map((p) => (
                    <tr key={p.name} className="border-b border-rule align-top">
                        <th scope="row" className="td text-left">
                            {p.name}
                            <span className="block text-sm font-normal text-faint">{p.material}</span>
                        </th>
                        <td className="td">{p.gear ?? 'no gear'}</td>
                        <td className="td num">{Math.round(p.torqueNm)} N·m</td>
                        <td className="td num">{Math.round(p.stressMpa)} MPa</td>
                        <td className="td num">
                            {Math.round(p.holdsNm)} N·m
                            <span className="block">
                                <Source source={p.source} confidence={p.confidence} />
                            </span>
                            {p.claims.map((c) => (
                                <span key={c.says} className="block text-sm">
                                    {c.by} claims: {c.says}
                                </span>
                            ))}
                        </td>
                        <td className="td">
                            <Margin of={p.margin} />
                        </td>
                    </tr>
                ))}
            </tbody>
        </table>
    );
}

function Margin({ of: margin }: { of: number | null }) {
    if (margin === null) return <span className="text-faint">not loaded</span>;
    return <Mark kind={margin < 1 ? 'bad' : 'good'}>{`${margin.toFixed(2)}${margin < 1 ? ', it yields' : ''}`}</Mark>;
}
