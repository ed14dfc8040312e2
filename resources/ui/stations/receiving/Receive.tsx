import { useQuery } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import { answer, api } from '../../api/client';
import { Caution, Choice, FieldProblem, Panel } from '../../kit/basics';
import { Fetched } from '../../kit/Fetched';
import { FormFields, FormProblem, useForm } from '../../kit/form';
import { ConverterCame } from './ConverterCame';
import { EMPTY, intake, useIntake, worthOf, type Form } from './draft';
import { Story } from './Story';
import { TheUnit } from './TheUnit';
import { WalkRound } from './WalkRound';
import { Worth } from './Worth';

/** The receiver's ten minutes, beginning at the unit: what it is, what is missing, what it is worth, what they say. */
export function Receive() {
    const form = useQuery({ queryKey: ['receiving/form'], queryFn: () => answer(api.GET('/receiving/form')) });
    return (
        <Fetched query={form} what="the form">
            {(f) => <Dock form={f} />}
        </Fetched>
    );
}

/** What the core would be credited as it is described so far. */
function useCredit(d: Parameters<typeof worthOf>[0]) {
    const worth = worthOf(d);
    const credit = useQuery({
        queryKey: ['receiving/credit', worth],
        queryFn: () => answer(api.POST('/receiving/credit', { body: worth ?? {} })),
        enabled: worth !== null,
        placeholderData: (before) => before,
        staleTime: 60_000,
    });
    return credit.data ?? null;
}

function Dock({ form: choices }: { form: Form }) {
    const form = useForm({ schema: intake, start: EMPTY, draft: 'receive' });
    const go = useNavigate();
    const d = form.fields.watch();
    const family = choices.families.find((x) => x.code === d.family);
    const credit = useCredit(d);
    const takeIn = form.submit(
        (typed) => api.POST('/receiving', { body: { ...typed, coreTag: typed.coreTag || choices.nextTag } }),
        (card) => {
            form.clear();
            const next = d.damage.length > 0 ? 'receiving' : card.sections.identification ? 'identification' : '';
            void go(`/units/${card.coreTag}/${next}`);
        },
    );
    return (
        <FormFields of={form}>
            <DockHead />
            <div className="grid items-start gap-3 lg:grid-cols-[2fr_1fr]">
                <div className="flex flex-col gap-3">
                    <TheUnit form={choices} />
                    <Round form={choices} />
                    <Story form={choices} />
                    <ConverterCame />
                </div>
                <Worth form={choices} family={family} credit={d.family ? credit : null}>
                    <FormProblem of={form} />
                    <TakeIn busy={form.busy} onTake={takeIn} />
                </Worth>
            </div>
        </FormFields>
    );
}

function DockHead() {
    return (
        <div className="mb-2 flex items-baseline justify-between">
            <h1 className="text-3xl">Receive a core</h1>
            <Link to="/receiving/pallet" className="underline">
                Many alike: receive a pallet
            </Link>
        </div>
    );
}

function TakeIn({ busy, onTake }: { busy: boolean; onTake: () => void }) {
    return (
        <button type="button" className="btn btn-main mt-2 w-full text-lg" disabled={busy} onClick={onTake}>
            Take it in
        </button>
    );
}

/** Once round the unit on its drawing, before a bolt is turned. */
function Round({ form }: { form: Form }) {
    const { d, set, errors } = useIntake();
    const family = form.families.find((x) => x.code === d.family);
    return (
        <Panel
            title="Once round the unit"
            aside="before a bolt is turned; smell, colour, debris and magnets are four separate things"
        >
            {family?.outline ? (
                <WalkRound
                    key={family.code}
                    family={family}
                    outline={family.outline}
                    clues={form.clues}
                    seen={d}
                    onChange={set}
                />
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
            <FieldProblem>{(errors as { value?: { message?: string } }).value?.message}</FieldProblem>
            <div className="mt-2">
                <Caution>60 to 140 kg: hoist or two people, unit strapped. Fluid may be hot.</Caution>
            </div>
        </Panel>
    );
}
