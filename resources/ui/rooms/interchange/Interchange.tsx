import { useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import { answer, api, isProblem, type Schemas } from '../../api/client';
import { placeName } from '../../card/stations';
import { formatMoney } from '../../kit/format';
import { Choice, Field, HeadRow, Loading, Mark, Panel, ProblemNote, Source } from '../../kit/basics';
import { More } from '../../kit/More';

type Way = Schemas['ConversionWay'];
const DESKS = { vehicle: 'What serves a vehicle', core: 'What a core fits', part: 'Where a part is' } as const;
const HINTS = {
    vehicle: 'VIN, or maker, model, engine and year',
    core: 'core tag or unit serial',
    part: 'part number',
} as const;
const PLACES = { shelf: 'on the shelf', build: 'in build', core: 'core in the yard' } as const;

/** The three questions of the interchange desk. The address keeps the question, so that it can be passed on. */
export function Interchange() {
    const [params, setParams] = useSearchParams();
    const desk = (params.get('desk') ?? 'vehicle') as keyof typeof DESKS;
    const q = params.get('q') ?? '';
    const [typed, setTyped] = useState(q);
    return (
        <>
            <h1 className="mb-2 text-3xl">Interchange</h1>
            <Choice
                label="Question"
                value={desk}
                values={Object.keys(DESKS)}
                text={(k) => DESKS[k as keyof typeof DESKS]}
                onChange={(k) => {
                    setParams({ desk: k });
                    setTyped('');
                }}
            />
            <form
                className="my-3 flex max-w-2xl items-end gap-2"
                onSubmit={(e) => {
                    e.preventDefault();
                    setParams({ desk, q: typed.trim() });
                }}
            >
                <Field key={desk} className="flex-1" label={HINTS[desk]} value={typed} onChange={setTyped} autoFocus />
                <button type="submit" className="btn btn-main" disabled={!typed.trim()}>
                    Look it up
                </button>
            </form>
            {q && desk === 'vehicle' && <Vehicles q={q} />}
            {q && desk === 'core' && <CoreDesk number={q} />}
            {q && desk === 'part' && <PartDesk number={q} />}
        </>
    );
}

const nothing = (error: unknown) => (
    <div className="sheet p-4">
        <ProblemNote problem={isProblem(error) ? error : null} />
    </div>
);

/** The unit fits without a single step. */
const isAsItIs = (way: Pick<Way, 'found' | 'steps'>) => way.found && (way.steps ?? []).length === 0;

function Vehicles({ q }: { q: string }) {
    const [params, setParams] = useSearchParams();
    const found = useQuery({
        queryKey: ['vehicles', q],
        queryFn: () => answer(api.GET('/interchange/vehicles', { params: { query: { q } } })),
    });
    if (found.isError) return nothing(found.error);
    if (!found.data) return <Loading what="vehicles" />;
    const { vin, vehicles, year } = found.data;
    const onChoose = (vehicle: string) => setParams({ desk: 'vehicle', q, vehicle });
    const code = params.get('vehicle') ?? onlyOne(vehicles)?.code ?? null;
    return (
        <div className="flex flex-col gap-3">
            {vin && <VinRead vin={vin} />}
            {vehicles.length === 0 && (
                <p className="sheet p-4">
                    No vehicle of the catalog fits this. Check the spelling, or look by maker and year.
                </p>
            )}
            {vehicles.length > 1 && <Candidates vehicles={vehicles} onChoose={onChoose} code={code} />}
            {code && <VehicleDesk code={code} year={year} />}
        </div>
    );
}

const onlyOne = <T,>(list: T[]) => (list.length === 1 ? list[0] : undefined);

function VinRead({ vin }: { vin: { vin: string; valid: boolean; problems: string[]; modelYears: number[] } }) {
    return (
        <p>
            {vin.valid ? (
                <Mark kind="good">VIN reads right</Mark>
            ) : (
                <Mark kind="warn">VIN: {vin.problems.join(', ')}</Mark>
            )}{' '}
            <span className="num">{vin.vin}</span>, model year {vin.modelYears.join(' or ') || 'not readable'}
        </p>
    );
}

function Candidates({
    vehicles,
    onChoose,
    code,
}: {
    vehicles: Schemas['DeskVehicle'][];
    onChoose: (vehicle: string) => void;
    code: string | null;
}) {
    return (
        <Panel title={`${vehicles.length} vehicles fit`} aside="choose one; none is picked for you">
            <div className="flex flex-wrap gap-1.5">
                {vehicles.map((v) => (
                    <button
                        key={v.code}
                        type="button"
                        aria-pressed={v.code === code}
                        className={`btn px-3 ${v.code === code ? 'btn-chosen' : ''}`}
                        onClick={() => onChoose(v.code)}
                    >
                        {v.name}, {v.engine}, {v.years}
                        {v.steering !== 'either' && `, ${v.steering}-hand`}
                    </button>
                ))}
            </div>
        </Panel>
    );
}

function VehicleDesk({ code, year }: { code: string; year: number | null }) {
    const [anyYear, setAnyYear] = useState(false);
    const asked = anyYear ? null : year;
    const desk = useQuery({
        queryKey: ['vehicle-desk', code, asked],
        queryFn: () =>
            answer(
                api.GET('/interchange/vehicles/{code}', {
                    params: { path: { code }, query: asked === null ? {} : { year: asked } },
                }),
            ),
    });
    if (desk.isError) return nothing(desk.error);
    if (!desk.data) return <Loading what="what serves it" />;
    const d = desk.data;
    const free = d.units.filter((u) => !u.promisedTo && !u.held);
    const taken = d.units.filter((u) => u.promisedTo || u.held);
    const conversions = d.ways.filter((w) => !isAsItIs(w));
    return (
        <div className="grid items-start gap-3 lg:grid-cols-[3fr_2fr]">
            <InTheHouse setAnyYear={setAnyYear} d={d} free={free} taken={taken} />
            <div className="flex flex-col gap-3">
                <FitsAsItIs d={d} />
                <Ways conversions={conversions} />
            </div>
        </div>
    );
}

type InTheHouseProps = {
    setAnyYear: (to: boolean) => void;
    d: Schemas['VehicleDesk'];
    free: Schemas['VehicleDesk']['units'];
    taken: Schemas['VehicleDesk']['units'];
};

function InTheHouse({ setAnyYear, d, free, taken }: InTheHouseProps) {
    return (
        <Panel
            title={`${d.vehicle.name}, ${d.vehicle.engine}`}
            aside={
                <>
                    {d.vehicle.drive}, {d.vehicle.years}
                    {d.year !== null && (
                        <>
                            {' '}
                            · year {d.year}{' '}
                            <button type="button" className="min-h-11 px-1 underline" onClick={() => setAnyYear(true)}>
                                any year
                            </button>
                        </>
                    )}
                </>
            }
        >
            {d.units.length === 0 && <p>Nothing in the house serves it. The ways beside this show what would.</p>}
            {free.length > 0 && <Units units={free} big />}
            {free.length === 0 && d.units.length > 0 && (
                <p className="mb-2">
                    <Mark kind="warn">All of them are ordered or on hold.</Mark>
                </p>
            )}
            {taken.length > 0 && (
                <>
                    <h3 className="mt-3 text-lg text-faint">Ordered by others or on hold</h3>
                    <Units units={taken} />
                </>
            )}
            {d.more && (
                <p className="mt-1 text-sm text-faint">
                    More units follow at the dear end; narrow the year to see them.
                </p>
            )}
        </Panel>
    );
}

function FitsAsItIs({ d }: { d: Schemas['VehicleDesk'] }) {
    return (
        <Panel title="Fits as it is">
            <ul>
                {d.fits.map((f) => (
                    <li key={f.variant + f.years} className="border-b border-rule py-1">
                        <strong>{f.variant}</strong> {f.name}, {f.years}
                        <span className="block">
                            <Source source={f.source} confidence={f.confidence} />
                        </span>
                    </li>
                ))}
            </ul>
            {d.fits.length === 0 && <p className="text-faint">The catalog lists no unit for this vehicle and year.</p>}
        </Panel>
    );
}

function Ways({ conversions }: { conversions: Schemas['VehicleDesk']['ways'] }) {
    return (
        <Panel title="Ways to make it fit" aside="parts at price, hours at the house rate">
            <ul className="flex flex-col gap-2">
                {conversions.map((w) => (
                    <li key={w.variant}>
                        <WayText from={w.variant} way={w} />
                    </li>
                ))}
            </ul>
            {conversions.length === 0 && <p className="text-faint">No conversion leads here.</p>}
        </Panel>
    );
}

function Units({ units, big = false }: { units: Schemas['VehicleDesk']['units']; big?: boolean }) {
    return (
        <table className="w-full">
            <HeadRow of={['Unit', 'Variant', 'Where', 'Conversion', 'Cost']} />
            <tbody>
                {units.map((u, i) => (
                    <UnitRow key={u.coreTag} large={big && i === 0} u={u} />
                ))}
            </tbody>
        </table>
    );
}

type DeskUnit = Schemas['VehicleDesk']['units'][number];

const whereabouts = ({ place, grade, rack }: DeskUnit) =>
    [place === 'core' && `grade ${grade}`, rack && `rack ${rack}`].filter(Boolean).join(', ');

function Conversion({ steps, hours }: Pick<DeskUnit, 'steps' | 'hours'>) {
    if (steps === 0) return <Mark kind="good">fits as it is</Mark>;
    return `${steps} ${steps === 1 ? 'step' : 'steps'}, ${hours} h`;
}

function UnitRow({ large, u }: { large: boolean; u: DeskUnit }) {
    return (
        <tr>
            <th scope="row" className="td text-left">
                <Link className={`num underline ${large ? 'font-head text-2xl' : ''}`} to={`/units/${u.coreTag}`}>
                    {u.serial ?? u.coreTag}
                </Link>
                {u.promisedTo && (
                    <span className="block text-sm font-normal">
                        <Mark kind="warn">ordered by {u.promisedTo}</Mark>
                    </span>
                )}
                {u.held && (
                    <span className="block text-sm">
                        <Mark kind="bad">on hold</Mark>
                    </span>
                )}
            </th>
            <td className="td">{u.variant}</td>
            <td className="td">
                {PLACES[u.place]}
                <span className="block text-sm text-faint">{whereabouts(u)}</span>
            </td>
            <td className="td">
                <Conversion steps={u.steps} hours={u.hours} />
            </td>
            <td className={`td num text-right ${large ? 'font-head text-2xl' : ''}`}>{formatMoney(u.total)}</td>
        </tr>
    );
}

/** A chain of conversion steps opened to its working, or what forbids it. */
function WayText({
    from,
    way,
}: {
    from: string;
    way: Pick<Way, 'found' | 'to' | 'steps' | 'total' | 'hours' | 'cost' | 'blockedBy'>;
}) {
    if (!way.found)
        return (
            <p>
                <Mark kind="bad">{from} cannot be made to fit</Mark>{' '}
                {(way.blockedBy ?? []).map((b) => (
                    <span key={b.step + b.fact} className="block text-sm">
                        {b.name}: {b.why}
                    </span>
                ))}
                {(way.blockedBy ?? []).length === 0 && (
                    <span className="text-sm">no chain of conversions leads there.</span>
                )}
            </p>
        );
    return (
        <More
            title={
                <>
                    <strong>{from}</strong> to {way.to}:{' '}
                    <span className="num font-semibold">{formatMoney(way.total ?? 0)}</span>, {way.hours} h
                </>
            }
        >
            {way.steps?.map((s) => (
                <ConversionStep key={s.code} s={s} />
            ))}
        </More>
    );
}

function ConversionStep({ s }: { s: Schemas['ConversionStep'] }) {
    return (
        <div className="mb-2 border-l-4 border-rule pl-3 text-sm">
            <p className="font-semibold">
                {s.name} ({s.from} to {s.to}): parts and fees {formatMoney(s.cost)}, {s.hours} h
            </p>
            <ol className="list-decimal pl-5">
                {s.steps.map((t) => (
                    <li key={t}>{t}</li>
                ))}
            </ol>
            <p>{s.parts.map((p) => `${p.count} × ${p.name} at ${formatMoney(p.price)}`).join('; ')}</p>
            <Source source={s.source} confidence={s.confidence} />
        </div>
    );
}

function CoreDesk({ number }: { number: string }) {
    const desk = useQuery({
        queryKey: ['core-desk', number],
        queryFn: () =>
            answer(api.GET('/interchange/cores/{number}', { params: { path: { number: number.toUpperCase() } } })),
    });
    if (desk.isError) return nothing(desk.error);
    if (!desk.data) return <Loading what="what it fits" />;
    const d = desk.data;
    return (
        <div className="grid items-start gap-3 lg:grid-cols-[3fr_2fr]">
            <Panel title={`${d.coreTag}: ${d.variant.name}`} aside="as it is first, then the cheapest conversion">
                <ul>
                    {d.serves.map((s, i) => (
                        <Served key={i} d={d} s={s} />
                    ))}
                </ul>
            </Panel>
            <SoldFor d={d} />
        </div>
    );
}

function Served({ d, s }: { d: Schemas['CoreDesk']; s: Schemas['CoreDesk']['serves'][number] }) {
    return (
        <li className="border-b border-rule py-1.5">
            <p className="flex flex-wrap items-baseline gap-x-3">
                <strong>
                    {s.vehicle.name}, {s.vehicle.engine}
                </strong>{' '}
                <span>
                    {s.years}, {s.vehicle.drive}
                    {s.vehicle.steering !== 'either' && `, ${s.vehicle.steering}-hand`}
                </span>
                <span className="flex-1" />
                {isAsItIs(s.way) && <Mark kind="good">as it is</Mark>}{' '}
                <Source source={s.source} confidence={s.confidence} />
            </p>
            {!isAsItIs(s.way) && <WayText from={d.variant.code} way={s.way} />}
        </li>
    );
}

function SoldFor({ d }: { d: Schemas['CoreDesk'] }) {
    return (
        <Panel title="What such units sold for" aside="shipped in the last year">
            {d.prices.map((p) => (
                <p key={p.variant} className="border-b border-rule py-1.5">
                    <strong>{p.variant}</strong>{' '}
                    {p.sold === 0 ? (
                        <span className="text-faint">none sold</span>
                    ) : (
                        <>
                            <span className="num font-head text-2xl">{formatMoney(p.median ?? 0)}</span> median of{' '}
                            {p.sold}; last {formatMoney(p.last ?? 0)} on {p.lastOn}
                        </>
                    )}
                </p>
            ))}
        </Panel>
    );
}

type PartLine = { number: string; name: string; price: number; pieces: number };

function Line({ part, children }: { part: PartLine; children?: React.ReactNode }) {
    return (
        <li className="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1">
            <Link
                className="num font-semibold underline"
                to={`/interchange?desk=part&q=${encodeURIComponent(part.number)}`}
            >
                {part.number}
            </Link>{' '}
            {part.name} {children}
            <span className="flex-1" />
            <span className="num">{formatMoney(part.price)}</span>
            {part.pieces > 0 ? (
                <Mark kind="good">{part.pieces} on the shelf</Mark>
            ) : (
                <Mark kind="idle">none on the shelf</Mark>
            )}
        </li>
    );
}

function PartDesk({ number }: { number: string }) {
    const desk = useQuery({
        queryKey: ['part-desk', number],
        queryFn: () => answer(api.GET('/interchange/part', { params: { query: { number } } })),
    });
    if (desk.isError) return nothing(desk.error);
    if (!desk.data) return <Loading what="the part" />;
    const d = desk.data;
    return (
        <div className="grid items-start gap-3 lg:grid-cols-2">
            <PartShelf d={d} />
            <CoresThatYield d={d} />
            {d.sets.map((s) => (
                <KeptTogether key={s.name} s={s} />
            ))}
            <PartList title="Can stand in for it" aside="superseded by, step by step" rows={d.replacedBy}>
                {(p) => (
                    <span className="text-sm text-faint">
                        {p.way.join(' → ')}
                        {d.current.includes(p.way.at(-1) ?? '') && ', the current number'}
                    </span>
                )}
            </PartList>
            <PartList title="Older numbers it replaces" rows={d.replaces}>
                {(p) => <span className="text-sm text-faint">{p.way.join(' → ')}</span>}
            </PartList>
            <PartList title="The same part in another family" aside="often at another price" rows={d.equal}>
                {(p) => (
                    <span className="text-sm">
                        {p.note} <Source source={p.source} confidence={p.confidence} />
                    </span>
                )}
            </PartList>
            <PartList title="Kits that hold it" rows={d.kits}>
                {(p) => <span className="text-sm">{p.count} in the kit</span>}
            </PartList>
            <FitsVariants d={d} />
        </div>
    );
}

function KeptTogether({ s }: { s: Schemas['PartDesk']['sets'][number] }) {
    return (
        <Panel title={`All or nothing: ${s.name}`}>
            <p className="mb-1">
                <Mark kind="warn">Never half of it.</Mark> {s.why}
            </p>
            <ul>
                {s.parts.map((p) => (
                    <Line key={p.number} part={p} />
                ))}
            </ul>
        </Panel>
    );
}

function PartShelf({ d }: { d: Schemas['PartDesk'] }) {
    return (
        <Panel title={`${d.part.number}: ${d.part.name}`} aside={d.part.kind}>
            <p className="flex items-baseline gap-4">
                <span className="font-head text-5xl num">{d.part.pieces}</span> on the shelf <span className="flex-1" />{' '}
                <span className="font-head text-2xl num">{formatMoney(d.part.price)}</span>
            </p>
            {d.part.lots.length > 0 && (
                <p className="text-sm">
                    {d.part.lots.map((l) => `lot ${l.lot}: ${l.quantity} in ${l.place}`).join('; ')}
                </p>
            )}
            {d.part.aliases.length > 0 && <p className="text-sm text-faint">also called {d.part.aliases.join(', ')}</p>}
            {d.cycles.map((c, i) => (
                <p key={i}>
                    <Mark kind="bad">The supersessions contradict themselves</Mark> {c.join(' → ')}
                </p>
            ))}
        </Panel>
    );
}

function CoresThatYield({ d }: { d: Schemas['PartDesk'] }) {
    return (
        <Panel title="Cores that would yield it" aside="found sound first, then parts donors">
            {d.cores.length === 0 && (
                <p className="text-faint">
                    {['hard', 'outside', 'converter'].includes(d.part.kind)
                        ? 'No core in the yard that could give it.'
                        : 'Soft parts are not taken from cores.'}
                </p>
            )}
            <ul>
                {d.cores.map((c) => (
                    <li key={c.coreTag} className="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1">
                        <Link className="num font-semibold underline" to={`/units/${c.coreTag}`}>
                            {c.coreTag}
                        </Link>{' '}
                        {c.variant}, grade {c.grade}, {placeName(c.station)}
                        {c.rack && `, rack ${c.rack}`}{' '}
                        {c.seen ? (
                            <Mark kind="good">{c.seen}</Mark>
                        ) : (
                            <span className="text-sm text-faint">not looked at{c.history && `; ${c.history}`}</span>
                        )}
                    </li>
                ))}
            </ul>
        </Panel>
    );
}

function FitsVariants({ d }: { d: Schemas['PartDesk'] }) {
    return (
        <Panel title="Fits">
            {d.fits.length === 0 && <p className="text-faint">The catalog does not say which variants it fits.</p>}
            <ul>
                {d.fits.map((f) => (
                    <li key={f.variant + f.years} className="border-b border-rule py-1">
                        <strong>{f.variant}</strong> {f.name}, {f.years}, {f.count} a unit{' '}
                        <Source source={f.source} confidence={f.confidence} />
                    </li>
                ))}
            </ul>
        </Panel>
    );
}

/** Parts of one kind of kinship, each with what is said of it; nothing where there are none. */
function PartList<P extends PartLine>({
    title,
    aside,
    rows,
    children,
}: {
    title: string;
    aside?: string;
    rows: P[];
    children: (part: P) => ReactNode;
}) {
    if (rows.length === 0) return null;
    return (
        <Panel title={title} aside={aside}>
            <ul>
                {rows.map((p) => (
                    <Line key={p.number} part={p}>
                        {children(p)}
                    </Line>
                ))}
            </ul>
        </Panel>
    );
}
