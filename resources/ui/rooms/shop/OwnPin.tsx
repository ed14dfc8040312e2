import { z } from 'zod';
import { api } from '../../api/client';
import { useSession } from '../../api/session';
import { fieldsOf, FormFields, FormProblem, useForm } from '../../kit/form';

const ownPin = z
    .object({ old: z.string(), pin: z.string(), again: z.string() })
    .refine((typed) => typed.pin === typed.again, { path: ['again'], message: 'The two are not the same.' });
const { Text: Own } = fieldsOf<z.input<typeof ownPin>>();

/** A PIN from before the rule: a longer one is chosen before anything is signed with it. */
export function OwnPin({ digits }: { digits: number }) {
    const { refresh, leave } = useSession();
    const form = useForm({ schema: ownPin, start: { old: '', pin: '', again: '' } });
    const change = form.submit(
        ({ old, pin }) => api.PUT('/session/pin', { body: { old, pin } }),
        () => void refresh(),
    );
    return (
        <main className="mx-auto grid min-h-screen max-w-md items-center p-4">
            <form
                className="sheet flex flex-col gap-3 p-6"
                onSubmit={(e) => {
                    e.preventDefault();
                    change();
                }}
            >
                <FormFields of={form}>
                    <h1 className="text-3xl">Choose a longer PIN</h1>
                    <p>
                        Who signs for a unit has a PIN of at least {digits} digits. Yours is shorter, so it signs
                        nothing until you change it.
                    </p>
                    <Own name="old" label="PIN until now" type="password" inputMode="numeric" autoFocus />
                    <Own name="pin" label="New PIN" type="password" inputMode="numeric" />
                    <Own name="again" label="New PIN again" type="password" inputMode="numeric" />
                    <FormProblem of={form} />
                    <div className="flex gap-3">
                        <button type="submit" className="btn btn-main" disabled={form.busy}>
                            Change it
                        </button>
                        <button type="button" className="btn" onClick={() => void leave()}>
                            Not now
                        </button>
                    </div>
                </FormFields>
            </form>
        </main>
    );
}
