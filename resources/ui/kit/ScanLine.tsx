import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { answer, api } from '../api/client';

/** Accepts anything a scanner or a person types and jumps there. */
export function ScanLine() {
    const [text, setText] = useState('');
    const [asked, setAsked] = useState('');
    const [at, setAt] = useState(0);
    const [open, setOpen] = useState(false);
    const input = useRef<HTMLInputElement>(null);
    const go = useNavigate();
    const hits = useQuery({
        queryKey: ['find', asked],
        queryFn: () => answer(api.GET('/find', { params: { query: { q: asked } } })),
        enabled: asked.length > 1,
        staleTime: 5000,
    });
    const rows = asked.length > 1 ? (hits.data?.hits ?? []) : [];

    useEffect(() => {
        const timer = setTimeout(() => setAsked(text.trim()), 160);
        return () => clearTimeout(timer);
    }, [text]);

    const jump = (to: string) => {
        setText('');
        setAsked('');
        setOpen(false);
        input.current?.blur();
        void go(to);
    };
    const enter = async () => {
        const q = text.trim();
        if (!q) return;
        const chosen = rows[at];
        if (chosen && asked === q) return jump(chosen.to);
        // A scanner types faster than the list appears: ask for exactly this.
        const { data } = await api.GET('/find', { params: { query: { q } } });
        const exact = data?.hits.find((h) => h.text.toUpperCase() === q.toUpperCase()) ?? data?.hits[0];
        if (exact) return jump(exact.to);
        setAsked(q);
        setOpen(true);
    };

    return (
        <div className="relative flex-1">
            <input
                id="scan-line"
                ref={input}
                role="combobox"
                aria-expanded={open && rows.length > 0}
                aria-controls="scan-hits"
                aria-activedescendant={rows[at] ? `hit-${at}` : undefined}
                aria-label="Scan line: tag, serial, lot, part, VIN or customer"
                placeholder="Scan or type: tag, serial, lot, part, VIN, customer"
                autoComplete="off"
                className="min-h-11 w-full rounded-sm border-2 border-enamel-ink/70 bg-sheet px-4 text-lg text-ink placeholder:text-faint"
                value={text}
                onChange={(e) => {
                    setText(e.target.value);
                    setAt(0);
                    setOpen(true);
                }}
                onFocus={() => setOpen(true)}
                onBlur={() => setTimeout(() => setOpen(false), 150)}
                onKeyDown={(e) => {
                    if (e.key === 'ArrowDown') setAt((i) => Math.min(i + 1, rows.length - 1));
                    else if (e.key === 'ArrowUp') setAt((i) => Math.max(i - 1, 0));
                    else if (e.key === 'Enter') void enter();
                    else if (e.key === 'Escape') input.current?.blur();
                    else return;
                    e.preventDefault();
                }}
            />
            {open && asked.length > 1 && (
                <ul
                    id="scan-hits"
                    role="listbox"
                    aria-label="Found"
                    className="absolute z-20 mt-1 w-full border-2 border-enamel bg-sheet text-ink shadow-lg"
                >
                    {rows.map((h, i) => (
                        <li
                            key={h.kind + h.text + h.to}
                            id={`hit-${i}`}
                            role="option"
                            aria-selected={i === at}
                            className={`flex min-h-11 cursor-pointer items-center gap-3 px-4 py-1 ${i === at ? 'bg-enamel text-enamel-ink' : ''}`}
                            onMouseDown={() => jump(h.to)}
                        >
                            <span className="w-28 text-sm opacity-80">{h.kind}</span>
                            <strong className="num">{h.text}</strong>
                            <span className="truncate text-sm opacity-80">{h.detail}</span>
                        </li>
                    ))}
                    {hits.isSuccess && rows.length === 0 && (
                        <li role="option" aria-selected="false" className="px-4 py-3">
                            Nothing begins with “{asked}”.
                        </li>
                    )}
                </ul>
            )}
        </div>
    );
}
