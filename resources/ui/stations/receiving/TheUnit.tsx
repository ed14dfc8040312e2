import { Radio, RadioGroup } from '@headlessui/react';
import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { answer, api } from '../../api/client';
import { FieldProblem, Mark, Panel } from '../../kit/basics';
import { OutlinePicture } from '../../kit/Outline';
import { Text, useIntake, type Family, type Form } from './draft';
import { TagReading } from './TagReading';

/** It stands on the dock: scan its tag, its VIN, its stamped code, and point at what it looks like. */
export function TheUnit({ form }: { form: Form }) {
    const { d, set, errors } = useIntake();
    const chooseFamily = (family: string) => set({ family, missing: [], failedHard: [], observed: {} });
    return (
        <Panel title="The unit" aside={d.family ? undefined : 'scan what it carries, then point at what it looks like'}>
            <div className="grid gap-3 sm:grid-cols-3">
                <Text
                    name="coreTag"
                    label="Core tag"
                    hint={`Scan a tag, or leave empty for ${form.nextTag}`}
                    autoFocus
                />
                <div>
                    <Text name="vin" label="VIN" upper />
                    <FromVin />
                </div>
                <div>
                    <Text
                        name="tagCode"
                        label="Stamped tag code"
                        upper
                        hint="as it stands there; tags are swapped and lost"
                    />
                    <TagReading text={d.tagCode} family={d.family} onFamily={chooseFamily} />
                </div>
            </div>
            <Pictures
                families={form.families}
                chosen={d.family}
                onChoose={chooseFamily}
                problem={errors.family?.message}
            />
        </Panel>
    );
}

/** What the catalog knows of a whole VIN is filled in, not asked. */
function FromVin() {
    const { d, set } = useIntake();
    const vin = d.vin.trim();
    const found = useQuery({
        queryKey: ['interchange', 'vehicles', vin],
        queryFn: () => answer(api.GET('/interchange/vehicles', { params: { query: { q: vin } } })),
        enabled: vin.length === 17,
        staleTime: Infinity,
        retry: false,
    });
    const vehicles = found.data?.vehicles ?? [];
    const only = vehicles.length === 1 ? vehicles[0] : undefined;
    const name = only ? `${only.name}, ${only.engine}` : '';
    useEffect(() => {
        if (name && d.vehicle === '') set({ vehicle: name });
        // eslint-disable-next-line react-hooks/exhaustive-deps -- set is made anew at each key; the name decides
    }, [name, d.vehicle]);
    if (vin.length !== 17 || !found.data) return null;
    if (only) return <Mark kind="good">{name}, from the VIN</Mark>;
    return (
        <div className="flex flex-wrap gap-1">
            {vehicles.slice(0, 4).map((v) => (
                <button
                    key={v.code}
                    type="button"
                    className="btn min-h-9 px-2 py-0.5 text-sm"
                    onClick={() => set({ vehicle: `${v.name}, ${v.engine}` })}
                >
                    {v.name}, {v.engine}
                </button>
            ))}
            {vehicles.length === 0 && <span className="text-sm text-faint">The catalog knows no such vehicle.</span>}
        </div>
    );
}

function Pictures({
    families,
    chosen,
    onChoose,
    problem,
}: {
    families: Family[];
    chosen: string;
    onChoose: (code: string) => void;
    problem: string | undefined;
}) {
    return (
        <>
            <RadioGroup
                value={chosen}
                onChange={onChoose}
                aria-label="Family"
                className="mt-2 grid grid-cols-2 gap-2 sm:grid-cols-[repeat(auto-fit,minmax(9rem,1fr))]"
            >
                {families.map((f) => (
                    <Radio
                        key={f.code}
                        value={f.code}
                        aria-label={f.name}
                        className="group cursor-pointer border-2 border-frame bg-sheet p-1 text-center leading-tight data-checked:border-4 data-checked:border-hand"
                    >
                        {f.outline && <OutlinePicture drawing={f.outline} />}
                        <strong className="block">
                            {f.code === chosen && <span aria-hidden="true">✓ </span>}
                            {f.code}
                        </strong>
                        <span className="block text-sm">{f.name.replace(`${f.code}, `, '')}</span>
                    </Radio>
                ))}
            </RadioGroup>
            <FieldProblem>{problem}</FieldProblem>
        </>
    );
}
