import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { fetchCard } from '../../api/client';
import { Barcode } from '../../kit/Barcode';
import { Pending } from '../../kit/Fetched';
import { SheetBody } from './SheetBody';

export function Sheet() {
    const { number = '' } = useParams();
    const card = useQuery({ queryKey: ['card', number, 'sheet'], queryFn: () => fetchCard(number, ['dispatch']) });
    if (!card.data) return <Pending of={[card]} what="the delivery sheet" />;
    if (!card.data.dispatch) return <p className="sheet p-4">This unit is not ready for papers yet.</p>;
    const sheet = card.data.dispatch.sheet;
    return (
        <div className="sheet mx-auto max-w-3xl p-6">
            <header className="mb-3 flex items-start justify-between gap-4">
                <div>
                    <p className="font-head text-2xl">Vast Yard</p>
                    <p>Delivery sheet</p>
                </div>
                <Barcode text={sheet.serial} height={10} />
            </header>
            <SheetBody sheet={sheet} />
            <button type="button" className="btn btn-main no-print mt-4" onClick={() => print()}>
                Print the sheet
            </button>
        </div>
    );
}
