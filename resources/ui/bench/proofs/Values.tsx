import { useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { answer, api, fieldProblem, type Card, type Schemas } from '../../api/client';
import { Field, Mark } from '../../kit/basics';
import { formatValue } from '../../kit/format';
import type { ProofProps } from '../types';
import { WhichGauge } from './GaugeFields';
import { ProofForm } from './ProofForm';

type Place = NonNullable<Card['assembly']>['places'][number];
type Spread = Schemas['GoodBuilds']['good'][number];

function useGood(number: string, group: string): Map<string, Spread> {
    const known = useQuery({
        queryKey: ['tests', number, group],
        queryFn: () =>
            answer(api.GET('/units/{number}/assembly/tests/{group}', { params: { path: { number, group } } })),
        staleTime: 300_000,
    });
    return new Map(known.data?.good.map((g) => [g.code, g]));
}

const rough = (v: number) => String(Number(v.toPrecision(4)));

/** Where it must lie, where good builds lie, and what it showed last. */
function Beside({ test: t, good }: { test: Place; good?: Spread | undefined }) {
    const last = t.readings.at(-1);
    const shown = (v: number) => formatValue(v, t.unit);
    return (
        <p className="text-sm num">
            {shown(t.window.min)} to {shown(t.window.max)} {t.unit}
            {good && (
                <span className="block text-faint">
                    good builds {rough(good.low)} to {rough(good.high)}
                </span>
            )}
            {t.passes !== null && ` · passes ${t.passes.toFixed(2)} of the book’s hole`}
            {last && (
                <span className="block">
                    <Mark kind={last.inside ? 'good' : 'bad'}>
                        {shown(last.value)} {t.unit}, {last.inside ? 'inside' : 'outside'}
                    </Mark>
                </span>
            )}
        </p>
    );
}

/** What is reckoned from two others; an interference says what it does. */
function Reckoned({ test: t }: { test: Place }) {
    const press = t.press;
    return (
        <li className="w-56">
            <p className="text-sm font-medium">{t.name}, reckoned</p>
            <Beside test={t} />
            {press && (
                <p className="text-sm">
                    Goes in with {(press.forceN / 1000).toFixed(1)} kN
                    {press.closesMm !== null && `; its bore closes by ${press.closesMm.toFixed(3)} mm`}.
                </p>
            )}
        </li>
    );
}

type FieldsProps = Pick<ProofProps, 'number' | 'proof' | 'problem'> & {
    tests: Place[];
    typed: Record<string, string>;
    onType: (code: string) => (v: string) => void;
    /** What is asked once for all of them. */
    children: ReactNode;
};

function Fields({ number, proof, problem, tests, typed, onType, children }: FieldsProps) {
    const good = useGood(number, proof.of);
    const read = tests.filter((t) => t.derived === null);
    return (
        <ul className="flex flex-wrap gap-x-4 gap-y-2">
            {read.map((t, n) => (
                <li key={t.code} className="w-56">
                    <Field
                        label={`${t.name} (${t.unit})`}
                        value={typed[t.code] ?? ''}
                        onChange={onType(t.code)}
                        autoFocus={n === 0}
                        problem={fieldProblem(problem, `/answer/${t.code}`)}
                    />
                    <Beside test={t} good={good.get(t.code)} />
                </li>
            ))}
            {tests
                .filter((t) => t.derived !== null)
                .map((t) => (
                    <Reckoned key={t.code} test={t} />
                ))}
            <li className="flex gap-3">{children}</li>
        </ul>
    );
}

const testsOf = ({ material, proof }: ProofProps): Place[] =>
    material.assembly?.places.filter((p) => p.kind === 'bench-test' && p.group === proof.of) ?? [];

/** Several numbers of one kind of test, taken in one go with one gauge. */
export function ValuesProof(props: ProofProps) {
    const { number, proof, material, send, problem, proven } = props;
    const [typed, setTyped] = useState<Record<string, string>>({});
    const [gauge, setGauge] = useState('');
    const tests = testsOf(props);
    const [first] = tests;
    if (!first) return <p>This build has no such tests.</p>;
    const onType = (code: string) => (v: string) => setTyped({ ...typed, [code]: v });
    const gauges = material.assembly?.gauges.filter((g) => g.kind === first.quantity) ?? [];
    return (
        <ProofForm
            onSend={() => send({ ...typed, gauge })}
            problem={problem}
            except={[...tests.map((t) => `/answer/${t.code}`), '/answer/temperature', '/answer/gauge']}
        >
            <p>{first.how}</p>
            <Fields {...{ number, proof, problem, tests, typed, onType }}>
                {tests.some((t) => t.coil) && (
                    <Field
                        className="w-44"
                        label="Coils are that warm (°C)"
                        value={typed['temperature'] ?? ''}
                        onChange={onType('temperature')}
                        problem={fieldProblem(problem, '/answer/temperature')}
                    />
                )}
                <WhichGauge {...{ gauges, gauge, problem }} onGauge={setGauge} at="/answer" />
            </Fields>
            {proven?.open && <p className="text-sm text-faint">{proven.open}</p>}
        </ProofForm>
    );
}
