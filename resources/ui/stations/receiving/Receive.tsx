import { useQuery } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import { answer, api, fieldProblem } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { Caution, Choice, Panel, ProblemNote } from '../../kit/basics';
import { Fetched } from '../../kit/Fetched';
import { useDraft } from '../../kit/useDraft';
import { ConverterCame } from './ConverterCame';
import { EMPTY, intakeOf, worthOf, type Form, type Writing } from './draft';
import { Story } from './Story';
import { TheUnit } from './TheUnit';
import { WalkRound } from './WalkRound';
import { Worth } from './Worth';

const SHOWN_AT_FIELD = [
    '/coreTag',
    '/vin',
    '/odometer',
    '/weight',
    '/customer',
    '/family',
    '/grade',
    '/gradeReason',
    '/converter/serial',
    '/value',
];

/** The receiver's ten minutes, beginning at the unit: what it is, what is missing, what it is worth, what they say. */
export function Receive() {
    const form = useQuery({ queryKey: ['receiving/form'], queryFn: () => answer(api.GET('/receiving/form')) });
    return (
        <Fetched query={form} what="the form">
            {(f) => <Dock form={f} />}
        </Fetched>
    );
}

function Dock({ form }: { form: Form }) {
    const [d, set, clear] = useDraft('receive', EMPTY);
    const { busy, problem, write } = useWrite();
    const go = useNavigate();
    const family = form.families.find((x) => x.code === d.family);
    const writing: Writing = { d, set, at: (p) => fieldProblem(problem, p) };
    const worth = { family: d.family, flags: d.flags, ...worthOf(d) };
    const credit = useQuery({
        queryKey: ['receiving/credit', worth],
        queryFn: () => answer(api.POST('/receiving/credit', { body: worth })),
        enabled: d.family !== '' && !Number.isNaN(worth.repairHours),
        placeholderData: (before) => before,
        staleTime: 60_000,
    });
    const submit = () =>
        write(
            () => api.POST('/receiving', { body: intakeOf(d, form.nextTag) }),
            (card) => {
                clear();
                const next = d.damage.length > 0 ? 'receiving' : card.sections.identification ? 'identification' : '';
                void go(`/units/${card.coreTag}/${next}`);
            },
        );
    return (
        <>
            <div className="mb-2 flex items-baseline justify-between">
                <h1 className="text-3xl">Receive a core</h1>
                <Link to="/receiving/pallet" className="underline">
                    Many alike: receive a pallet
                </Link>
            </div>
            <div className="grid items-start gap-3 lg:grid-cols-[2fr_1fr]">
                <div className="flex flex-col gap-3">
                    <TheUnit
                        {...writing}
                        form={form}
                        chooseFamily={(code) => set({ family: code, missing: [], failedHard: [], observed: {} })}
                    />
                    <Round {...writing} form={form} />
                    <Story {...writing} form={form} />
                    <ConverterCame {...writing} />
                </div>
                <Worth {...writing} form={form} family={family} credit={d.family ? (credit.data ?? null) : null}>
                    <ProblemNote problem={problem} except={SHOWN_AT_FIELD} />
                    <button
                        type="button"
                        className="btn btn-main mt-2 w-full text-lg"
                        disabled={busy}
                        onClick={() => void submit()}
                    >
                        Take it in
                    </button>
                </Worth>
            </div>
        </>
    );
}

/** Once round the unit on its drawing, before a bolt is turned. */
function Round({ d, set, at, form }: Writing & { form: Form }) {
    const family = form.families.find((x) => x.code === d.family);
    return (
        <Panel
            title="Once round the unit"
            aside="before a bolt is turned; smell, colour, debris and magnets are four separate things"
        >
            {family?.outline ? (
                <WalkRound key={family.code} family={family} clues={form.clues} seen={d} onChange={set} />
            ) : (
                <div className="grid gap-3 sm:grid-cols-2">
                    <p className="text-faint sm:col-span-2">
                        Point at the family to walk round its drawing; the clues can be noted without it.
                    </p>
                    {form.clues.map((c) => (
                        <Choice
                            key={c.id}
                            label={c.name}
                            value={d.clues[c.id] ?? null}
                            values={c.values}
                            onChange={(v) => set({ clues: { ...d.clues, [c.id]: v } })}
                        />
                    ))}
                </div>
            )}
            {at('/value') && (
                <p role="alert" className="font-semibold text-bad">
                    {at('/value')}
                </p>
            )}
            <div className="mt-2">
                <Caution>60 to 140 kg: hoist or two people, unit strapped. Fluid may be hot.</Caution>
            </div>
        </Panel>
    );
}
