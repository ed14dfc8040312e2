import { useRef, type RefObject, useState } from 'react';
import { api, fetchCard } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import type { SectionProps } from '../../card/section';
import { Field, Mark, Panel, ProblemNote } from '../../kit/basics';
import { Outline } from '../../kit/Outline';

type Receiving = SectionProps<'receiving'>['section'];
type Drawing = NonNullable<Receiving['outline']>;
type Place = Drawing['places'][number];

const noted = (p: Place, i: Receiving) => ({
    bad:
        p.parts.filter((n) => i.missing.some((m) => m.part === n)).length +
        i.damage.filter((d) => d.place === p.code).length,
    seen: p.clues.filter((c) => i.clues.some((k) => k.id === c)).length,
    photos: i.photos.filter((f) => f.place === p.code).length,
});

/** The unit's drawing with what was noted at each place; pictures are pinned to the place they show. */
export function Places({ outline, ...props }: SectionProps<'receiving'> & { outline: Drawing }) {
    const i = props.section;
    const open = i.damage.filter((d) => !i.photos.some((p) => p.place === d.place));
    const [at, setAt] = useState<string | undefined>(open[0]?.place);
    const place = outline.places.find((p) => p.code === at) ?? outline.places[0];
    const notes = Object.fromEntries(outline.places.map((p) => [p.code, noted(p, i)]));
    if (!place) return null;
    return (
        <Panel
            title="Once round the unit"
            aside={
                open.length > 0 ? (
                    <Mark kind="warn">
                        {open.length === 1 ? 'one damage has' : `${open.length} damages have`} no picture yet
                    </Mark>
                ) : undefined
            }
        >
            <div className="grid items-start gap-3 sm:grid-cols-2">
                <Outline drawing={outline} chosen={place.code} onChoose={setAt} notes={notes} />
                <div>
                    <h3 className="text-xl">{place.name}</h3>
                    <NotedHere place={place} i={i} />
                    <Pictures {...props} place={place.code} />
                </div>
            </div>
        </Panel>
    );
}

function NotedHere({ place, i }: { place: Place; i: Receiving }) {
    return (
        <ul>
            {i.missing
                .filter((m) => place.parts.includes(m.part))
                .map((m) => (
                    <li key={m.part}>
                        <Mark kind="bad">missing</Mark> <span className="num">{m.part}</span>
                    </li>
                ))}
            {i.damage
                .filter((d) => d.place === place.code)
                .map((d) => (
                    <li key={d.what}>
                        <Mark kind="bad">damaged on arrival</Mark> {d.what}
                    </li>
                ))}
            {i.clues
                .filter((c) => place.clues.includes(c.id))
                .map((c) => (
                    <li key={c.id}>
                        {c.name}: <strong>{c.value}</strong>
                    </li>
                ))}
        </ul>
    );
}

/** Pictures of one place, and the way to add one. */
function Pictures({ section, card, onCard, can, place }: SectionProps<'receiving'> & { place: string }) {
    const { busy, problem, write } = useWrite();
    const file = useRef<HTMLInputElement>(null);
    const upload = async () => {
        const chosen = file.current?.files?.[0];
        if (!chosen) return;
        const ok = await write(() =>
            api.POST('/units/{number}/photos', {
                params: { path: { number: card.coreTag } },
                body: { photo: '', place: place || 'outside', station: card.station },
                bodySerializer: (b) => {
                    const form = new FormData();
                    form.set('photo', chosen);
                    form.set('place', b.place);
                    form.set('station', b.station ?? '');
                    return form;
                },
            }),
        );
        if (ok) {
            if (file.current) file.current.value = '';
            onCard(await fetchCard(card.coreTag, ['receiving']));
        }
    };
    return (
        <>
            <PhotosOfPlace section={section} place={place} />
            {can('yard.hold') && <AddPhoto busy={busy} file={file} upload={upload} />}
            <ProblemNote problem={problem} />
        </>
    );
}

function PhotosOfPlace({ section, place }: { section: Receiving; place: string }) {
    return (
        <ul className="mt-1 grid grid-cols-2 gap-2">
            {section.photos
                .filter((p) => p.place === place)
                .map((p) => (
                    <li key={p.id}>
                        <a href={`/api/photos/${p.id}`} target="_blank" rel="noreferrer">
                            <img
                                src={`/api/photos/${p.id}`}
                                alt={`${p.place}, taken at ${p.station}`}
                                className="border border-rule"
                                loading="lazy"
                                width={p.width}
                                height={p.height}
                            />
                        </a>
                    </li>
                ))}
        </ul>
    );
}

function AddPhoto({
    busy,
    file,
    upload,
}: {
    busy: boolean;
    file: RefObject<HTMLInputElement | null>;
    upload: () => Promise<void>;
}) {
    return (
        <div className="mt-1 flex flex-wrap items-end gap-2">
            <label className="text-sm font-semibold text-faint">
                Picture of this place
                <input ref={file} type="file" accept="image/*" capture="environment" className="input" />
            </label>
            <button type="button" className="btn" disabled={busy} onClick={() => void upload()}>
                Attach
            </button>
        </div>
    );
}

/** Pictures that belong to no place of the drawing. */
export function Photos(props: SectionProps<'receiving'>) {
    const places = props.section.outline?.places.map((p) => p.code) ?? [];
    const others = [...new Set(props.section.photos.map((p) => p.place).filter((p) => !places.includes(p)))];
    const [place, setPlace] = useState('');
    return (
        <Panel
            title={places.length > 0 ? 'Other pictures' : 'Photos'}
            aside="damage already there is photographed before a tool touches it"
        >
            {others.map((o) => (
                <div key={o}>
                    <p className="text-sm">{o}</p>
                    <Pictures {...props} can={() => false} place={o} />
                </div>
            ))}
            <Field
                label="What it shows"
                value={place}
                onChange={setPlace}
                hint="for example inside of the pan, broken tab"
            />
            <Pictures {...props} place={place} />
        </Panel>
    );
}
