import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { answer, api, asProblem, type Problem } from '../../api/client';
import { Loading, Panel, ProblemNote } from '../../kit/basics';

type SchemaDoc = {
    title: string;
    input: { properties: Record<string, { description?: string; type?: string }>; required: string[] };
    example: { input: unknown };
};

/** The computation core by hand: the same input and output as on the command line. */
export function Calculators() {
    const list = useQuery({ queryKey: ['calc'], queryFn: () => answer(api.GET('/calc')) });
    const [params, setParams] = useSearchParams();
    const name = params.get('name') ?? 'fit.stack';
    const shelf = useRef<HTMLElement>(null);
    const loaded = list.isSuccess;
    // Whoever comes by an address finds the calculator marked in the list beside it.
    useEffect(() => {
        const chosen = shelf.current?.querySelector<HTMLElement>('[aria-pressed="true"]');
        if (shelf.current && chosen)
            shelf.current.scrollTop = chosen.offsetTop - shelf.current.offsetTop - shelf.current.clientHeight / 2;
    }, [loaded]);
    if (!list.data) return <Loading what="the calculators" />;
    return (
        <>
            <h1 className="mb-2 text-3xl">Calculators</h1>
            <div className="grid items-start gap-3 lg:grid-cols-[16rem_1fr]">
                <nav
                    ref={shelf}
                    aria-label="Calculators"
                    className="sheet flex flex-col lg:sticky lg:top-28 lg:max-h-[calc(100vh-8rem)] lg:overflow-y-auto"
                >
                    {list.data.calculators.map((c) => (
                        <button
                            key={c.name}
                            type="button"
                            aria-pressed={c.name === name}
                            className={`min-h-11 shrink-0 border-b border-rule px-3 py-1 text-left ${c.name === name ? 'bg-enamel text-enamel-ink' : ''}`}
                            onClick={() => setParams({ name: c.name })}
                        >
                            <strong>{c.name}</strong>
                            <span className="block text-sm opacity-85">{c.title}</span>
                        </button>
                    ))}
                </nav>
                <One key={name} name={name} />
            </div>
        </>
    );
}

function One({ name }: { name: string }) {
    const schema = useQuery({
        queryKey: ['calc', name],
        queryFn: () => answer(api.GET('/calc/{name}', { params: { path: { name } } })),
        staleTime: Infinity,
    });
    const doc = schema.data as unknown as SchemaDoc | undefined;
    const [text, setText] = useState<string | null>(null);
    const [out, setOut] = useState<unknown>(null);
    const [problem, setProblem] = useState<Problem | null>(null);
    if (!doc) return <Loading what={name} />;
    const input = text ?? JSON.stringify(doc.example.input, null, 2);
    const run = async () => {
        setOut(null);
        try {
            const { data, error, response } = await api.POST('/calc/{name}', {
                params: { path: { name } },
                body: {},
                bodySerializer: () => input,
            });
            setProblem(response.ok ? null : asProblem(error, response.status));
            if (response.ok) setOut(data);
        } catch {
            setProblem(asProblem(null, 0));
        }
    };
    const at = problem?.errors?.[0]?.pointer;
    return (
        <div className="flex flex-col gap-3">
            <Panel title={doc.title} aside={<code>core/bin/calc {name}</code>}>
                <p className="mb-2 text-sm">
                    Fields:{' '}
                    {Object.entries(doc.input.properties)
                        .map(
                            ([k, v]) =>
                                `${k}${doc.input.required.includes(k) ? '' : ' (optional)'}${v.description ? ` – ${v.description}` : ''}`,
                        )
                        .join('; ')}
                    .
                </p>
                <label className="block text-sm font-semibold text-faint" htmlFor="calc-in">
                    Input, JSON
                </label>
                <textarea
                    id="calc-in"
                    className="input font-mono text-sm"
                    rows={Math.min(24, input.split('\n').length + 1)}
                    value={input}
                    onChange={(e) => setText(e.target.value)}
                    spellCheck={false}
                    aria-invalid={problem ? true : undefined}
                />
                <ProblemNote problem={problem} />
                {at && <p className="text-bad">At {at}</p>}
                <button type="button" className="btn btn-main mt-2" onClick={() => void run()}>
                    Compute
                </button>
            </Panel>
            {out !== null && (
                <Panel title="Result">
                    <pre className="num max-h-[32rem] overflow-auto text-sm" tabIndex={0}>
                        {JSON.stringify(out, null, 2)}
                    </pre>
                </Panel>
            )}
        </div>
    );
}
