import { useState } from 'react';
import { api, fieldProblem, type Card } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { Field, Panel, ProblemNote, Select } from '../../kit/basics';
import type { SectionProps } from '../../card/section';

type Entry = NonNullable<Card['teardown']>['life']['entries'][number];
type Kind = 'complaint' | 'cured' | 'service' | 'upgrade' | 'rebuild';

const KINDS: Record<string, string> = {
    complaint: 'began to be felt',
    cured: 'was felt no more',
    service: 'fluid changed',
    upgrade: 'upgrade fitted',
    rebuild: 'rebuilt',
};

/** The stations at which its story may still be told. */
const TOLD_AT = ['identification', 'ordering', 'teardown', 'assembly', 'returns'];

/** What began when, and what that and the plates say together. */
export function Life({ section: { life }, card, onCard, can }: SectionProps<'teardown'>) {
    const { busy, problem, write } = useWrite();
    const params = { path: { number: card.coreTag } };
    const changeable = can('yard.hold') && TOLD_AT.includes(card.station);
    const strike = ({ km, kind, said }: Entry) =>
        void write(
            () => api.POST('/units/{number}/teardown/timeline/struck', { params, body: { km, kind, said } }),
            onCard,
        );
    return (
        <Panel title="What began when" aside="as the customer tells it, and as papers have it">
            <ol>
                {life.entries.map((e) => (
                    <Told
                        key={`${e.km} ${e.kind} ${e.said}`}
                        entry={e}
                        strike={changeable && !busy ? strike : undefined}
                    />
                ))}
            </ol>
            {life.says.map((said) => (
                <p key={said} className="mt-1">
                    {said}
                </p>
            ))}
            {changeable && <Tell {...{ card, onCard }} />}
            <ProblemNote problem={problem} />
        </Panel>
    );
}

function Told({ entry, strike }: { entry: Entry; strike?: (entry: Entry) => void }) {
    return (
        <li className="flex items-baseline gap-3 border-b border-rule">
            <span className="w-28 num">{entry.typed}</span>
            <span className="flex-1">
                {KINDS[entry.kind]}: <strong>{entry.said}</strong>
            </span>
            {strike && (
                <button type="button" className="min-h-11 px-2 underline" onClick={() => strike(entry)}>
                    Strike<span className="sr-only">: {entry.said}</span>
                </button>
            )}
        </li>
    );
}

type TellProps = Pick<SectionProps<'teardown'>, 'card' | 'onCard'>;

const EMPTY = { at: '', kind: '', said: '' };

function useTelling({ card, onCard }: TellProps) {
    const [typed, setTyped] = useState(EMPTY);
    const { busy, problem, write } = useWrite();
    const tell = () =>
        void write(
            () =>
                api.POST('/units/{number}/teardown/timeline', {
                    params: { path: { number: card.coreTag } },
                    body: { ...typed, kind: typed.kind as Kind },
                }),
            (next) => {
                setTyped(EMPTY);
                onCard(next);
            },
        );
    return { typed, busy, problem, tell, set: (to: Partial<typeof EMPTY>) => setTyped({ ...typed, ...to }) };
}

function Tell(props: TellProps) {
    const { typed, busy, problem, tell, set } = useTelling(props);
    return (
        <form
            className="mt-2 flex flex-wrap items-start gap-3"
            onSubmit={(e) => {
                e.preventDefault();
                tell();
            }}
        >
            <Field
                className="w-36"
                label="At about (km)"
                value={typed.at}
                onChange={(at) => set({ at })}
                problem={fieldProblem(problem, '/at')}
            />
            <Select
                label="What it was"
                value={typed.kind}
                empty="which?"
                onChange={(kind) => set({ kind })}
                options={Object.entries(KINDS).map(([value, text]) => ({ value, text }))}
            />
            <Field
                className="min-w-48 flex-1"
                label="In a few words"
                value={typed.said}
                onChange={(said) => set({ said })}
                problem={fieldProblem(problem, '/said')}
            />
            <button type="submit" className="btn mt-5" disabled={busy || typed.kind === ''}>
                Tell it
            </button>
            <ProblemNote problem={problem} except={['/at', '/said']} />
        </form>
    );
}
