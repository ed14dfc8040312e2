import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { fetchCard } from '../../api/client';
import { day } from '../../kit/format';
import { Barcode } from '../../kit/Barcode';
import { Pending } from '../../kit/Fetched';

/** The label for the core tag: readable across the aisle, scannable at the bench. */
export function Label() {
    const { number = '' } = useParams();
    const card = useQuery({ queryKey: ['card', number, 'label'], queryFn: () => fetchCard(number, []) });
    if (!card.data) return <Pending of={[card]} what="the label" />;
    const c = card.data;
    return (
        <div>
            <div className="w-[100mm] border-2 border-black bg-white p-4 text-black">
                <p className="flex justify-between text-sm">
                    <span>Vast Yard core</span>
                    <span>{day(c.receivedAt)}</span>
                </p>
                <p className="font-head text-6xl num">{c.coreTag}</p>
                <p className="truncate text-lg">
                    {c.variant?.code ?? c.family ?? 'to be identified'} · grade {c.grade} · rack {c.rack || '–'}
                </p>
                <p className="truncate text-sm">{c.vehicle}</p>
                <Barcode text={c.coreTag} />
            </div>
            <button type="button" className="btn btn-main no-print mt-3" onClick={() => print()}>
                Print the label
            </button>
        </div>
    );
}
