import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { useState, type ReactNode } from 'react';
import { api, fieldProblem } from '../../api/client';
import { useSession } from '../../api/session';
import { useWrite } from '../../api/useWrite';
import { Field, ProblemNote } from '../../kit/basics';

const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', 'clear', '0'];

/** Badge and PIN on a shared tablet: scan the badge, tap the PIN. */
export function SignIn({ failed, badge }: { failed: boolean; badge: string }) {
    return (
        <main className="mx-auto grid min-h-screen max-w-3xl items-center gap-6 p-4 md:grid-cols-2">
            <div>
                <img src="/mark.svg" alt="" className="mb-3 w-20" />
                <h1 className="text-5xl">Vast Yard</h1>
                <p className="mt-2 text-lg">
                    From the core on the rack to the unit in the vehicle, and back when it comes back.
                </p>
            </div>
            <PinPad key={badge} badge={badge} say="Sign in" title={<h2 className="text-2xl">Sign in</h2>}>
                {failed && (
                    <p role="alert" className="text-bad">
                        The server does not answer. Is Vast Yard running?
                    </p>
                )}
            </PinPad>
        </main>
    );
}

/** Over the page of somebody who went away: it stays as it is until the same badge is back. */
export function Locked({ name, badge }: { name: string; badge: string }) {
    const { leave } = useSession();
    return (
        <Dialog open onClose={() => undefined} className="relative z-40">
            <div className="fixed inset-0 bg-wall" aria-hidden="true" />
            <div className="fixed inset-0 flex items-center justify-center overflow-y-auto p-4">
                <DialogPanel className="w-full max-w-sm">
                    <PinPad
                        badge={badge}
                        known
                        say="Go on"
                        title={
                            <>
                                <DialogTitle className="text-2xl">Locked: {name}</DialogTitle>
                                <p>Nobody touched this tablet for a while. What was typed is still here.</p>
                            </>
                        }
                    >
                        <button type="button" className="btn" onClick={() => void leave()}>
                            Another badge (drops what {name} typed)
                        </button>
                    </PinPad>
                </DialogPanel>
            </div>
        </Dialog>
    );
}

// Two fields and a pad: it stands on the first page anybody loads, so it goes without the kit of forms.
function useSignIn(badge: string) {
    const { refresh } = useSession();
    const { busy, problem, write } = useWrite();
    const [typed, setTyped] = useState({ badge, pin: '' });
    const signIn = async () => {
        const body = typed;
        setTyped({ ...typed, pin: '' });
        await write(
            () => api.POST('/session', { body }),
            () => void refresh(),
        );
    };
    const press = (key: string) => setTyped((t) => ({ ...t, pin: key === 'clear' ? '' : t.pin + key }));
    return { busy, problem, typed, setTyped, signIn, press };
}

function PinPad({ badge, known = false, say, title, children }: Pad) {
    const { busy, problem, typed, setTyped, signIn, press } = useSignIn(badge);
    const at = (pointer: string) => ({ problem: fieldProblem(problem, pointer) });
    return (
        <form
            className="sheet flex flex-col gap-3 p-6"
            onSubmit={(e) => {
                e.preventDefault();
                void signIn();
            }}
        >
            {title}
            {!known && (
                <Field
                    label="Badge"
                    value={typed.badge}
                    onChange={(v) => setTyped({ ...typed, badge: v })}
                    autoFocus={badge === ''}
                    {...at('/badge')}
                />
            )}
            <Field
                label="PIN"
                type="password"
                inputMode="numeric"
                value={typed.pin}
                onChange={(v) => setTyped({ ...typed, pin: v })}
                autoFocus={badge !== ''}
                {...at('/pin')}
            />
            <NumberPad say={say} busy={busy} press={press} />
            {!problem?.errors?.length && <ProblemNote problem={problem} />}
            {children}
        </form>
    );
}

function NumberPad({ say, busy, press }: { say: string; busy: boolean; press: (key: string) => void }) {
    return (
        <div className="grid grid-cols-3 gap-2" role="group" aria-label="Number pad">
            {KEYS.map((k) => (
                <button key={k} type="button" className="btn min-h-14 text-xl num" onClick={() => press(k)}>
                    {k}
                </button>
            ))}
            <button type="submit" className="btn btn-main min-h-14" disabled={busy}>
                {say}
            </button>
        </div>
    );
}

type Pad = { badge: string; known?: boolean; say: string; title: ReactNode; children?: ReactNode };
