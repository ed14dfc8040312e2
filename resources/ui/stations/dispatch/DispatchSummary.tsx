import { Panel } from '../../kit/basics';
import { moment } from '../../kit/format';
import type { SectionProps } from '../../card/section';

/** Where it went. */
export function DispatchSummary({ section }: SectionProps<'dispatch'>) {
    const shipped = section.shipped;
    if (!shipped) return null;
    return (
        <Panel title="Shipped" aside={`${shipped.by}, ${moment(shipped.at)}`}>
            <p className="text-lg">
                to <strong>{shipped.customer}</strong>, warranty until {shipped.warrantyUntil} or {shipped.warrantyKm}{' '}
                km
            </p>
            <p>
                {section.commissioning
                    ? `Fitted ${section.commissioning.installedOn} by ${section.commissioning.installer}`
                    : 'Commissioning not on file yet.'}
            </p>
        </Panel>
    );
}
