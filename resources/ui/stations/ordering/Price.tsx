import { Link } from 'react-router';
import type { Card, Schemas } from '../../api/client';
import { Mark, Panel, ProblemNote } from '../../kit/basics';
import { formatMoney } from '../../kit/format';
import { saveJson } from './saveJson';
import type { Ordering } from './useOrder';

type Props = { order: Ordering; spec: Schemas['Spec']; card: Card; packages: number };

/** What it costs, what the customer must be told, and the way to the released build. */
export function Price({ order, spec, card, packages }: Props) {
    const { problem, duty } = order;
    const keep = async () => {
        const data = await order.calculation();
        if (data) saveJson(`${card.coreTag}-package.resolve.json`, data);
    };
    return (
        <Panel title="Price and hours">
            <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
                <Weakest margins={spec.margins} />
                <div>
                    <Sum spec={spec} />
                    {spec.status === 'ok' ? (
                        <p className="num">
                            {spec.hours} h · parts {formatMoney(spec.partsCost)} · {spec.fluid.litres} L{' '}
                            {spec.fluid.name}
                        </p>
                    ) : (
                        <p>No price until the order holds together.</p>
                    )}
                </div>
                <span className="flex-1" />
                <PriceButtons {...{ order, spec, card, packages }} />
            </div>
            <SearchEnded spec={spec} />
            <Told order={order} spec={spec} />
            <ProblemNote
                problem={problem}
                except={['/customer', '/vehicle', ...Object.keys(duty).map((k) => `/duty/${k}`)]}
            />
            <button type="button" className="mt-1 min-h-9 text-sm text-faint underline" onClick={() => void keep()}>
                Save this calculation as a file
            </button>
        </Panel>
    );
}

function Sum({ spec }: { spec: Schemas['Spec'] }) {
    return <p className="font-head text-5xl num">{spec.status === 'ok' ? formatMoney(spec.price) : '–'}</p>;
}

/** Said when not every choice of options could be tried. */
export function SearchEnded({ spec }: { spec: Pick<Schemas['Spec'], 'optimal' | 'bound'> }) {
    if (spec.optimal !== false) return null;
    return (
        <p className="mt-2">
            <Mark kind="warn">Not every choice was tried</Mark>{' '}
            {spec.bound
                ? `This is the best one found. With its hours, none can cost less than ${formatMoney(spec.bound.cost)}.`
                : 'A smaller set of wishes may already be what cannot hold together.'}
        </p>
    );
}

function PriceButtons({ order, spec, card, packages }: Props) {
    const { draft, busy, save, release } = order;
    return (
        <div className="flex flex-wrap gap-2">
            <button type="button" className="btn" disabled={busy} onClick={() => void save()}>
                Save the draft
            </button>
            {draft && (
                <Link className="btn" to={`/units/${card.coreTag}/ordering/quote`}>
                    Quote
                </Link>
            )}
            {draft && packages > 1 && (
                <Link className="btn" to={`/units/${card.coreTag}/ordering/compare`}>
                    Compare on paper
                </Link>
            )}
            <button
                type="button"
                className="btn btn-main"
                disabled={busy || spec.status !== 'ok'}
                onClick={() => void release()}
            >
                Release the build
            </button>
        </div>
    );
}

/** The margin that decides whether the order holds. */
function Weakest({ margins }: { margins?: Schemas['Margins'] | null }) {
    if (!margins?.weakest) return null;
    return (
        <div>
            <p className="font-head text-5xl num">{margins.weakest.margin.toFixed(2)}</p>
            <Mark kind={margins.holds ? 'good' : 'bad'}>{margins.holds ? 'holds' : 'does not hold'}</Mark>
        </div>
    );
}

/** Behaviour the customer does not expect is told before the build is released. */
function Told({ order: { told, toggleTold }, spec }: { order: Ordering; spec: Schemas['Spec'] }) {
    const surprises = spec.options.filter((o) => o.surprise);
    if (surprises.length === 0) return null;
    return (
        <fieldset className="mt-2">
            <legend className="text-sm font-semibold text-faint">Told to the customer</legend>
            {surprises.map((o) => (
                <label key={o.code} className="flex min-h-11 items-center gap-2">
                    <input
                        type="checkbox"
                        className="size-5 accent-[var(--hand)]"
                        checked={told.includes(o.code)}
                        onChange={() => toggleTold(o.code)}
                    />
                    {o.surprise}
                </label>
            ))}
        </fieldset>
    );
}
