import { Panel } from '../../kit/basics';
import { formatValue } from '../../kit/format';
import { GaugeBar } from '../../kit/GaugeBar';
import type { SectionProps } from '../../card/section';

/** The numbers it was built to. */
export function AssemblySummary({ section }: SectionProps<'assembly'>) {
    const signed = section.signOffs.at(-1);
    const read = section.places.flatMap((p) => {
        const last = p.readings.at(-1);
        return last ? [{ place: p, last }] : [];
    });
    if (read.length === 0) return null;
    const air = read.filter(({ place }) => place.kind === 'air-check');
    return (
        <Panel title="Measured" aside={signed ? `signed by ${signed.by}` : 'not signed'}>
            <ul className="grid gap-2 sm:grid-cols-2">
                {read
                    .filter(({ place }) => place.kind !== 'air-check')
                    .map(({ place: p, last }) => (
                        <li key={p.kind + p.code}>
                            <span className="block text-sm text-faint">{p.name}</span>
                            <span className="font-head text-3xl num">
                                {formatValue(last.value, last.unit)} {last.unit}
                            </span>
                            <GaugeBar
                                label={p.name}
                                unit={p.unit}
                                min={p.window.min}
                                max={p.window.max}
                                target={p.target}
                                reading={last.value}
                            />
                        </li>
                    ))}
            </ul>
            <p className="text-sm">
                Air checks: {air.map(({ place, last }) => `${place.code} ${last.typed}`).join(', ') || 'none yet'}
            </p>
        </Panel>
    );
}
