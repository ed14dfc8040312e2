import { useState } from 'react';
import { api } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { Mark, Panel, ProblemNote, Select } from '../../kit/basics';

type Kind = 'wave' | 'steel' | 'friction' | 'end' | 'ring';
type Dealt = {
    round: string;
    name: string;
    parts: { name: string; count: number }[];
    stack: Kind[];
    choices: string[];
};
type Verdict = { right: boolean; was: string; sentence: string };

const SAID: Record<string, string> = {
    right: 'Nothing',
    'friction-missing': 'A friction plate is missing',
    'steel-missing': 'A steel is missing',
    swapped: 'A steel and a friction are swapped',
    'wave-missing': 'The wave plate is missing',
    'wave-wrong-end': 'The wave plate lies at the wrong end',
    'end-inside': 'The end plate lies against the piston',
};

function usePack(code: string) {
    const [dealt, setDealt] = useState<Dealt | null>(null);
    const [verdict, setVerdict] = useState<Verdict | null>(null);
    const { busy, problem, write } = useWrite();
    const deal = () =>
        void write(
            () => api.POST('/pack-trainer', { body: { family: code } }),
            (pack: Dealt) => {
                setVerdict(null);
                setDealt(pack);
            },
        );
    const say = (choice: string) =>
        void write(
            () => api.POST('/pack-trainer/verdict', { body: { round: dealt?.round ?? '', choice } }),
            setVerdict,
        );
    return { dealt, verdict, busy, problem, deal, say };
}

/** A pack laid out as somebody stacked it: see what is wrong before it goes in. */
export function PackTrainer({ code }: { code: string }) {
    const { dealt, verdict, busy, problem, deal, say } = usePack(code);
    return (
        <Panel title="Look at the pack" aside="counted, in order, the right way round, or not">
            {dealt && (
                <div className="grid items-start gap-4 sm:grid-cols-2">
                    <Stack of={dealt.stack} />
                    <div aria-live="polite">
                        <p className="font-head text-2xl">{dealt.name}</p>
                        <ul>
                            {dealt.parts.map((p) => (
                                <li key={p.name}>
                                    {p.count} × {p.name}
                                </li>
                            ))}
                        </ul>
                        {verdict ? (
                            <Said verdict={verdict} />
                        ) : (
                            <Asked key={dealt.round} choices={dealt.choices} busy={busy} onSay={say} />
                        )}
                    </div>
                </div>
            )}
            <ProblemNote problem={problem} />
            <button type="button" className="btn mt-2" disabled={busy} onClick={deal}>
                {dealt ? 'Lay out another' : 'Lay one out'}
            </button>
        </Panel>
    );
}

type AskedProps = { choices: string[]; busy: boolean; onSay: (choice: string) => void };

function Asked({ choices, busy, onSay }: AskedProps) {
    const [choice, setChoice] = useState('');
    return (
        <div className="mt-2 flex flex-wrap items-end gap-3">
            <Select
                label="What is wrong with it?"
                value={choice}
                empty="look first"
                onChange={setChoice}
                options={choices.map((value) => ({ value, text: SAID[value] ?? value }))}
            />
            <button
                type="button"
                className="btn btn-main"
                disabled={busy || choice === ''}
                onClick={() => onSay(choice)}
            >
                Say so
            </button>
        </div>
    );
}

const Said = ({ verdict }: { verdict: Verdict }) => (
    <div className="mt-2">
        <p className="font-head text-2xl">
            {verdict.right ? <Mark kind="good">Right</Mark> : <Mark kind="bad">No</Mark>}
        </p>
        <p>{verdict.sentence}</p>
    </div>
);

const LOOK: Record<Kind, { height: number; x: number; width: number; fill: string }> = {
    wave: { height: 14, x: 40, width: 200, fill: 'none' },
    steel: { height: 10, x: 30, width: 220, fill: 'var(--frame)' },
    friction: { height: 12, x: 50, width: 200, fill: 'var(--warn)' },
    end: { height: 22, x: 30, width: 220, fill: 'var(--edge)' },
    ring: { height: 9, x: 22, width: 236, fill: 'var(--ink)' },
};
const WORD: Record<Kind, string> = {
    wave: 'wave',
    steel: 'steel',
    friction: 'friction',
    end: 'end plate',
    ring: 'ring',
};
const GAP = 4;

const heightOf = (stack: Kind[]) => stack.reduce((sum, kind) => sum + LOOK[kind].height + GAP, 0);

/** From the piston at the bottom up; the wave plate is a line, a friction is toothed inside, a steel outside. */
function Stack({ of }: { of: Kind[] }) {
    const height = heightOf(of) + 30;
    const placed = of.map((kind, n) => ({ kind, y: height - 14 - heightOf(of.slice(0, n + 1)) }));
    return (
        <svg
            viewBox={`0 0 340 ${height}`}
            className="w-full max-w-sm text-ink"
            role="img"
            aria-label={`From the piston outwards: ${of.map((kind) => WORD[kind]).join(', ')}`}
        >
            {placed.map(({ kind, y }, n) => (
                <Plate key={n} kind={kind} y={y} />
            ))}
            <rect x={20} y={height - 12} width={240} height={8} fill="var(--edge)" />
            <text x={268} y={height - 4} fontSize={12} fill="currentColor">
                piston
            </text>
        </svg>
    );
}

function Plate({ kind, y }: { kind: Kind; y: number }) {
    const { height, x, width, fill } = LOOK[kind];
    const mid = y + height / 2;
    const wave = Array.from({ length: 10 }, (_, n) => `q 5 ${n % 2 === 0 ? -9 : 9} 20 0`).join(' ');
    return (
        <g>
            {kind === 'wave' ? (
                <path d={`M ${x} ${mid} ${wave}`} fill="none" stroke="var(--edge)" strokeWidth={4} />
            ) : (
                <rect x={x} y={y} width={width} height={height} fill={fill} />
            )}
            <text x={268} y={mid + 4} fontSize={12} fill="currentColor">
                {WORD[kind]}
            </text>
        </g>
    );
}
