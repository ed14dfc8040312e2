import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { fetchCard } from '../../api/client';
import { Pending } from '../../kit/Fetched';
import { PrintedLabels } from '../../kit/PrintedLabels';

/** A label for each reclaimed part: what it is, which core it came out of, its lot to scan. */
export function PartLabels() {
    const { number = '' } = useParams();
    const card = useQuery({
        queryKey: ['card', number, 'part-labels'],
        queryFn: () => fetchCard(number, ['teardown']),
    });
    if (!card.data) return <Pending of={[card]} what="the labels" />;
    const { coreTag, teardown, variant } = card.data;
    const labels = (teardown?.reclaimed ?? []).map((p) => ({
        key: p.lot,
        title: p.name,
        code: p.lot,
        lines: (
            <p className="num">
                {p.part} · out of core <strong>{coreTag}</strong> {variant?.code}
            </p>
        ),
    }));
    return <PrintedLabels labels={labels} none={`Nothing of ${coreTag} went to the shelf.`} />;
}
