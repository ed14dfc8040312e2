import { Panel } from '../../kit/basics';
import { formatMoney, moment } from '../../kit/format';
import type { SectionProps } from '../../card/section';

/** What came in, as its owner tells it, and what it is worth. */
export function ReceivingSummary({ card, section }: SectionProps<'receiving'>) {
    return (
        <Panel title="Received" aside={`${section.receivedBy}, ${moment(section.receivedAt)}`}>
            <p className="text-lg">“{section.complaint || 'no complaint given'}”</p>
            <p>
                {card.vehicle}
                {section.vin && (
                    <>
                        {' '}
                        · VIN <span className="num">{section.vin}</span>
                    </>
                )}
                {section.odometer && ` · ${section.odometer}`}
            </p>
            {section.codes.length > 0 && <p>Codes {section.codes.join(', ')}</p>}
            <ul className="mt-1 text-sm">
                {section.clues
                    .filter((c) => c.means)
                    .map((c) => (
                        <li key={c.id}>
                            {c.name}: <strong>{c.value}</strong> – {c.means}
                        </li>
                    ))}
            </ul>
            <p className="mt-2">
                <strong className="font-head text-2xl">Grade {card.grade}</strong>, credit{' '}
                <strong className="num">{formatMoney(card.credit)}</strong>
            </p>
        </Panel>
    );
}
