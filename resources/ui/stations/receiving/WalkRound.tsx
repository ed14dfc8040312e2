import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { formatMoney } from '../../kit/format';
import { Choice, Field, Toggle } from '../../kit/basics';
import { Outline } from '../../kit/Outline';

type Form = Schemas['IntakeForm'];
type Family = Form['families'][number];
type Drawing = NonNullable<Family['outline']>;
type Place = Drawing['places'][number];
export type Seen = {
    clues: Record<string, string>;
    missing: string[];
    observed: Record<string, string>;
    damage: { place: string; what: string }[];
};
type Walk = { seen: Seen; onChange: (change: Partial<Seen>) => void };

/** The record with this answer in it; the same answer again, or none, takes it out. */
function answered(record: Record<string, string>, key: string, value: string): Record<string, string> {
    const rest = Object.fromEntries(Object.entries(record).filter(([k]) => k !== key));
    return value === '' || record[key] === value ? rest : { ...rest, [key]: value };
}

const noted = (p: Place, seen: Seen) => ({
    bad: p.parts.filter((n) => seen.missing.includes(n)).length + seen.damage.filter((d) => d.place === p.code).length,
    seen: p.clues.filter((c) => seen.clues[c]).length + p.features.filter((f) => seen.observed[f]).length,
    photos: 0,
});

/** Once round the unit: tap a place, note what is missing there, what is broken, and what the clues say. */
export function WalkRound({
    family,
    outline,
    clues,
    ...walk
}: { family: Family; outline: Drawing; clues: Form['clues'] } & Walk) {
    const [at, setAt] = useState<string | null>(null);
    const place = outline.places.find((p) => p.code === at) ?? outline.places[0];
    const notes = Object.fromEntries(outline.places.map((p) => [p.code, noted(p, walk.seen)]));
    if (!place) return null;
    return (
        <div className="flex flex-col gap-3">
            <div>
                <Outline drawing={outline} chosen={place.code} onChoose={setAt} notes={notes} />
                <p className="mt-1 text-sm text-faint">
                    <span className="text-bad">▲</span> missing or damaged, <span className="text-good">●</span> noted.
                    Start anywhere; every place is a button.
                </p>
            </div>
            <div className="grid gap-3 border-t border-rule pt-2 sm:grid-cols-2" aria-live="polite">
                <h3 className="text-2xl sm:col-span-2">{place.name}</h3>
                {place.parts.length > 0 && <MissingHere family={family} parts={place.parts} {...walk} />}
                {clues
                    .filter((c) => place.clues.includes(c.id))
                    .map((c) => (
                        <ClueHere key={c.id} clue={c} {...walk} />
                    ))}
                {family.features
                    .filter((f) => place.features.includes(f.code))
                    .map((f) => (
                        <FeatureHere key={f.code} feature={f} {...walk} />
                    ))}
                <DamageHere at={place.code} {...walk} />
            </div>
        </div>
    );
}

function MissingHere({ family, parts, seen, onChange }: { family: Family; parts: string[] } & Walk) {
    const here = [...family.outsideParts, ...family.hardParts].filter((p) => parts.includes(p.number));
    const toggle = (number: string) =>
        onChange({
            missing: seen.missing.includes(number)
                ? seen.missing.filter((m) => m !== number)
                : [...seen.missing, number],
        });
    return (
        <fieldset>
            <legend className="text-sm font-semibold text-faint">Missing here</legend>
            <div className="flex flex-wrap gap-1.5">
                {here.map((part) => (
                    <Toggle
                        key={part.number}
                        on={seen.missing.includes(part.number)}
                        onToggle={() => toggle(part.number)}
                    >
                        {part.name} <span className="num text-sm">{formatMoney(part.price)}</span>
                    </Toggle>
                ))}
            </div>
        </fieldset>
    );
}

function ClueHere({ clue, seen, onChange }: { clue: Form['clues'][number] } & Walk) {
    const value = seen.clues[clue.id];
    const means = value === undefined ? undefined : clue.means[value];
    return (
        <div>
            <Choice
                label={clue.name}
                value={value ?? null}
                values={clue.values}
                onChange={(v) => onChange({ clues: answered(seen.clues, clue.id, v) })}
            />
            {means && <p className="text-sm text-hand">{means}</p>}
        </div>
    );
}

function FeatureHere({ feature: f, seen, onChange }: { feature: Family['features'][number] } & Walk) {
    const change = (v: string) => onChange({ observed: answered(seen.observed, f.code, v) });
    return f.kind === 'number' ? (
        <Field
            label={`${f.name} (${f.unit})`}
            hint={f.how}
            value={seen.observed[f.code] ?? ''}
            onChange={change}
            className="w-72"
        />
    ) : (
        <Choice label={f.name} value={seen.observed[f.code] ?? null} values={f.values} onChange={change} />
    );
}

function DamageHere({ at, seen, onChange }: { at: string } & Walk) {
    const here = seen.damage.find((d) => d.place === at)?.what ?? '';
    const change = (what: string) =>
        onChange({ damage: [...seen.damage.filter((d) => d.place !== at), ...(what ? [{ place: at, what }] : [])] });
    return (
        <Field
            label="Damage that was there on arrival"
            value={here}
            hint={
                here
                    ? 'Take its picture on the intake page before a tool touches the unit.'
                    : 'cracked ear, loose bolt, stripped plug'
            }
            onChange={change}
        />
    );
}
