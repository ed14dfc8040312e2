import { Choice, Field, Panel, Select, TextArea } from '../../kit/basics';
import type { Form, Writing } from './draft';

/** Whose it is and what they say of it, written down as told. */
export function Story({ d, set, at, form: f }: Writing & { form: Form }) {
    return (
        <Panel title="Whose it is, and the story" aside="the owner's story is hearsay: write it down as told">
            <div className="grid gap-3 sm:grid-cols-3">
                <div className="sm:col-span-2">
                    <TextArea
                        label="Complaint, in the owner's words"
                        value={d.complaint}
                        onChange={(v) => set({ complaint: v })}
                    />
                </div>
                <Field label="Stored codes" value={d.codes} onChange={(v) => set({ codes: v })} />
                <Choice
                    label="Sent by"
                    value={d.sender}
                    values={['own', 'shop']}
                    text={(v) => (v === 'own' ? 'Our customer' : 'Another shop')}
                    onChange={(v) => set({ sender: v as 'own' | 'shop' })}
                />
                {d.sender === 'shop' && (
                    <div className="sm:col-span-2">
                        <TextArea
                            label="Their diagnosis"
                            value={d.senderDiagnosis}
                            onChange={(v) => set({ senderDiagnosis: v })}
                        />
                    </div>
                )}
                <Choice
                    label="Whose is it"
                    value={d.ownership}
                    values={['exchange', 'customer']}
                    text={(v) => (v === 'exchange' ? 'Exchange' : "Customer's own")}
                    onChange={(v) => set({ ownership: v === 'customer' ? 'customer' : 'exchange' })}
                />
                <Select
                    label="Customer"
                    value={d.customer}
                    onChange={(v) => set({ customer: v })}
                    empty="none"
                    options={f.customers.map((c) => ({ value: c.code, text: `${c.name}, ${c.city}` }))}
                    problem={at('/customer')}
                />
                <Select
                    label="Job"
                    value={d.jobType}
                    onChange={(v) => set({ jobType: v })}
                    options={f.jobTypes.map((j) => ({ value: j.code, text: j.name }))}
                />
                <Field label="Vehicle" value={d.vehicle} onChange={(v) => set({ vehicle: v })} />
                <Field
                    label="Odometer"
                    value={d.odometer}
                    onChange={(v) => set({ odometer: v })}
                    hint="a bare number is km; 61000 mi works too"
                    problem={at('/odometer')}
                />
                <Field label="Rack" value={d.rack} onChange={(v) => set({ rack: v })} />
                <Field
                    label="Weight"
                    value={d.weight}
                    onChange={(v) => set({ weight: v })}
                    hint="kg, or type lb"
                    problem={at('/weight')}
                />
                <div className="sm:col-span-2">
                    <TextArea label="Note" value={d.note} onChange={(v) => set({ note: v })} />
                </div>
            </div>
        </Panel>
    );
}
