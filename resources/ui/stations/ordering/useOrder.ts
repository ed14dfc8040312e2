import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, isProblem, type Card, type Problem, type Schemas } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import type { SectionProps } from '../../card/section';
import { dutyOf } from './DutyFields';

type Lines = { package?: string; add?: string[]; drop?: string[] };
type Section = NonNullable<Card['ordering']>;

const initial = (section: Section, card: Card) => {
    const draft = section.order?.state === 'draft' ? section.order : null;
    const lines: Lines = draft?.lines ?? {};
    return {
        package: lines.package ?? section.packages[0]?.code ?? '',
        add: lines.add ?? [],
        drop: lines.drop ?? [],
        customer: card.customer?.code ?? '',
        vehicle: draft?.vehicle?.code ?? section.vehicles[0]?.code ?? '',
        promisedOn: draft?.promisedOn ?? '',
    };
};

/** An order while it is written: what is asked, what the rules answer to it, and how it is saved and released. */
export function useOrder({ section, card, onCard }: SectionProps<'ordering'>) {
    const draft = section.order?.state === 'draft' ? section.order : null;
    const [d, setD] = useState(() => initial(section, card));
    const [duty, setDuty] = useState(dutyOf(draft?.lines));
    const [told, setTold] = useState<string[]>([]);
    const { busy, problem, write } = useWrite();
    const params = { path: { number: card.coreTag } };
    const asked = { package: d.package, add: d.add, drop: d.drop, vehicle: d.vehicle || null, duty };
    const preview = useQuery({
        queryKey: ['ordering', 'preview', card.coreTag, asked],
        queryFn: () => answer(api.POST('/units/{number}/ordering/preview', { params, body: asked })),
        placeholderData: (before) => before,
        retry: false,
        staleTime: 60_000,
    });
    const wrong: Problem | null = isProblem(preview.error) ? preview.error : null;
    // While what is typed makes no sense yet, the last answer stays on the screen.
    const [kept, setKept] = useState<Schemas['Spec'] | null>(draft?.spec ?? null);
    if (preview.data && preview.data !== kept) setKept(preview.data);
    const spec = preview.data ?? kept;
    const body = {
        ...asked,
        customer: d.customer || null,
        promisedOn: d.promisedOn || null,
        version: draft?.version ?? null,
    };
    const save = (then?: (version: number) => void) =>
        write(
            () => api.POST('/units/{number}/ordering', { params, body }),
            (next) => {
                onCard(next);
                const version = next.ordering?.order?.version;
                if (version !== undefined) then?.(version);
            },
        );
    return {
        d,
        set: (change: Partial<typeof d>) => setD({ ...d, ...change }),
        duty,
        setDuty: (change: Partial<typeof duty>) => setDuty({ ...duty, ...change }),
        told,
        toggleTold: (code: string) => setTold(told.includes(code) ? told.filter((t) => t !== code) : [...told, code]),
        draft,
        spec,
        wrong,
        problem,
        busy,
        save,
        release: () =>
            save(
                (version) =>
                    void write(
                        () =>
                            api.POST('/units/{number}/ordering/release', {
                                params,
                                body: { version, acknowledged: told },
                            }),
                        onCard,
                    ),
            ),
        /** The order as the JSON that core/bin/calc package.resolve reads. */
        calculation: async () => (await api.POST('/units/{number}/ordering/calculation', { params, body: asked })).data,
    };
}

export type Ordering = ReturnType<typeof useOrder>;
