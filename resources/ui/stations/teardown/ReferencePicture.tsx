import { useRef } from 'react';
import { api, type Card } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { ProblemNote } from '../../kit/basics';

type Props = { number: string; part: string; name: string; condition: string; onCard: (card: Card) => void };

const formOf = (photo: Blob, place: string) => () => {
    const form = new FormData();
    form.set('photo', photo);
    form.set('place', place);
    form.set('station', 'teardown');
    return form;
};

/** A picture of this part becomes what the shop grades by. */
export function ReferencePicture({ number, part, name, condition, onCard }: Props) {
    const { busy, problem, write } = useWrite();
    const file = useRef<HTMLInputElement>(null);
    const at = { params: { path: { number } } };
    const keep = async () => {
        const photo = file.current?.files?.[0];
        if (!photo) return;
        const place = `${name}: ${condition}`.slice(0, 60);
        let id = 0;
        const taken = await write(
            () =>
                api.POST('/units/{number}/photos', {
                    ...at,
                    body: { photo: '', place },
                    bodySerializer: formOf(photo, place),
                }),
            (kept) => (id = kept.id),
        );
        if (!taken) return;
        await write(
            () => api.POST('/units/{number}/teardown/references', { ...at, body: { part, condition, photo: id } }),
            onCard,
        );
    };
    return (
        <div className="flex flex-wrap items-end gap-2">
            <label className="text-sm font-semibold text-faint">
                The shop&apos;s picture of &quot;{condition}&quot;
                <input ref={file} type="file" accept="image/*" capture="environment" className="input" />
            </label>
            <button type="button" className="btn" disabled={busy} onClick={() => void keep()}>
                Grade by this one
            </button>
            <ProblemNote problem={problem} />
        </div>
    );
}
