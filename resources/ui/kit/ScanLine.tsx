import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { useNavigate } from 'react-router';
import { answer, api, type Schemas } from '../api/client';

type Hit = Schemas['Hits']['hits'][number];

const find = (q: string) => answer(api.GET('/find', { params: { query: { q } } }));

/** What is typed, what was found for it a moment later, and the way there. */
function useFind() {
    const [text, setText] = useState('');
    const [asked, setAsked] = useState('');
    const go = useNavigate();
    const long = asked.length > 1;
    const hits = useQuery({ queryKey: ['find', asked], queryFn: () => find(asked), enabled: long, staleTime: 5000 });
    const rows = long ? (hits.data?.hits ?? []) : [];
    useEffect(() => {
        const timer = setTimeout(() => setAsked(text.trim()), 160);
        return () => clearTimeout(timer);
    }, [text]);
    const jump = (hit: Hit) => {
        setText('');
        setAsked('');
        void go(hit.to);
    };
    return { text, setText, asked, setAsked, rows, open: long, nothing: hits.isSuccess && rows.length === 0, jump };
}

/** Accepts anything a scanner or a person types and jumps there. */
export function ScanLine() {
    const { text, setText, asked, setAsked, rows, open, nothing, jump } = useFind();
    const input = useRef<HTMLInputElement>(null);
    const take = (hit: Hit | null | undefined) => {
        if (!hit) return;
        input.current?.blur();
        jump(hit);
    };
    // A scanner types faster than the list appears: then it is asked for exactly this.
    const enter = async (q: string) => {
        const found = await find(q).catch(() => null);
        const hit = found?.hits.find((h) => h.text.toUpperCase() === q.toUpperCase()) ?? found?.hits[0];
        if (hit) take(hit);
        else setAsked(q);
    };
    const key = (e: KeyboardEvent) => {
        const q = text.trim();
        if (e.key !== 'Enter' || q === '' || (asked === q && rows.length > 0)) return;
        e.preventDefault();
        void enter(q);
    };
    return (
        <Combobox<Hit | null> value={null} onChange={take} immediate={false}>
            <div className="relative flex-1">
                <ComboboxInput
                    id="scan-line"
                    ref={input}
                    aria-label="Scan line: tag, serial, lot, part, VIN or customer"
                    placeholder="Scan or type: tag, serial, lot, part, VIN, customer"
                    autoComplete="off"
                    className={LINE}
                    displayValue={() => text}
                    onChange={(e) => setText(e.target.value)}
                    onKeyDown={key}
                />
                {open && <Found rows={rows} nothing={nothing ? asked : null} />}
            </div>
        </Combobox>
    );
}

const LINE =
    'min-h-11 w-full rounded-sm border-2 border-enamel-ink/70 bg-sheet px-4 text-lg text-ink placeholder:text-faint';

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
