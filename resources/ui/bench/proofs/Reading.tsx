import { useState } from 'react';
import { fieldProblem, type Card } from '../../api/client';
import { Field, HouseNote, Mark, Source } from '../../kit/basics';
import { formatValue, moment } from '../../kit/format';
import { GaugeBar } from '../../kit/GaugeBar';
import type { Material, ProofAsked, ProofProps } from '../types';
import { Adapter } from './Adapter';
import { GaugeFields } from './GaugeFields';
import { ProofForm } from './ProofForm';

type Place = NonNullable<Card['assembly']>['places'][number];
type Bolts = NonNullable<Card['assembly']>['fasteners'][number];
type Gauge = NonNullable<Card['assembly']>['gauges'][number];

export function placeOf(material: Material, proof: ProofAsked): Place | undefined {
    const wanted = proof.kind === 'air' ? `air-check:${proof.of}` : proof.of;
    return material.assembly?.places.find((p) => `${p.kind}:${p.code}` === wanted);
}

const boltsOf = (material: Material, proof: ProofAsked): Bolts | undefined =>
    proof.kind === 'torque' ? material.assembly?.fasteners.find((f) => f.code === proof.of) : undefined;

/** A number off a gauge: what it must be, what it was, and the field for it. */
export function ReadingProof(props: ProofProps) {
    const { proof, material } = props;
    const [place, bolts] = [placeOf(material, proof), boltsOf(material, proof)];
    if (!place && !bolts) return <p>This build has no such place to measure.</p>;
    return (
        <div className="grid gap-4 sm:grid-cols-[auto_1fr]">
            {place ? <PlaceNow place={place} /> : bolts && <BoltsNow bolts={bolts} />}
            <Take {...props} unit={place?.unit ?? bolts?.torque.split(' ')[1] ?? ''} />
        </div>
    );
}

function PlaceNow({ place: p }: { place: Place }) {
    const last = p.readings.at(-1);
    return (
        <div>
            <p className="font-head text-6xl num">
                {last ? formatValue(last.value, last.unit) : '–'} <span className="text-3xl">{p.unit}</span>
            </p>
            {last && (
                <Mark kind={last.inside ? 'good' : 'bad'}>
                    {last.inside ? 'inside' : 'outside'}, {last.by}, {moment(last.at)}
                </Mark>
            )}
            <GaugeBar
                label={p.name}
                unit={p.unit}
                min={p.window.min}
                max={p.window.max}
                target={p.fit?.predicted ?? p.target}
                reading={last?.value}
            />
            {p.fit && (
                <p className="text-sm">
                    Predicted{' '}
                    <strong className="num">
                        {formatValue(p.fit.predicted, p.unit)} {p.unit}
                    </strong>
                </p>
            )}
        </div>
    );
}

/** By length and metal, and whether they may be turned again. */
function boltsInWords({ metal, lengths, singleUse }: Bolts): string {
    const by = Object.entries(lengths ?? {}).map(([length, n]) => `${n} of ${length}`);
    return [by.join(', '), metal, singleUse ? 'new each time' : ''].filter(Boolean).join(' · ');
}

/** Which gives first, the bolt or the hole, and the torque both take. */
function Joint({ bolts: b }: { bolts: Bolts }) {
    if (b.limitNm === undefined || b.givesFirst === undefined) return null;
    const both = `${b.limitNm.toFixed(1)} N·m`;
    return b.torqueNm > b.limitNm ? (
        <Mark kind="bad">
            the {b.givesFirst} gives at {both}, before this torque: ask before it is turned
        </Mark>
    ) : (
        <p className="text-sm text-faint">
            Bolt and hole take {both}; the {b.givesFirst} would give first.
        </p>
    );
}

function BoltsNow({ bolts: b }: { bolts: Bolts }) {
    const last = b.readings.at(-1);
    return (
        <div>
            <p className="font-head text-6xl num">{b.torque}</p>
            <p className="num">
                {b.torqueNm.toFixed(1)} N·m · {b.count} × {b.thread}, {b.grade} · {b.pattern}
            </p>
            <p className="num">{boltsInWords(b)}</p>
            {b.boltCeilingNm === null ? (
                <p className="text-sm text-faint">No standard says what a bolt of {b.metal} takes: the maker does.</p>
            ) : b.torqueNm > b.boltCeilingNm ? (
                <Mark kind="warn">above the {b.boltCeilingNm.toFixed(1)} N·m this bolt takes by itself</Mark>
            ) : (
                <p className="text-sm text-faint">The bolt alone would take {b.boltCeilingNm.toFixed(1)} N·m.</p>
            )}
            <Joint bolts={b} />
            {last && (
                <p>
                    <Mark kind={last.inside ? 'good' : 'bad'}>
                        {last.typed}, {last.by}
                    </Mark>
                </p>
            )}
            <Source source={b.source} confidence={b.confidence} />
            <HouseNote house={b.house} />
        </div>
    );
}

function gaugesFor(proof: ProofProps['proof'], material: ProofProps['material']) {
    const kind = proof.kind === 'torque' ? 'torque' : placeOf(material, proof)?.quantity;
    return (material.assembly?.gauges ?? []).filter((g) => g.kind === kind);
}

function windowOf(proof: ProofProps['proof'], material: ProofProps['material']) {
    const place = placeOf(material, proof);
    return place && { unit: place.unit, width: place.window.max - place.window.min };
}

/** A gauge that spreads too much for a window says so before anybody believes it. */
function CannotJudge(props: { gauge: Gauge | undefined; window: ReturnType<typeof windowOf>; most: number }) {
    const { gauge, window, most } = props;
    if (!gauge?.spread || !window || gauge.unit !== window.unit || !(window.width > 0)) return null;
    const share = (6 * gauge.spread) / window.width;
    if (share <= most) return null;
    return (
        <Mark kind="warn">this gauge spreads over {Math.round(100 * share)} % of the window: it cannot judge it</Mark>
    );
}

function Take({ proof, proven, material, send, problem, unit }: ProofProps & { unit: string }) {
    const gauges = gaugesFor(proof, material);
    const [reading, setReading] = useState('');
    const [gauge, setGauge] = useState('');
    const [note, setNote] = useState('');
    const asked = fieldProblem(problem, '/note');
    const [bolts, chosen] = [boltsOf(material, proof), gauges.find((g) => g.code === gauge)];
    return (
        <ProofForm
            onSend={() => send({ reading, gauge }, note)}
            problem={problem}
            except={['/answer/reading', '/answer/gauge', '/note']}
        >
            <GaugeFields
                label={`Reading (${unit})`}
                {...{ gauges, reading, gauge, problem }}
                onReading={setReading}
                onGauge={setGauge}
                at="/answer"
                autoFocus
            />
            <CannotJudge gauge={chosen} window={windowOf(proof, material)} most={material.assembly?.gaugeShare ?? 1} />
            {bolts && <Adapter wantedNm={bolts.torqueNm} armMm={chosen?.armMm ?? null} />}
            {(asked || note) && (
                <Field className="max-w-xl" label="Note" value={note} onChange={setNote} problem={asked} />
            )}
            {proven?.open && <p className="text-sm text-faint">{proven.open}</p>}
        </ProofForm>
    );
}
