import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { fetchCard } from '../../api/client';
import { Barcode } from '../../kit/Barcode';
import { Pending } from '../../kit/Fetched';

/** A label for each reclaimed part: what it is, which core it came out of, its lot to scan. */
export function PartLabels() {
    const { number = '' } = useParams();
    const card = useQuery({
        queryKey: ['card', number, 'part-labels'],
        queryFn: () => fetchCard(number, ['teardown']),
    });
    if (!card.data) return <Pending of={[card]} what="the labels" />;
    const { coreTag, teardown, variant } = card.data;
    const parts = teardown?.reclaimed ?? [];
    return (
        <div>
            {parts.length === 0 && <p>Nothing of {coreTag} went to the shelf.</p>}
            {parts.map((p) => (
                <div
                    key={p.lot}
                    className="mb-3 w-[80mm] break-inside-avoid border-2 border-black bg-white p-3 text-black"
                >
                    <p className="truncate font-head text-2xl">{p.name}</p>
                    <p className="num">
                        {p.part} · out of core <strong>{coreTag}</strong> {variant?.code}
                    </p>
                    <Barcode text={p.lot} />
                </div>
            ))}
            {parts.length > 0 && (
                <button type="button" className="btn btn-main no-print" onClick={() => print()}>
                    Print the labels
                </button>
            )}
        </div>
    );
}
