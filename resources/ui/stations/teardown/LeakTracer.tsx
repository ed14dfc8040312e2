import { api, type Card } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { Drawing } from '../../bench/Drawing';
import type { SectionProps } from '../../card/section';
import { Choice, Mark, ProblemNote } from '../../kit/basics';
import { More } from '../../kit/More';
import { percent } from '../../kit/format';

type Leak = NonNullable<NonNullable<Card['teardown']>['leak']>;
type Question = Leak['questions'][number];

/** Seals below this share are not worth a line. */
const WORTH = 0.01;

/** What is not answered yet, the look that promises most for its effort first. */
export const inOrder = (leak: Leak): Question[] =>
    [...leak.questions].sort((a, b) => (leak.next[b.feature] ?? -1) - (leak.next[a.feature] ?? -1));

/** Where it drips, when and what: the seals ranked, and the next cheap look. */
export function LeakTracer({ card, onCard, can, section }: SectionProps<'teardown'>) {
    const { busy, problem, write } = useWrite();
    const leak = section.leak;
    if (!leak) return null;
    const say = (feature: string, value: string) => {
        const { [feature]: before, ...rest } = leak.observed;
        const observed = before === value ? rest : { ...rest, [feature]: value };
        void write(
            () =>
                api.POST('/units/{number}/teardown/leak', {
                    params: { path: { number: card.coreTag } },
                    body: { observed },
                }),
            onCard,
        );
    };
    const open = inOrder(leak).filter((q) => leak.observed[q.feature] === undefined);
    const known = open.length < leak.questions.length;
    return (
        <section className="sheet px-4 py-1">
            <More title="Where it drips" open={known}>
                <p className="text-sm text-faint">The lowest wet place is where it hangs, not where it comes from.</p>
                <Said leak={leak} busy={busy} {...(can('yard.hold') && { takeBack: say })} />
                <ProblemNote problem={problem} />
                {leak.impossible && <p className="font-semibold text-bad">{leak.impossible}</p>}
                {known && <Seals leak={leak} family={section.work.family} />}
                {can('yard.hold') && <Questions open={open} busy={busy} say={say} first={known} />}
            </More>
        </section>
    );
}

type SaidProps = { leak: Leak; busy: boolean; takeBack?: (feature: string, value: string) => void };

/** What was answered, each with the way to take it back. */
function Said({ leak, busy, takeBack }: SaidProps) {
    return leak.questions.map((q) => {
        const value = leak.observed[q.feature];
        return value === undefined ? null : (
            <p key={q.feature} className="flex flex-wrap items-center gap-2">
                <Mark kind="good">
                    {q.name}: <strong>{value}</strong>
                </Mark>
                {takeBack && (
                    <button
                        type="button"
                        className="min-h-11 px-2 underline"
                        disabled={busy}
                        onClick={() => takeBack(q.feature, value)}
                    >
                        take back
                    </button>
                )}
            </p>
        );
    });
}

type QuestionsProps = {
    open: Question[];
    busy: boolean;
    say: (feature: string, value: string) => void;
    /** Something is known already: the first open question is the next look. */
    first: boolean;
};

function Questions({ open, busy, say, first }: QuestionsProps) {
    return (
        <fieldset disabled={busy} className="flex flex-col gap-2">
            {open.map((q, n) => (
                <div key={q.feature}>
                    {first && n === 0 && <Mark kind="next">next look, most for its effort</Mark>}
                    <Choice label={q.name} value={null} values={q.values} onChange={(v) => say(q.feature, v)} />
                </div>
            ))}
        </fieldset>
    );
}

function Seals({ leak, family }: { leak: Leak; family: string }) {
    const likely = leak.ranking.filter((s) => s.posterior >= WORTH).slice(0, 5);
    const drawn = likely.flatMap((s) => (s.part ? [[s.part, percent(s.posterior)] as const] : [])).slice(0, 4);
    return (
        <>
            <Drawing
                family={family}
                states={Object.fromEntries(drawn.map(([part]) => [part, 'suspect' as const]))}
                tags={Object.fromEntries(drawn)}
                follow={drawn.slice(0, 1).map(([part]) => part)}
                className="h-56 bg-sheet"
            />
            <ol>
                {likely.map((s, i) => (
                    <li key={s.id} className="border-b border-rule py-1">
                        <span className="flex items-baseline justify-between gap-3">
                            <strong className={i === 0 ? 'font-head text-2xl' : ''}>{s.name}</strong>
                            <span className={`num ${i === 0 ? 'font-head text-3xl' : ''}`}>{percent(s.posterior)}</span>
                        </span>
                        <span className="text-sm">{s.renews}</span>
                    </li>
                ))}
            </ol>
        </>
    );
}
