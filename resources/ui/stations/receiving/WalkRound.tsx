import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { formatMoney } from '../../kit/format';
import { Choice, Field } from '../../kit/basics';
import { Outline } from '../../kit/Outline';

type Form = Schemas['IntakeForm'];
type Damage = { place: string; what: string };
export type Seen = {
    clues: Record<string, string>;
    missing: string[];
    observed: Record<string, string>;
    damage: Damage[];
};

const without = (record: Record<string, string>, key: string) =>
    Object.fromEntries(Object.entries(record).filter(([k]) => k !== key));

/** Once round the unit: tap a place, note what is missing there, what is broken, and what the clues say. */
export function WalkRound({
    family,
    clues,
    seen,
    onChange,
}: {
    family: Form['families'][number];
    clues: Form['clues'];
    seen: Seen;
    onChange: (change: Partial<Seen>) => void;
}) {
    const outline = family.outline!;
    const [at, setAt] = useState(outline.places[0]!.code);
    const place = outline.places.find((p) => p.code === at)!;
    const notes = Object.fromEntries(
        outline.places.map((p) => [
            p.code,
            {
                bad:
                    p.parts.filter((n) => seen.missing.includes(n)).length +
                    seen.damage.filter((d) => d.place === p.code).length,
                seen: p.clues.filter((c) => seen.clues[c]).length + p.features.filter((f) => seen.observed[f]).length,
                photos: 0,
            },
        ]),
    );
    const here = seen.damage.find((d) => d.place === at)?.what ?? '';
    return (
        <div className="flex flex-col gap-3">
            <div>
                <Outline drawing={outline} chosen={at} onChoose={setAt} notes={notes} />
                <p className="mt-1 text-sm text-faint">
                    <span className="text-bad">▲</span> missing or damaged, <span className="text-good">●</span> noted.
                    Start anywhere; every place is a button.
                </p>
            </div>
            <div className="grid gap-3 border-t border-rule pt-2 sm:grid-cols-2" aria-live="polite">
                <h3 className="text-2xl sm:col-span-2">{place.name}</h3>
                {place.parts.length > 0 && (
                    <fieldset>
                        <legend className="text-sm font-semibold text-faint">Missing here</legend>
                        <div className="flex flex-wrap gap-1.5">
                            {place.parts.map((n) => {
                                const part = [...family.outsideParts, ...family.hardParts].find((p) => p.number === n);
                                const gone = seen.missing.includes(n);
                                return (
                                    part && (
                                        <button
                                            key={n}
                                            type="button"
                                            aria-pressed={gone}
                                            className={`btn px-3 ${gone ? 'btn-chosen' : ''}`}
                                            onClick={() =>
                                                onChange({
                                                    missing: gone
                                                        ? seen.missing.filter((m) => m !== n)
                                                        : [...seen.missing, n],
                                                })
                                            }
                                        >
                                            {gone && <span aria-hidden="true">✓</span>}
                                            {part.name} <span className="num text-sm">{formatMoney(part.price)}</span>
                                        </button>
                                    )
                                );
                            })}
                        </div>
                    </fieldset>
                )}
                {place.clues
                    .map((id) => clues.find((c) => c.id === id))
                    .filter((c) => c !== undefined)
                    .map((c) => (
                        <div key={c.id}>
                            <Choice
                                label={c.name}
                                value={seen.clues[c.id] ?? null}
                                values={c.values}
                                onChange={(v) =>
                                    onChange({
                                        clues:
                                            seen.clues[c.id] === v
                                                ? without(seen.clues, c.id)
                                                : { ...seen.clues, [c.id]: v },
                                    })
                                }
                            />
                            {seen.clues[c.id] && c.means[seen.clues[c.id]!] && (
                                <p className="text-sm text-hand">{c.means[seen.clues[c.id]!]}</p>
                            )}
                        </div>
                    ))}
                {place.features
                    .map((code) => family.features.find((f) => f.code === code))
                    .filter((f) => f !== undefined)
                    .map((f) =>
                        f.kind === 'number' ? (
                            <Field
                                key={f.code}
                                label={`${f.name} (${f.unit})`}
                                hint={f.how}
                                value={seen.observed[f.code] ?? ''}
                                onChange={(v) =>
                                    onChange({
                                        observed:
                                            v === ''
                                                ? without(seen.observed, f.code)
                                                : { ...seen.observed, [f.code]: v },
                                    })
                                }
                                className="w-72"
                            />
                        ) : (
                            <Choice
                                key={f.code}
                                label={f.name}
                                value={seen.observed[f.code] ?? null}
                                values={f.values}
                                onChange={(v) =>
                                    onChange({
                                        observed:
                                            seen.observed[f.code] === v
                                                ? without(seen.observed, f.code)
                                                : { ...seen.observed, [f.code]: v },
                                    })
                                }
                            />
                        ),
                    )}
                <Field
                    label="Damage that was there on arrival"
                    value={here}
                    hint={
                        here
                            ? 'Take its picture on the intake page before a tool touches the unit.'
                            : 'cracked ear, loose bolt, stripped plug'
                    }
                    onChange={(v) =>
                        onChange({
                            damage: [
                                ...seen.damage.filter((d) => d.place !== at),
                                ...(v ? [{ place: at, what: v }] : []),
                            ],
                        })
                    }
                />
            </div>
        </div>
    );
}
