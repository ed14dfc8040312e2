import { z } from 'zod';
import { api, fetchCard } from '../../api/client';
import type { SectionProps } from '../../card/section';
import { Panel } from '../../kit/basics';
import { fieldsOf, FormFields, FormProblem, useForm } from '../../kit/form';
import { intake } from './draft';

const correction = intake
    .pick({
        complaint: true,
        vehicle: true,
        vin: true,
        odometer: true,
        codes: true,
        senderDiagnosis: true,
        repairHours: true,
        gradeReason: true,
        note: true,
        rack: true,
    })
    .extend({ grade: z.enum(['A', 'B', 'C', 'D', 'X']) });
type Correction = z.input<typeof correction>;
const { Text, Area, Buttons } = fieldsOf<Correction>();
type Props = SectionProps<'receiving'>;

const startOf = ({ card, section: i }: Props): Correction => ({
    complaint: i.complaint,
    vehicle: card.vehicle,
    vin: i.vin ?? '',
    odometer: i.odometer,
    codes: i.codes.join(' '),
    senderDiagnosis: i.senderDiagnosis ?? '',
    repairHours: String(i.repairHours),
    grade: card.grade as Correction['grade'],
    gradeReason: i.gradeReason,
    note: i.note,
    rack: card.rack,
});

/** What the correction leaves as it was. */
const unchanged = ({ card, section: i }: Props) => ({
    version: card.version,
    jobType: card.jobType.code,
    ownership: card.ownership as 'exchange',
    customer: card.customer?.code ?? null,
    family: i.familyCode ?? null,
    sender: i.sender as 'own',
    clues: Object.fromEntries(i.clues.map((c) => [c.id, c.value])),
    missing: i.missing as { part: string; count?: number }[],
    failedHard: i.failedHard as { part: string }[],
    flags: i.flags,
    damage: i.damage,
    tagCode: i.tagCode,
    pallet: i.pallet,
    weight: i.weightKg ? `${i.weightKg} kg` : '',
    promisedOn: card.promisedOn,
});

export function EditIntake({ onDone, ...props }: Props & { onDone: () => void }) {
    const { section: i, card, onCard } = props;
    const form = useForm({ schema: correction, start: startOf(props) });
    const save = form.submit(
        (typed) =>
            api.PUT('/units/{number}/receiving', {
                params: { path: { number: card.coreTag } },
                body: { ...unchanged(props), ...typed },
            }),
        (next) => {
            onCard(next);
            onDone();
        },
    );
    return (
        <Panel title="Correct the intake">
            <FormFields of={form}>
                <CorrectionFields i={i} />
                <FormProblem of={form} />
                <div className="mt-2 flex gap-2">
                    <button type="button" className="btn btn-main" disabled={form.busy} onClick={save}>
                        Save the correction
                    </button>
                    <button type="button" className="btn" onClick={onDone}>
                        Leave as it was
                    </button>
                    {form.problem?.status === 409 && (
                        <button
                            type="button"
                            className="btn"
                            onClick={() => void fetchCard(card.coreTag, ['receiving']).then(onCard)}
                        >
                            Take the newer version
                        </button>
                    )}
                </div>
            </FormFields>
        </Panel>
    );
}

function CorrectionFields({ i }: { i: Props['section'] }) {
    return (
        <div className="grid gap-3 sm:grid-cols-2">
            <Area name="complaint" label="Complaint, in the owner's words" />
            <Text name="vehicle" label="Vehicle" />
            <Text name="vin" label="VIN" upper />
            <Text name="odometer" label="Odometer" />
            <Text name="codes" label="Stored codes" />
            {i.sender === 'shop' && <Text name="senderDiagnosis" label="Their diagnosis" />}
            <Text name="repairHours" label="Repair hours" />
            <Buttons name="grade" label="Grade" values={['A', 'B', 'C', 'D', 'X']} />
            <Text name="gradeReason" label="Why this grade" />
            <Text name="rack" label="Rack" />
            <Area name="note" label="Note" />
        </div>
    );
}
