import { Tab, TabGroup, TabList, TabPanel, TabPanels } from '@headlessui/react';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { answer, api, asProblem, isProblem, type Problem } from '../../api/client';
import { Panel, ProblemNote } from '../../kit/basics';
import { Fetched } from '../../kit/Fetched';
import { QuantityReader, type ReadQuantity } from '../../kit/quantity';
import { SchemaForm, type Schema } from '../../kit/SchemaForm';
import { Answer, Beside, type Kept } from './CalculatorAnswer';

type SchemaDoc = {
    title: string;
    decides: { path: string; words: string };
    input: Schema;
    example: { input: unknown };
};

/** A schema document of the core, as /calc/{name} serves it: an open object in the contract, a known shape here. */
const isSchemaDoc = (v: unknown): v is SchemaDoc =>
    typeof v === 'object' && v !== null && 'input' in v && 'example' in v && 'decides' in v;

/** The computation core by hand: a form made from each schema, the number that decides, and several side by side. */
export function Calculators() {
    const list = useQuery({ queryKey: ['calc'], queryFn: () => answer(api.GET('/calc')) });
    const [params, setParams] = useSearchParams();
    const name = params.get('name') ?? 'fit.stack';
    return (
        <Fetched query={list} what="the calculators">
            {({ calculators }) => (
                <div className="grid items-start gap-3 lg:grid-cols-[16rem_1fr]">
                    <Shelf calculators={calculators} name={name} onChoose={(chosen) => setParams({ name: chosen })} />
                    <One key={name} name={name} />
                </div>
            )}
        </Fetched>
    );
}

type Entry = { name: string; title: string };

function Shelf({ calculators, name, onChoose }: { calculators: Entry[]; name: string; onChoose: (n: string) => void }) {
    const shelf = useRef<HTMLElement>(null);
    // Whoever comes by an address finds the calculator marked in the list beside it.
    useEffect(() => {
        const chosen = shelf.current?.querySelector<HTMLElement>('[aria-pressed="true"]');
        if (shelf.current && chosen)
            shelf.current.scrollTop = chosen.offsetTop - shelf.current.offsetTop - shelf.current.clientHeight / 2;
    }, []);
    return (
        <nav
            ref={shelf}
            aria-label="Calculators"
            className="sheet flex flex-col lg:sticky lg:top-14 lg:max-h-[calc(100vh-5rem)] lg:overflow-y-auto"
        >
            {calculators.map((c) => (
                <button
                    key={c.name}
                    type="button"
                    aria-pressed={c.name === name}
                    className={`min-h-11 shrink-0 border-b border-rule px-3 py-1 text-left ${
                        c.name === name ? 'bg-enamel text-enamel-ink' : ''
                    }`}
                    onClick={() => onChoose(c.name)}
                >
                    <strong>{c.title}</strong>
                    <span className="block text-sm opacity-85">{c.name}</span>
                </button>
            ))}
        </nav>
    );
}

function One({ name }: { name: string }) {
    const schema = useQuery({
        queryKey: ['calc', name],
        queryFn: () => answer(api.GET('/calc/{name}', { params: { path: { name } } })),
        staleTime: Infinity,
    });
    return (
        <Fetched query={schema} what={name}>
            {(doc) => (isSchemaDoc(doc) ? <Desk name={name} doc={doc} /> : null)}
        </Fetched>
    );
}

/** Runs a calculator on the JSON text as it stands, so that its own sentence comes back for what is wrong with it. */
async function compute(name: string, input: string): Promise<Record<string, unknown>> {
    const { data, error, response } = await api.POST('/calc/{name}', {
        params: { path: { name } },
        body: {},
        bodySerializer: () => input,
    });
    if (data !== undefined && response.ok) return data;
    throw asProblem(error, response.status);
}

const readQuantity: ReadQuantity = async (typed, { unit, kind }) => {
    try {
        const read = await compute('units.parse', JSON.stringify({ text: typed, kind, default: unit }));
        const value = await compute('units.convert', JSON.stringify({ value: read.value, from: read.unit, to: unit }));
        return typeof value.value === 'number' ? value.value : 'This is no quantity.';
    } catch (error) {
        return isProblem(error) ? error.detail : 'The server does not answer; type the plain number.';
    }
};

/** One input as a form and as text, each kept in step with the other. */
function useInput(example: unknown) {
    const [input, setInput] = useState<unknown>(example);
    const [text, setText] = useState(() => JSON.stringify(example, null, 2));
    const asJson = (json: string) => {
        setText(json);
        try {
            setInput(JSON.parse(json));
        } catch {
            // Kept as it is typed; the calculator says what is wrong with it.
        }
    };
    const asForm = (value: unknown) => {
        setInput(value);
        setText(JSON.stringify(value, null, 2));
    };
    return { input, text, asJson, asForm };
}

const problemOfRun = (error: unknown): Problem | null => {
    if (!error) return null;
    return isProblem(error) ? error : asProblem(null, 0);
};

function Desk({ name, doc }: { name: string; doc: SchemaDoc }) {
    const typed = useInput(doc.example.input);
    const [kept, setKept] = useState<Kept[]>([]);
    const run = useMutation({ mutationFn: (json: string) => compute(name, json) });
    const { data: out } = run;
    return (
        <div className="flex flex-col gap-3">
            {out && (
                <Answer
                    name={name}
                    decides={doc.decides}
                    out={out}
                    onKeep={() => setKept([...kept, { input: typed.input, out }])}
                />
            )}
            <Beside decides={doc.decides} kept={kept} onDrop={(i) => setKept(kept.filter((_, k) => k !== i))} />
            <Panel title={doc.title} aside={<code>core/bin/calc {name}</code>}>
                <InputTabs
                    doc={doc}
                    typed={typed}
                    problem={problemOfRun(run.error)}
                    onCompute={() => run.mutate(typed.text)}
                />
            </Panel>
        </div>
    );
}

type InputTabsProps = {
    doc: SchemaDoc;
    typed: ReturnType<typeof useInput>;
    problem: Problem | null;
    onCompute: () => void;
};

function InputTabs({ doc, typed, problem, onCompute }: InputTabsProps) {
    const problems = problem?.errors ?? [];
    return (
        <TabGroup>
            <div className="mb-2 flex gap-1">
                <TabList className="flex gap-1">
                    {['Fields', 'JSON'].map((t) => (
                        <Tab key={t} className="btn data-selected:bg-enamel data-selected:text-enamel-ink">
                            {t}
                        </Tab>
                    ))}
                </TabList>
                <span className="flex-1" />
                <button type="button" className="btn btn-main" onClick={onCompute}>
                    Compute
                </button>
            </div>
            <ProblemNote problem={problem} />
            {problems[0]?.pointer && <p className="text-bad">At {problems[0].pointer}</p>}
            <TabPanels>
                <TabPanel>
                    <QuantityReader.Provider value={readQuantity}>
                        <SchemaForm
                            schema={doc.input}
                            value={typed.input}
                            onChange={typed.asForm}
                            problems={problems}
                        />
                    </QuantityReader.Provider>
                </TabPanel>
                <TabPanel>
                    <InputText text={typed.text} onType={typed.asJson} wrong={!!problem} />
                </TabPanel>
            </TabPanels>
        </TabGroup>
    );
}

function InputText({ text, onType, wrong }: { text: string; onType: (json: string) => void; wrong: boolean }) {
    return (
        <>
            <label className="block text-sm font-semibold text-faint" htmlFor="calc-in">
                Input, JSON
            </label>
            <textarea
                id="calc-in"
                className="input font-mono text-sm"
                rows={Math.min(24, text.split('\n').length + 1)}
                value={text}
                onChange={(e) => onType(e.target.value)}
                spellCheck={false}
                aria-invalid={wrong ? true : undefined}
            />
        </>
    );
}
