import { useEffect, useState, type ReactNode } from 'react';
import type { Card, Problem } from '../api/client';
import { Mark } from '../kit/basics';
import { Actions } from './Actions';
import { AllSteps } from './AllSteps';
import { Drawing, type PartState } from './Drawing';
import { InHand } from './InHand';
import { PortMap } from './PortMap';
import { Strip } from './Strip';
import { WaitingNote } from './WaitingNote';
import { isResting } from './resting';
import {
    dueAt,
    isWanted,
    PROOF_FORM,
    type BenchName,
    type Material,
    type Operation,
    type Send,
    type Work,
} from './types';
import { useBench } from './useBench';

/** The operation somebody turned to; one that is done is only shown when it was looked for. */
type Chosen = { code: string; look: boolean };

type Props = {
    bench: BenchName;
    card: Card;
    onCard: (card: Card) => void;
    material: Material;
    editable: boolean;
    me: string | null;
    badge: string | null;
    /** What stands above the work: what the customer said of it. */
    lead?: ReactNode;
    /** What is done once nothing is left in hand. */
    finish?: ReactNode;
};

/** Keys that mean "right, next" beside Enter: what foot pedals and page turners send. */
const PEDAL = new Set(['PageDown']);

type ShownProps = Pick<Props, 'bench' | 'card' | 'material' | 'editable' | 'finish'> & {
    work: Work;
    operation: Operation | null;
    next: Operation | null;
    busy: boolean;
    problem: Problem | null;
    /** Takes the proof. */
    children: (operation: string, proof: string, ...sent: Parameters<Send>) => Promise<boolean>;
};

type PictureProps = Pick<ShownProps, 'bench' | 'work' | 'operation' | 'next'>;

/** Proofs with a form of several fields: the picture leaves them room. */
const TALL = new Set(['condition', 'values']);

const dueOf = (o: Operation | null) => o?.proofs[dueAt(o)];

/** The drawing; beside it, where air is blown, the face with the port that fills what is checked. */
function Picture({ bench, work, operation, next }: PictureProps) {
    const due = dueOf(operation);
    const blown = due?.kind === 'air' ? due.of : null;
    const lit = operation && blown ? { ...operation, parts: [blown] } : operation;
    const height = due !== undefined && TALL.has(due.kind) ? 'h-52' : 'h-72';
    return (
        <div className={`flex shrink-0 border-b border-rule bg-sheet ${height}`}>
            <Drawing
                family={work.family}
                states={statesOf(bench, work, lit, next)}
                follow={operation?.parts ?? []}
                className="min-w-0 flex-1"
            />
            {blown && <PortMap key={blown} family={work.family} element={blown} className="w-[36%]" />}
        </div>
    );
}

/** The picture with the part in hand lit, and the operation in hand below it. */
function Shown({ work, operation, next, children, finish, ...props }: ShownProps) {
    return (
        <>
            <Picture bench={props.bench} {...{ work, operation, next }} />
            {operation ? (
                <InHand key={operation.code} {...props} operation={operation} prove={children} />
            ) : (
                <div className="p-4">
                    <p className="mb-3 font-head text-3xl">
                        <Mark kind="good">Everything on this bench is done.</Mark>
                    </p>
                    {finish}
                </div>
            )}
        </>
    );
}

const NO_WORK: Work = { family: '', operations: [], hoursLeft: 0, longestPath: [], handover: [] };

function usePedal() {
    useEffect(() => {
        const press = (e: KeyboardEvent) => {
            const form = document.getElementById(PROOF_FORM);
            if (!PEDAL.has(e.key) || !(form instanceof HTMLFormElement)) return;
            e.preventDefault();
            form.requestSubmit();
        };
        addEventListener('keydown', press);
        return () => removeEventListener('keydown', press);
    }, []);
}

/** One operation at a time: its picture, its deciding number, and what comes next. */
export function Bench({ bench, card: seen, onCard, material, editable, me, badge, lead, finish }: Props) {
    const [chosen, setChosen] = useState<Chosen | null>(null);
    const [all, setAll] = useState(false);
    const hands = useBench({ bench, card: seen, badge, onCard });
    const { busy, problem, prove, shown: card } = hands;
    const work = card[bench]?.work ?? NO_WORK;
    const operation = inHand(work, chosen);
    const at = operation?.code ?? null;
    const next = operation && nextAfter(work, operation.code);
    usePedal();
    const look = (code: string) => setChosen({ code, look: true });
    const pick = (code: string) => {
        look(code);
        setAll(false);
    };
    /** After a proof the hand stays at its operation until that is done. */
    const stay = (code: string) => (ok: boolean) => {
        if (ok) setChosen({ code, look: false });
        return ok;
    };
    return (
        <div className="sheet -mt-2 flex min-h-[calc(100vh-7.6rem)] flex-col">
            <WaitingNote waiting={hands.waiting} elsewhere={hands.elsewhere} onDrop={hands.drop} />
            {lead}
            <Handover work={work} me={me} onChoose={look} />
            <Strip work={work} at={at} onChoose={look} />
            {all ? (
                <AllSteps {...{ bench, work, at }} number={card.coreTag} onChoose={pick} />
            ) : (
                <Shown {...{ bench, card, work, material, operation, next, editable, busy, problem, finish }}>
                    {(...sent) => prove(...sent).then(stay(sent[0]))}
                </Shown>
            )}
            <Actions
                {...{ operation, next, editable, busy, all }}
                onAll={() => setAll(!all)}
                {...movesOf(operation, hands, () => setChosen(null))}
            />
        </div>
    );
}

type Moved = Parameters<ReturnType<typeof useBench>['move']> extends [string, ...infer Rest] ? Rest : never;

/** What can be done with the operation in hand besides proving it. */
function movesOf(operation: Operation | null, hands: ReturnType<typeof useBench>, done: () => void) {
    const on =
        <A extends unknown[]>(act: (o: Operation, ...rest: A) => unknown) =>
        (...rest: A) => {
            if (operation) void act(operation, ...rest);
        };
    return {
        onPhoto: on((o, photo: Blob) => hands.picture(o.code, { photo, place: o.name.slice(0, 80) })),
        onSound: on((o, sound: Blob) => hands.speak(o.code, sound)),
        onMove: on((o, ...move: Moved) => hands.move(o.code, ...move).then((ok) => ok && done())),
    };
}

/** The one turned to, else the one begun, else the first that may be done; what only needs its time can wait. */
function inHand(work: Work, chosen: Chosen | null): Operation | null {
    const turnedTo = work.operations.find((o) => o.code === chosen?.code);
    if (turnedTo && turnedTo.state !== 'waits' && (chosen?.look || turnedTo.state === 'open')) return turnedTo;
    const open = work.operations.filter((o) => o.state === 'open' && isWanted(o, work));
    return (
        open.find((o) => o.activity === 'running' && !isResting(o)) ??
        open.find((o) => !isResting(o)) ??
        open[0] ??
        null
    );
}

function nextAfter(work: Work, code: string): Operation | null {
    const at = work.operations.findIndex((o) => o.code === code);
    const later = [...work.operations.slice(at + 1), ...work.operations.slice(0, at)];
    return (
        later.find(
            (o) =>
                (o.state === 'open' && isWanted(o, work)) ||
                (o.state === 'waits' && o.waitsFor.length === 1 && o.waitsFor[0] === code),
        ) ?? null
    );
}

const takenOff = (work: Work) => work.operations.filter((o) => o.state === 'done').flatMap((o) => o.removes);

/** What no operation has put in so far. */
const notThereYet = (work: Work) => work.operations.filter((o) => o.state !== 'done').flatMap((o) => o.installs ?? []);

const each = (parts: string[] | undefined, state: PartState) =>
    Object.fromEntries((parts ?? []).map((p): [string, PartState] => [p, state]));

function statesOf(
    bench: BenchName,
    work: Work,
    operation: Operation | null,
    next: Operation | null,
): Record<string, PartState> {
    return {
        ...each(bench === 'assembly' ? notThereYet(work) : [], 'absent'),
        ...each(next?.parts, 'next'),
        ...each(bench === 'teardown' ? takenOff(work) : [], 'off'),
        ...each(operation?.parts, 'hand'),
    };
}

/** What somebody else left half done here. */
function Handover({ work, me, onChoose }: { work: Work; me: string | null; onChoose: (code: string) => void }) {
    const left = work.handover.filter((h) => h.by !== me);
    if (left.length === 0) return null;
    return (
        <ul className="border-l-4 border-warn bg-sheet px-3 py-1" aria-label="Left half done">
            {left.map((h) => (
                <li key={h.operation} className="flex flex-wrap items-center gap-x-3">
                    <Mark kind="warn">
                        {h.by} left "{h.name}" {h.activity === 'paused' ? 'set down' : 'begun'}:{' '}
                        {`${h.proven} of ${h.of} proven`}
                    </Mark>
                    <span className="text-sm">{h.note || h.open[0]}</span>
                    <button
                        type="button"
                        className="min-h-11 px-2 font-semibold underline"
                        onClick={() => onChoose(h.operation)}
                    >
                        Take it on
                    </button>
                </li>
            ))}
        </ul>
    );
}
