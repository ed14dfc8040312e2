import type { ProofProps } from '../types';
import { GradeFields, saidOf, useGrade } from './Grade';
import { ProofForm } from './ProofForm';

/** A part is looked at. */
export function ConditionProof({ proof, material, send, problem }: ProofProps) {
    const item = material.teardown?.inspection.find((i) => i.part === proof.of);
    const [grade, setGrade] = useGrade(item);
    if (!item) return <p>This part is not on the inspection list of the family.</p>;
    const { note, ...rest } = saidOf(grade, item);
    return (
        <ProofForm
            onSend={() => send({ ...rest, version: item.finding?.version ?? 0 }, note)}
            problem={problem}
            except={['/answer/reading', '/answer/gauge', '/answer/pieces', '/answer/route', '/note']}
        >
            <GradeFields
                gauges={material.teardown?.gauges ?? []}
                routes={material.teardown?.routes ?? []}
                references={material.teardown?.references ?? []}
                {...{ item, grade, problem }}
                onGrade={setGrade}
                at="/answer"
            />
        </ProofForm>
    );
}
