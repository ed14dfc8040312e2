import type { ReactNode } from 'react';
import { Barcode } from './Barcode';

type Label = { key: string; title: string; lines: ReactNode; code: string };

/** Labels to print and stick on, each with what a scanner reads; a sentence where there are none. */
export function PrintedLabels({ labels, none }: { labels: Label[]; none: string }) {
    if (labels.length === 0) return <p>{none}</p>;
    return (
        <div>
            {labels.map((l) => (
                <div
                    key={l.key}
                    className="mb-3 w-[80mm] break-inside-avoid border-2 border-black bg-white p-3 text-black"
                >
                    <p className="truncate font-head text-2xl">{l.title}</p>
                    {l.lines}
                    <Barcode text={l.code} />
                </div>
            ))}
            <button type="button" className="btn btn-main no-print" onClick={() => print()}>
                Print the labels
            </button>
        </div>
    );
}
