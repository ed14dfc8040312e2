import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, fieldProblem, type Schemas } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { Choice, Field, Mark, Panel, ProblemNote } from '../../kit/basics';
import { Fetched } from '../../kit/Fetched';
import { More } from '../../kit/More';

type Known = Schemas['Picks'];
type Line = Known['lines'][number];
type Props = { number: string; can: boolean };

const key = (number: string) => ['picks', number];

function useKnown(number: string) {
    const client = useQueryClient();
    return (picks: Known) => client.setQueryData(key(number), picks);
}

/** What the order asks from the shelf: each line from the lot that is scanned, so that the build knows it. */
export function PickList({ number, can }: Props) {
    const picks = useQuery({
        queryKey: key(number),
        queryFn: () => answer(api.GET('/units/{number}/assembly/picks', { params: { path: { number } } })),
    });
    return (
        <Panel title="Parts of the order">
            <Fetched query={picks} what="the parts of the order">
                {(known) => (
                    <>
                        <Standing lines={known.lines} />
                        <ul className="divide-y divide-rule">
                            {known.lines.map((l) => (
                                <OneLine key={l.part} line={l} {...{ number, can }} />
                            ))}
                        </ul>
                        {known.kits.length > 0 && (
                            <More title={`${known.kits.length} kits hold some of it`}>
                                {known.kits.map((k) => (
                                    <p key={k.kit} className="border-b border-rule py-1 text-sm">
                                        <strong>{k.name}</strong> <span className="num">{k.kit}</span>:{' '}
                                        {k.holds.join(', ')}. It leaves out {k.omits.join(', ') || 'nothing'}.
                                        {k.tooMuch.length > 0 && ` Not asked for: ${k.tooMuch.join(', ')}.`}
                                    </p>
                                ))}
                            </More>
                        )}
                    </>
                )}
            </Fetched>
        </Panel>
    );
}

function Standing({ lines }: { lines: Line[] }) {
    const open = lines.filter((l) => l.left > 0);
    const gone = open.filter((l) => l.lots.length === 0 && l.instead.length === 0);
    if (open.length === 0) return <Mark kind="good">everything is picked</Mark>;
    return (
        <p className="flex flex-wrap gap-4">
            <Mark kind="next">
                {open.length} of {lines.length} lines to pick
            </Mark>
            {gone.length > 0 && <Mark kind="bad">{gone.length} not on the shelf, to be bought</Mark>}
        </p>
    );
}

const where = (lots: Line['lots']) =>
    lots
        .slice(0, 2)
        .map((l) => `${l.lot} (${l.pieces}${l.place && `, ${l.place}`})`)
        .join(', ');

/** What was taken, and where more lies. */
function told(l: Line): string {
    const taken = l.picked.map((p) => `${p.count} from ${p.lot}${p.part === l.part ? '' : ` as ${p.part}`}`);
    const more = l.lots.length > 0 ? `On the shelf: ${where(l.lots)}` : 'None on the shelf.';
    const other = l.instead.map((i) => `or ${i.part}: ${where(i.lots)}`);
    const stops = l.neededAt.length > 0 ? [`It is needed at: ${l.neededAt.join(', ')}`] : [];
    return [...taken, ...(l.left > 0 ? [more, ...other, ...stops] : [])].join(' · ');
}

function OneLine({ line: l, number, can }: { line: Line } & Props) {
    const [open, setOpen] = useState(false);
    return (
        <li className="py-1">
            <div className="flex flex-wrap items-center gap-x-3">
                <span className="flex-1">
                    <strong>
                        {l.count} × {l.name}
                    </strong>{' '}
                    <span className="num text-sm text-faint">{l.part}</span>
                    <span className="block text-sm">{told(l)}</span>
                </span>
                {l.left === 0 && <Mark kind="good">picked</Mark>}
                {can && l.left > 0 && (
                    <button
                        type="button"
                        className="btn"
                        aria-expanded={open}
                        aria-label={`Pick ${l.name}`}
                        onClick={() => setOpen(!open)}
                    >
                        pick
                    </button>
                )}
                {can && l.picked.length > 0 && <PutBack line={l} number={number} />}
            </div>
            {open && l.left > 0 && <Take line={l} number={number} onPicked={() => setOpen(false)} />}
        </li>
    );
}

function PutBack({ line: l, number }: { line: Line; number: string }) {
    const known = useKnown(number);
    const { busy, problem, write } = useWrite();
    const back = () =>
        write(
            () => api.DELETE('/units/{number}/assembly/picks/{part}', { params: { path: { number, part: l.part } } }),
            known,
        );
    return (
        <>
            <button
                type="button"
                className="btn"
                disabled={busy}
                aria-label={`Put back ${l.name}`}
                onClick={() => void back()}
            >
                put back
            </button>
            <ProblemNote problem={problem} />
        </>
    );
}

type TakeProps = { line: Line; number: string; onPicked: () => void };

/** From the shelf; or, where it has none, from outside for this unit alone. */
function Take(props: TakeProps) {
    const none = props.line.lots.length === 0 && props.line.instead.length === 0;
    const [outside, setOutside] = useState(none);
    return (
        <>
            {outside ? <Buy {...props} /> : <Pick {...props} />}
            <button type="button" className="btn" onClick={() => setOutside(!outside)}>
                {outside ? 'It comes from the shelf' : 'It is bought or borrowed for this unit'}
            </button>
        </>
    );
}

const HOW = ['bought', 'borrowed'] as const;
type How = (typeof HOW)[number];

function useBuy({ line: l, number, onPicked }: TakeProps) {
    const known = useKnown(number);
    const [from, setFrom] = useState('');
    const [lot, setLot] = useState('');
    const [paid, setPaid] = useState('');
    const { busy, problem, write } = useWrite();
    const buy = (how: How | null) =>
        void write(
            () =>
                api.POST('/units/{number}/assembly/picks/{part}/bought', {
                    params: { path: { number, part: l.part } },
                    // Nothing chosen is sent as nothing: the answer says what is missing.
                    body: { how: how ?? ('' as How), from, lot: lot.trim(), paid },
                }),
            (picks: Known) => {
                known(picks);
                onPicked();
            },
        );
    return { from, setFrom, lot, setLot, paid, setPaid, busy, problem, buy };
}

function Buy(props: TakeProps) {
    const f = useBuy(props);
    const [how, setHow] = useState<How | null>(null);
    const at = (field: string) => fieldProblem(f.problem, `/${field}`);
    return (
        <form
            noValidate
            className="my-1 flex flex-wrap items-end gap-3 border-l-4 border-hand pl-3"
            onSubmit={(e) => {
                e.preventDefault();
                f.buy(how);
            }}
        >
            <Choice label="How" values={HOW} value={how} onChange={(v) => setHow(HOW.find((h) => h === v) ?? null)} />
            <Field label="From whom" value={f.from} onChange={f.setFrom} problem={at('from')} />
            <Field label="Number of its lot" value={f.lot} onChange={f.setLot} problem={at('lot')} />
            {how === 'bought' && (
                <Field label="Paid for all" value={f.paid} onChange={f.setPaid} problem={at('paid')} />
            )}
            <button type="submit" className="btn btn-main" disabled={f.busy}>
                Take {props.line.left}
            </button>
            <ProblemNote problem={f.problem} except={['/from', '/lot', '/paid']} />
        </form>
    );
}

/** Scans the lot; where it stands for another part, that is said once more on purpose. */
function usePick(l: Line, number: string, onPicked: () => void) {
    const known = useKnown(number);
    const [lot, setLot] = useState('');
    const { busy, problem, write } = useWrite();
    const other = l.instead.find((i) => i.lots.some((s) => s.lot === lot.trim().toUpperCase()));
    const pick = (instead: string | null) =>
        void write(
            () =>
                api.POST('/units/{number}/assembly/picks', {
                    params: { path: { number } },
                    body: { part: l.part, lot: lot.trim(), instead },
                }),
            (picks: Known) => {
                known(picks);
                onPicked();
            },
        );
    return { lot, setLot, busy, problem, other, pick };
}

function Pick({ line: l, number, onPicked }: { line: Line; number: string; onPicked: () => void }) {
    const { lot, setLot, busy, problem, other, pick } = usePick(l, number, onPicked);
    const meant = fieldProblem(problem, '/instead');
    return (
        <form
            className="my-1 flex flex-wrap items-end gap-3 border-l-4 border-hand pl-3"
            onSubmit={(e) => {
                e.preventDefault();
                pick(null);
            }}
        >
            <Field
                label="Scan the lot"
                value={lot}
                onChange={setLot}
                autoFocus
                problem={fieldProblem(problem, '/lot') ?? meant}
            />
            <button type="submit" className="btn btn-main" disabled={busy}>
                Take {l.left}
            </button>
            {meant && other && (
                <button type="button" className="btn" disabled={busy} onClick={() => pick(other.part)}>
                    It is meant so: {other.part}
                </button>
            )}
            <ProblemNote problem={problem} except={['/lot', '/instead']} />
        </form>
    );
}
