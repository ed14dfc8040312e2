import { useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { z } from 'zod';
import { answer, api, type Schemas } from '../../api/client';
import { Trays } from '../../work/Trays';
import type { SectionProps } from '../../card/section';
import { Mark, Panel } from '../../kit/basics';
import { fieldsOf, FormFields, FormProblem, useForm } from '../../kit/form';
import { said } from '../../kit/form/values';
import { formatMoney, moment } from '../../kit/format';
import { More } from '../../kit/More';
import { CreditLines } from './CreditLines';
import { EditIntake } from './EditIntake';
import { Photos, Places } from './IntakePhotos';

type Props = SectionProps<'receiving'>;
type Receiving = Props['section'];

/** What was written down at receiving, with photos, trays and corrections. */
export function Intake(props: Props) {
    const { section: i } = props;
    const [editing, setEditing] = useState(false);
    return (
        <div className="grid items-start gap-3 lg:grid-cols-[2fr_1fr]">
            <div className="flex flex-col gap-3">
                {editing ? (
                    <EditIntake {...props} onDone={() => setEditing(false)} />
                ) : (
                    <Received {...props} onEdit={() => setEditing(true)} />
                )}
                {i.outline && <Places {...props} outline={i.outline} />}
                <Panel title="Clues">
                    <ul>
                        {i.clues.map((c) => (
                            <li key={c.id} className="border-b border-rule py-1">
                                <span className="text-faint">{c.name}:</span> <strong>{c.value}</strong>
                                {c.means && <> – {c.means}</>}
                            </li>
                        ))}
                    </ul>
                    {i.clues.length === 0 && <p className="text-faint">None noted.</p>}
                </Panel>
                <Photos {...props} />
            </div>
            <div className="flex flex-col gap-3">
                <Credit {...props} />
                <Trays number={props.card.coreTag} can={props.can('receiving.trays')} />
                {props.can('yard.hold') && <PlaceHold {...props} />}
            </div>
        </div>
    );
}

const converterText = (c: Receiving['converters'][number]) =>
    [
        c.serial,
        c.state,
        c.hub && `hub ${c.hub}`,
        c.stallClass && `${c.stallClass} stall`,
        c.lockup,
        c.coreValue > 0 && `core value ${formatMoney(c.coreValue)}`,
    ]
        .filter(Boolean)
        .join(', ');

function odometerText({ odometer, odometerKm }: Receiving) {
    if (!odometer) return '–';
    return odometer.includes('km') ? odometer : `${odometer} (${odometerKm} km)`;
}

const senderText = (i: Receiving) =>
    i.sender === 'shop' ? `another shop: ${i.senderDiagnosis || 'no diagnosis'}` : 'our customer';

function rowsOf({ section: i, card }: Props): [string, ReactNode][] {
    return [
        ['Complaint (hearsay)', i.complaint || '–'],
        ['Vehicle', card.vehicle],
        ['VIN', i.vin ?? '–'],
        ['Odometer', odometerText(i)],
        ['Stored codes', i.codes.join(', ') || '–'],
        ['Sent by', senderText(i)],
        ['Weight', i.weightKg ? `${i.weightKg} kg` : '–'],
        ['Stamped code', i.tagCode || '–'],
        ['Converter', i.converters.map(converterText).join('; ') || 'did not come along'],
        ...(i.pallet ? ([['Pallet', i.pallet]] as [string, ReactNode][]) : []),
        ['Note', i.note || '–'],
    ];
}

function Received({ onEdit, ...props }: Props & { onEdit: () => void }) {
    const { card, section: i, can } = props;
    return (
        <Panel title="Received" aside={`${i.receivedBy}, ${moment(i.receivedAt)}`}>
            <dl className="grid grid-cols-[10rem_1fr] gap-y-1">
                {rowsOf(props).map(([k, v]) => (
                    <div key={k} className="contents">
                        <dt className="text-faint">{k}</dt>
                        <dd className="num">{v}</dd>
                    </div>
                ))}
            </dl>
            {can('receiving.receive') && !['field', 'closed'].includes(card.station) && (
                <button type="button" className="btn mt-2" onClick={onEdit}>
                    Correct this
                </button>
            )}
        </Panel>
    );
}

function Credit(props: Props) {
    const { card, section: i } = props;
    const lookedAt = !['identification', 'ordering', 'teardown'].includes(card.station);
    return (
        <Panel title={`Grade ${card.grade}`} aside={i.gradeReason}>
            <p className="font-head text-5xl num">{formatMoney(card.credit)}</p>
            <CreditLines lines={i.creditLines} />
            {i.proposedGrade && i.proposedGrade !== card.grade && (
                <p className="text-sm text-faint">The house rules gave {i.proposedGrade} at receipt.</p>
            )}
            {i.creditRevision ? (
                <p className="mt-1 text-sm">
                    <Mark kind="idle">Revised once</Mark> from {formatMoney(i.creditRevision.before)}, grade{' '}
                    {i.creditRevision.gradeBefore}: {i.creditRevision.reason} {i.creditRevision.by},{' '}
                    {moment(i.creditRevision.at)}
                </p>
            ) : (
                props.can('receiving.receive') &&
                lookedAt &&
                card.grade !== 'X' && (
                    <More title="Revise after teardown" className="mt-2">
                        <ReviseCredit {...props} />
                    </More>
                )
            )}
        </Panel>
    );
}

const revision = z.object({ reason: z.string() });
const revising = fieldsOf<z.input<typeof revision>>();

/** What the credit becomes by what the teardown found. */
function Revised({ grade, credit, gradeReason, lines }: Schemas['CreditRevision']) {
    return (
        <>
            <p>
                Grade {grade}, <strong className="num text-xl">{formatMoney(credit)}</strong>. {gradeReason}
            </p>
            <CreditLines lines={lines} />
        </>
    );
}

function ReviseCredit({ card, onCard }: Props) {
    const form = useForm({ schema: revision, start: { reason: '' } });
    const preview = useQuery({
        queryKey: ['credit-revision', card.coreTag],
        queryFn: () =>
            answer(api.GET('/units/{number}/money/credit-revision', { params: { path: { number: card.coreTag } } })),
    });
    const revise = form.submit(
        ({ reason }) =>
            api.POST('/units/{number}/money/credit-revision', {
                params: { path: { number: card.coreTag } },
                body: { reason, version: card.version },
            }),
        onCard,
    );
    return (
        <div className="border-l-4 border-hand pl-3">
            {preview.data && <Revised {...preview.data} />}
            <FormFields of={form}>
                <revising.Text name="reason" label="Why it changes" hint="one revision, seen by the customer" />
                <FormProblem of={form} />
                <button
                    type="button"
                    className="btn btn-main mt-2"
                    disabled={form.busy || !preview.data}
                    onClick={revise}
                >
                    Revise the credit
                </button>
            </FormFields>
        </div>
    );
}

const hold = z.object({ reason: said('Say why it is held.') });
const holding = fieldsOf<z.input<typeof hold>>();

function PlaceHold({ card, onCard }: Props) {
    const form = useForm({ schema: hold, start: { reason: '' } });
    const place = form.submit(
        (body) => api.POST('/units/{number}/holds', { params: { path: { number: card.coreTag } }, body }),
        (next) => {
            onCard(next);
            form.clear();
        },
    );
    return (
        <Panel title="Put on hold">
            <FormFields of={form}>
                <holding.Text name="reason" label="Reason" />
                <FormProblem of={form} />
                <button type="button" className="btn mt-2" disabled={form.busy} onClick={place}>
                    Hold this unit
                </button>
            </FormFields>
        </Panel>
    );
}
