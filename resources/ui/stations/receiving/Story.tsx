import { CUSTOMERS } from '../../work/customers';
import { Panel } from '../../kit/basics';
import { Area, Buttons, Find, Pick, Text, useIntake, type Form } from './draft';

const SENDERS: Record<string, string> = { own: 'Our customer', shop: 'Another shop' };
const OWNERS: Record<string, string> = { exchange: 'Exchange', customer: "Customer's own" };

/** Whose it is and what they say of it, written down as told. */
export function Story({ form: f }: { form: Form }) {
    const { d } = useIntake();
    return (
        <Panel title="Whose it is, and the story" aside="the owner's story is hearsay: write it down as told">
            <div className="grid gap-3 sm:grid-cols-3">
                <div className="sm:col-span-2">
                    <Area name="complaint" label="Complaint, in the owner's words" />
                </div>
                <Text name="codes" label="Stored codes" />
                <Buttons name="sender" label="Sent by" values={Object.keys(SENDERS)} text={(v) => SENDERS[v] ?? v} />
                {d.sender === 'shop' && (
                    <div className="sm:col-span-2">
                        <Area name="senderDiagnosis" label="Their diagnosis" />
                    </div>
                )}
                <Buttons
                    name="ownership"
                    label="Whose is it"
                    values={Object.keys(OWNERS)}
                    text={(v) => OWNERS[v] ?? v}
                />
                <Find name="customer" label="Customer" empty="none" {...CUSTOMERS} />
                <Pick name="jobType" label="Job" options={f.jobTypes.map((j) => ({ value: j.code, text: j.name }))} />
                <Text name="vehicle" label="Vehicle" />
                <Text name="odometer" label="Odometer" hint="a bare number is km; 61000 mi works too" />
                <Text name="rack" label="Rack" />
                <Text name="weight" label="Weight" hint="kg, or type lb" />
                <div className="sm:col-span-2">
                    <Area name="note" label="Note" />
                </div>
            </div>
        </Panel>
    );
}
