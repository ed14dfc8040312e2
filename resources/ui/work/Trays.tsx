import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import { z } from 'zod';
import { answer, api, type Schemas } from '../api/client';
import { useWrite } from '../api/useWrite';
import { Choice, Mark, Panel, ProblemNote } from '../kit/basics';
import { Fetched } from '../kit/Fetched';
import { fieldsOf, FormFields, FormProblem, useForm } from '../kit/form';
import { said } from '../kit/form/values';
import { moment } from '../kit/format';
import { More } from '../kit/More';

type Known = Schemas['Trays'];
type Tray = Known['trays'][number];
type Props = { number: string; can: boolean };

const key = (number: string) => ['trays', number];
const params = (number: string) => ({ path: { number } });

/** Keeps what a write answers as what is known of the trays. */
function useKnown(number: string) {
    const client = useQueryClient();
    return (known: Known) => client.setQueryData(key(number), known);
}

/** Loose parts travel in tagged trays: what lies in each, where it is on its round, pictures, what the scale said. */
export function Trays({ number, can }: Props) {
    const trays = useQuery({
        queryKey: key(number),
        queryFn: () => answer(api.GET('/units/{number}/trays', { params: params(number) })),
    });
    return (
        <Panel title="Trays">
            <Fetched query={trays} what="the trays">
                {(known) => (
                    <>
                        {known.trays.length === 0 && <p className="text-faint">No tray is tied to this unit.</p>}
                        {known.trays.map((t) => (
                            <OneTray key={t.tag} tray={t} stages={known.stages} {...{ number, can }} />
                        ))}
                    </>
                )}
            </Fetched>
            {can && (
                <More title="Tie a tray to this unit">
                    <FillTray number={number} loose={trays.data?.loose ?? []} />
                </More>
            )}
        </Panel>
    );
}

function OneTray({ tray: t, stages, number, can }: { tray: Tray; stages: string[] } & Props) {
    return (
        <section aria-label={`Tray ${t.tag}`} className="mb-2 border-b border-rule pb-2">
            <p className="flex flex-wrap items-baseline gap-3">
                <strong className="num text-lg">{t.tag}</strong>
                <span>at the {t.stage}</span>
                {t.movedAt && (
                    <span className="text-sm text-faint">
                        {t.movedBy}, {moment(t.movedAt)}
                    </span>
                )}
            </p>
            <Contents items={t.items} />
            <Shots tray={t} />
            {can && (
                <More title="Weigh, move or picture it">
                    <Round tray={t} {...{ stages, number }} />
                    <Weigh tray={t} number={number} />
                </More>
            )}
        </section>
    );
}

function Contents({ items }: Pick<Tray, 'items'>) {
    return (
        <ul className="text-sm">
            {items.map((i) => (
                <li key={i.name}>
                    {i.count} × {i.name}
                    {i.keepTogether && <span className="text-faint"> · keep together: {i.keepTogether}</span>}{' '}
                    {i.weighed !== null && (
                        <Mark kind={i.weighed === i.count ? 'good' : 'bad'}>
                            {i.weighed} by weight, {i.netG} g
                        </Mark>
                    )}
                </li>
            ))}
        </ul>
    );
}

function Shots({ tray: t }: { tray: Tray }) {
    return (
        <ul className="flex flex-wrap gap-2">
            {t.photos.map((id) => (
                <li key={id}>
                    <a href={`/api/photos/${id}`} target="_blank" rel="noreferrer">
                        <img
                            className="size-16 object-cover"
                            src={`/api/photos/${id}`}
                            alt={`tray ${t.tag}`}
                            loading="lazy"
                        />
                    </a>
                </li>
            ))}
        </ul>
    );
}

/** Where it goes next, and the end of its round. */
function Round({ tray: t, stages, number }: { tray: Tray; stages: string[]; number: string }) {
    const known = useKnown(number);
    const { busy, problem, write } = useWrite();
    const at = { params: { path: { number, tag: t.tag } } };
    const move = (stage: string) =>
        write(() => api.PUT('/units/{number}/trays/{tag}/stage', { ...at, body: { stage: stage as 'bench' } }), known);
    return (
        <div className="flex flex-col gap-2">
            <Choice label="Where it is now" value={t.stage} values={stages} onChange={(stage) => void move(stage)} />
            <Picture tag={t.tag} number={number} />
            <button
                type="button"
                className="btn self-start"
                disabled={busy}
                onClick={() => void write(() => api.DELETE('/units/{number}/trays/{tag}', at), known)}
            >
                Empty: the tray is free
            </button>
            <ProblemNote problem={problem} />
        </div>
    );
}

const formOf = (fields: Record<string, string | Blob>) => () => {
    const form = new FormData();
    for (const [name, value] of Object.entries(fields)) form.set(name, value);
    return form;
};

/** A picture of the tray, in or out. */
function Picture({ tag, number }: { tag: string; number: string }) {
    const known = useKnown(number);
    const { busy, problem, write } = useWrite();
    const file = useRef<HTMLInputElement>(null);
    const take = async () => {
        const photo = file.current?.files?.[0];
        if (!photo) return;
        const place = `tray ${tag}`;
        const kept = await write(() =>
            api.POST('/units/{number}/photos', {
                params: params(number),
                body: { photo: '', place },
                bodySerializer: formOf({ photo, place, station: 'teardown' }),
            }),
        );
        if (kept) known(await answer(api.GET('/units/{number}/trays', { params: params(number) })));
    };
    return (
        <div className="flex flex-wrap items-end gap-2">
            <label className="text-sm font-semibold text-faint">
                Picture of it
                <input ref={file} type="file" accept="image/*" capture="environment" className="input" />
            </label>
            <button type="button" className="btn" disabled={busy} onClick={() => void take()}>
                Attach
            </button>
            <ProblemNote problem={problem} />
        </div>
    );
}

const weighing = z.object({
    item: said('Say what is weighed.'),
    basket: said('Weigh the empty basket first.'),
    filled: said('Put them in and weigh again.'),
    sample: z
        .string()
        .regex(/^[1-9]\d*$/, 'Count a few by hand: a whole number.')
        .transform(Number),
    sampleWeight: said('Weigh those few.'),
});
const scale = fieldsOf<z.input<typeof weighing>>();

/** Counting by weight: the scale types grams into the field in hand, like a scanner types codes. */
function Weigh({ tray: t, number }: { tray: Tray; number: string }) {
    const known = useKnown(number);
    const form = useForm({
        schema: weighing,
        start: { item: t.items[0]?.name ?? '', basket: '', filled: '', sample: '10', sampleWeight: '' },
    });
    const send = form.submit(
        (body) => api.POST('/units/{number}/trays/{tag}/weighings', { params: { path: { number, tag: t.tag } }, body }),
        (answered) => {
            known(answered);
            form.clear();
        },
    );
    return (
        <FormFields of={form}>
            <scale.Pick
                name="item"
                label="What is weighed"
                options={t.items.map((i) => ({ value: i.name, text: `${i.name} (${i.count})` }))}
            />
            <div className="flex flex-wrap gap-3">
                <scale.Text name="sample" label="Counted by hand" inputMode="numeric" />
                <scale.Text name="sampleWeight" label="They weigh, g" />
                <scale.Text name="basket" label="Empty basket, g" />
                <scale.Text name="filled" label="Basket with all, g" />
            </div>
            <FormProblem of={form} />
            <button type="button" className="btn mt-2" disabled={form.busy} onClick={send}>
                Count by weight
            </button>
        </FormFields>
    );
}

const ITEM = /^(\d+)\s*x?\s+(.+)$/;

/** "8 check balls", one a line; what is kept together after a colon: "1 piston, spring: accumulator 1". */
const contents = z.string().transform((typed, context) => {
    const lines = typed
        .split('\n')
        .map((l) => l.trim())
        .filter(Boolean);
    const items = lines.map((l) => ITEM.exec(l));
    const bad = items.indexOf(null);
    const wrong =
        bad >= 0 ? `Line ${bad + 1}: write the count first, for example 8 check balls.` : 'Write down what is in it.';
    if (bad >= 0 || items.length === 0) context.addIssue({ code: 'custom', message: wrong });
    return items.flatMap((m) => {
        if (m?.[2] === undefined) return [];
        const [name = '', bag] = m[2].split(/\s*:\s*/, 2);
        return [{ name, count: Number(m[1]), ...(bag && { keepTogether: bag }) }];
    });
});
/** What was counted out and lies nowhere yet goes into the tray with a press. */
function CountedOut({ loose, typed, onAdd }: { typed: string; onAdd: (all: string) => void } & Pick<Known, 'loose'>) {
    const left = loose.filter((l) => !typed.split('\n').some((line) => line.includes(l.name)));
    if (left.length === 0) return null;
    return (
        <div role="group" aria-label="Counted out, in no tray yet" className="flex flex-wrap items-center gap-2">
            <span className="text-sm text-faint">Counted out, in no tray yet:</span>
            {left.map((l) => (
                <button
                    key={l.name}
                    type="button"
                    className="btn"
                    onClick={() => onAdd([typed.trimEnd(), `${l.count} ${l.name}`].filter(Boolean).join('\n'))}
                >
                    {l.count} {l.name}
                </button>
            ))}
        </div>
    );
}

const tray = z.object({ tag: said('Scan the tag of the tray.'), items: contents });
const filling = fieldsOf<z.input<typeof tray>>();

function FillTray({ number, loose }: { number: string } & Pick<Known, 'loose'>) {
    const known = useKnown(number);
    const form = useForm({ schema: tray, start: { tag: '', items: '' } });
    const fill = form.submit(
        (body) => api.POST('/units/{number}/trays', { params: params(number), body }),
        (answered) => {
            known(answered);
            form.clear();
        },
    );
    return (
        <FormFields of={form}>
            <filling.Text name="tag" label="Tray tag" />
            <filling.Area name="items" label="Contents, one a line: 8 check balls; a bag after a colon" rows={4} />
            <CountedOut
                loose={loose}
                typed={form.fields.watch('items')}
                onAdd={(all) => form.fields.setValue('items', all)}
            />
            <FormProblem of={form} />
            <button type="button" className="btn mt-2" disabled={form.busy} onClick={fill}>
                Keep the list
            </button>
        </FormFields>
    );
}
