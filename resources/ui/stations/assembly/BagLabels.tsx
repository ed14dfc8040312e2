import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { fetchCard } from '../../api/client';
import { moment } from '../../kit/format';
import { Pending } from '../../kit/Fetched';
import { PrintedLabels } from '../../kit/PrintedLabels';

/** A label for the bag of each sub-assembly: what it is, for which unit, who closed it and when. */
export function BagLabels() {
    const { number = '' } = useParams();
    const card = useQuery({ queryKey: ['card', number, 'bags'], queryFn: () => fetchCard(number, ['assembly']) });
    if (!card.data) return <Pending of={[card]} what="the labels" />;
    const { coreTag, assembly, variant } = card.data;
    const labels = (assembly?.subs ?? [])
        .filter((s) => s.by !== null)
        .map((s) => ({
            key: s.name,
            title: s.name,
            code: coreTag,
            lines: (
                <>
                    <p className="num">
                        for <strong>{assembly?.serial}</strong> {variant?.code}
                    </p>
                    <p className="text-sm">
                        closed by {s.by}, {s.at !== null && moment(s.at)}
                    </p>
                </>
            ),
        }));
    return <PrintedLabels labels={labels} none={`No sub-assembly of ${coreTag} is signed for yet.`} />;
}
