import { useState } from 'react';
import { api, fetchCard } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { Field, Mark, ProblemNote, Select } from '../../kit/basics';
import { More } from '../../kit/More';
import type { SectionProps } from '../../card/section';
import { columnsOf } from './columns';

const UNITS = {
    rotation: ['rpm', 'rad/s'],
    torque: ['N.m', 'lbf.ft', 'lbf.in', 'kgf.m'],
    pressure: ['kPa', 'bar', 'psi', 'MPa'],
    temperature: ['degC', 'degF', 'K'],
    flow: ['L/min', 'US gal/min'],
    time: ['s', 'ms', 'min'],
};
type Kind = keyof typeof UNITS;

const CHANNELS: [string, string, Kind][] = [
    ['input_rpm', 'Speed in', 'rotation'],
    ['output_rpm', 'Speed out', 'rotation'],
    ['turbine_rpm', 'Turbine', 'rotation'],
    ['input_nm', 'Torque in', 'torque'],
    ['output_nm', 'Torque out', 'torque'],
    ['line_kpa', 'Line pressure', 'pressure'],
    ['apply_kpa', 'Pressure of the element let on', 'pressure'],
    ['lockup_kpa', 'Pressure of the lock-up', 'pressure'],
    ['lube_kpa', 'Lube pressure', 'pressure'],
    ['temp_degc', 'Oil', 'temperature'],
    ['cooler_degc', 'Oil from the cooler', 'temperature'],
    ['cooler_lpm', 'Cooler flow', 'flow'],
];

/** How much of a file is looked at to find its columns, bytes. */
const HEAD = 65_536;

type Said = { column: string; unit: string };
type Mapping = Record<string, Said>;
const NOT_SAID: Said = { column: '', unit: '' };

/** The house's own names need no telling; everything else is said by whoever knows the file. */
const known = (columns: string[]): Mapping =>
    Object.fromEntries(
        [['t_s', '', 'time'] as const, ...CHANNELS]
            .filter(([channel]) => columns.includes(channel))
            .map(([channel, , kind]) => [channel, { column: channel, unit: UNITS[kind as Kind][0] ?? '' }]),
    );

type Props = Pick<SectionProps<'dyno'>, 'can' | 'onCard'> & {
    card: Pick<SectionProps<'dyno'>['card'], 'coreTag'>;
    onTaken: (run: number) => void;
};

/** A recording of another rig or of a drive: its columns are told once, then it is looked at like a run. */
export function Elsewhere({ card, can, onCard, onTaken }: Props) {
    const [file, setFile] = useState<File | null>(null);
    const [columns, setColumns] = useState<string[]>([]);
    const [said, setSaid] = useState<Mapping>({});
    if (!can('dyno.run')) return null;
    const choose = async (chosen: File | undefined) => {
        setFile(chosen ?? null);
        const found = chosen ? columnsOf(await chosen.slice(0, HEAD).text()) : [];
        setColumns(found);
        setSaid(known(found));
    };
    const sent = ({ id }: { id: number }) => {
        void choose(undefined);
        onTaken(id);
        void fetchCard(card.coreTag, ['dyno']).then(onCard);
    };
    return (
        <More title="Look at a recording of another rig or of a drive">
            <p>It is measured like a run, and never a verdict: nobody here saw what was commanded.</p>
            <label className="mt-2 block text-sm font-semibold text-faint">
                CSV file, up to 500 MB
                <input
                    type="file"
                    accept=".csv,.txt,text/csv"
                    className="input"
                    onChange={(e) => void choose(e.target.files?.[0])}
                />
            </label>
            {file && columns.length === 0 && (
                <p role="alert">
                    <Mark kind="bad">No line of names stands at the beginning of this file.</Mark>
                </p>
            )}
            {file && columns.length > 0 && (
                <Told {...{ file, columns, said, number: card.coreTag, sent }} onSaid={setSaid} />
            )}
        </More>
    );
}

type ToldProps = {
    file: File;
    columns: string[];
    said: Mapping;
    number: string;
    sent: (run: { id: number }) => void;
    onSaid: (said: Mapping) => void;
};

function formOf(file: File, as: string) {
    const form = new FormData();
    form.set('file', file);
    form.set('as', as);
    return form;
}

function Told({ file, columns, said, number, sent, onSaid }: ToldProps) {
    const { busy, problem, write } = useWrite();
    const [rate, setRate] = useState('');
    const at = (channel: string) => said[channel] ?? NOT_SAID;
    const { t_s: time, ...others } = Object.fromEntries(Object.entries(said).filter(([, s]) => s.column !== ''));
    const as = JSON.stringify({ time: time ?? null, rate_hz: rate === '' ? null : Number(rate), channels: others });
    const send = () =>
        write(
            () =>
                api.POST('/units/{number}/dyno/recordings', {
                    params: { path: { number } },
                    body: { file: '', as },
                    bodySerializer: () => formOf(file, as),
                }),
            sent,
        );
    const row = (channel: string, name: string, kind: Kind) => (
        <Column
            key={channel}
            {...{ name, kind, columns }}
            said={at(channel)}
            onSaid={(s) => onSaid({ ...said, [channel]: s })}
        />
    );
    return (
        <>
            <div className="mt-2 grid gap-2 sm:grid-cols-2">
                {row('t_s', 'Time', 'time')}
                {!time && <Field label="Samples a second, where it has no time" value={rate} onChange={setRate} />}
                {CHANNELS.map(([channel, name, kind]) => row(channel, name, kind))}
            </div>
            <ProblemNote problem={problem} />
            <button type="button" className="btn btn-main mt-2" disabled={busy} onClick={() => void send()}>
                {busy ? 'Sending …' : 'Read it'}
            </button>
        </>
    );
}

type ColumnProps = { name: string; kind: Kind; columns: string[]; said: Said; onSaid: (said: Said) => void };

function Column({ name, kind, columns, said, onSaid }: ColumnProps) {
    return (
        <div className="flex gap-2">
            <Select
                label={name}
                value={said.column}
                empty="not in it"
                options={columns.map((c) => ({ value: c, text: c }))}
                onChange={(column) => onSaid({ ...said, column })}
            />
            {said.column !== '' && (
                <Select
                    label={`${name}, in`}
                    value={said.unit}
                    empty="which unit?"
                    options={UNITS[kind].map((u) => ({ value: u, text: u }))}
                    onChange={(unit) => onSaid({ ...said, unit })}
                />
            )}
        </div>
    );
}
