import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, isProblem, type Card, type Problem, type Schemas } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import type { SectionProps } from '../../card/section';
import { dutyOf } from './DutyFields';

type Lines = { package?: string; add?: string[]; drop?: string[] };
type Section = NonNullable<Card['ordering']>;

type Draft = NonNullable<Section['order']>;

const draftOf = (section: Section): Draft | null => (section.order?.state === 'draft' ? section.order : null);

const linesOf = (draft: Draft | null, packages: Section['packages']) => {
    const lines: Lines = draft?.lines ?? {};
    return { package: lines.package ?? packages[0]?.code ?? '', add: lines.add ?? [], drop: lines.drop ?? [] };
};

const initial = (section: Section, card: Card) => {
    const draft = draftOf(section);
    return {
        ...linesOf(draft, section.packages),
        customer: card.customer?.code ?? '',
        vehicle: draft?.vehicle?.code ?? section.vehicles[0]?.code ?? '',
        promisedOn: draft?.promisedOn ?? '',
    };
};

type Asked = {
    package: string;
    add: string[];
    drop: string[];
    vehicle: string | null;
    duty: ReturnType<typeof dutyOf>;
};

/** What the rules answer to the order; while what is typed makes no sense yet, the last answer stays on the screen. */
function useSpec(number: string, asked: Asked, first: Schemas['Spec'] | null) {
    const preview = useQuery({
        queryKey: ['ordering', 'preview', number, asked],
        queryFn: () =>
            answer(api.POST('/units/{number}/ordering/preview', { params: { path: { number } }, body: asked })),
        placeholderData: (before) => before,
        retry: false,
        staleTime: 60_000,
    });
    const wrong: Problem | null = isProblem(preview.error) ? preview.error : null;
    const [kept, setKept] = useState(first);
    if (preview.data && preview.data !== kept) setKept(preview.data);
    return { spec: preview.data ?? kept, wrong };
}

/** What was told to the customer about surprises. */
function useTold() {
    const [told, setTold] = useState<string[]>([]);
    const toggleTold = (code: string) =>
        setTold(told.includes(code) ? told.filter((t) => t !== code) : [...told, code]);
    return { told, toggleTold };
}

/** An order while it is written: what is asked, what the rules answer to it, and how it is saved and released. */
export function useOrder({ section, card, onCard }: SectionProps<'ordering'>) {
    const draft = draftOf(section);
    const [d, setD] = useState(() => initial(section, card));
    const [duty, setDuty] = useState(dutyOf(draft?.lines));
    const { told, toggleTold } = useTold();
    const { busy, problem, write } = useWrite();
    const params = { path: { number: card.coreTag } };
    const asked = { package: d.package, add: d.add, drop: d.drop, vehicle: d.vehicle || null, duty };
    const { spec, wrong } = useSpec(card.coreTag, asked, draft?.spec ?? null);
    const version = draft?.version ?? null;
    const body = { ...asked, customer: d.customer || null, promisedOn: d.promisedOn || null, version };
    const save = (then?: (version: number) => void) =>
        write(
            () => api.POST('/units/{number}/ordering', { params, body }),
            (next) => {
                onCard(next);
                const saved = next.ordering?.order?.version;
                if (saved !== undefined) then?.(saved);
            },
        );
    const release = () =>
        save((saved) => {
            const released = { version: saved, acknowledged: told };
            void write(() => api.POST('/units/{number}/ordering/release', { params, body: released }), onCard);
        });
    return {
        d,
        set: (change: Partial<typeof d>) => setD({ ...d, ...change }),
        duty,
        setDuty: (change: Partial<typeof duty>) => setDuty({ ...duty, ...change }),
        ...{ told, toggleTold, draft, spec, wrong, problem, busy, save, release },
        /** The order as the JSON that core/bin/calc package.resolve reads. */
        calculation: async () => (await api.POST('/units/{number}/ordering/calculation', { params, body: asked })).data,
    };
}

export type Ordering = ReturnType<typeof useOrder>;
