import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { useNavigate } from 'react-router';
import { answer, api, type Schemas } from '../api/client';

type Hit = Schemas['Hits']['hits'][number];

const find = (q: string) => answer(api.GET('/find', { params: { query: { q } } }));

/** Accepts anything a scanner or a person types and jumps there. */
export function ScanLine() {
    const [text, setText] = useState('');
    const [asked, setAsked] = useState('');
    const input = useRef<HTMLInputElement>(null);
    const go = useNavigate();
    const hits = useQuery({
        queryKey: ['find', asked],
        queryFn: () => find(asked),
        enabled: asked.length > 1,
        staleTime: 5000,
    });
    const rows = asked.length > 1 ? (hits.data?.hits ?? []) : [];

    useEffect(() => {
        const timer = setTimeout(() => setAsked(text.trim()), 160);
        return () => clearTimeout(timer);
    }, [text]);

    const jump = (hit: Hit | null) => {
        if (!hit) return;
        setText('');
        setAsked('');
        input.current?.blur();
        void go(hit.to);
    };
    // A scanner types faster than the list appears: then it is asked for exactly this.
    const enter = async (q: string) => {
        const found = await find(q).catch(() => null);
        const hit = found?.hits.find((h) => h.text.toUpperCase() === q.toUpperCase()) ?? found?.hits[0];
        if (hit) jump(hit);
        else setAsked(q);
    };
    const key = (e: KeyboardEvent) => {
        const q = text.trim();
        if (e.key !== 'Enter' || q === '' || (asked === q && rows.length > 0)) return;
        e.preventDefault();
        void enter(q);
    };

    return (
        <Combobox<Hit | null> value={null} onChange={jump} immediate={false}>
            <div className="relative flex-1">
                <ComboboxInput
                    id="scan-line"
                    ref={input}
                    aria-label="Scan line: tag, serial, lot, part, VIN or customer"
                    placeholder="Scan or type: tag, serial, lot, part, VIN, customer"
                    autoComplete="off"
                    className="min-h-11 w-full rounded-sm border-2 border-enamel-ink/70 bg-sheet px-4 text-lg text-ink placeholder:text-faint"
                    displayValue={() => text}
                    onChange={(e) => setText(e.target.value)}
                    onKeyDown={key}
                />
                {asked.length > 1 && <Found rows={rows} nothing={hits.isSuccess && rows.length === 0 ? asked : null} />}
            </div>
        </Combobox>
    );
}

function Found({ rows, nothing }: { rows: Hit[]; nothing: string | null }) {
    return (
        <ComboboxOptions
            aria-label="Found"
            className="absolute z-20 mt-1 w-full border-2 border-enamel bg-sheet text-ink shadow-lg"
        >
            {rows.map((h) => (
                <ComboboxOption
                    key={h.kind + h.text + h.to}
                    value={h}
                    className="flex min-h-11 cursor-pointer items-center gap-3 px-4 py-1 data-focus:bg-enamel data-focus:text-enamel-ink"
                >
                    <span className="w-28 text-sm opacity-80">{h.kind}</span>
                    <strong className="num">{h.text}</strong>
                    <span className="truncate text-sm opacity-80">{h.detail}</span>
                </ComboboxOption>
            ))}
            {nothing !== null && (
                <ComboboxOption value={null} disabled className="px-4 py-3">
                    Nothing begins with “{nothing}”.
                </ComboboxOption>
            )}
        </ComboboxOptions>
    );
}
