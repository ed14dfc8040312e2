import { Suspense } from 'react';
import { Barcode } from '../kit/Barcode';
import type { CardProps } from './section';
import { placeName, STATIONS_IN_ORDER } from './stations';

/** The whole route card at a glance, each station in its own words; it prints as the paper traveller. */
export function Overview(props: CardProps) {
    const { card } = props;
    return (
        <div className="grid gap-3 lg:grid-cols-2">
            <Suspense>{STATIONS_IN_ORDER.map((s) => s.Summary && <s.Summary key={s.id} {...props} />)}</Suspense>
            <div className="hidden print:block">
                <Barcode text={card.serial ?? card.coreTag} />
                <p>{placeName(card.station)}</p>
            </div>
        </div>
    );
}
