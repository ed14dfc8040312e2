import { useState } from 'react';
import { answer, api, fieldProblem, isProblem, type Problem } from '../../api/client';
import { useSession } from '../../api/session';
import { Field, ProblemNote } from '../../kit/basics';

/** Badge and PIN on a shared tablet: scan the badge, tap the PIN. */
export function SignIn({ failed }: { failed: boolean }) {
    const { refresh } = useSession();
    const [badge, setBadge] = useState('');
    const [pin, setPin] = useState('');
    const [problem, setProblem] = useState<Problem | null>(null);
    const submit = async () => {
        try {
            await answer(api.POST('/session', { body: { badge, pin } }));
            await refresh();
        } catch (e) {
            setProblem(
                isProblem(e)
                    ? e
                    : { type: '', title: '', status: 0, detail: 'The server does not answer. Is Vast Yard running?' },
            );
            setPin('');
        }
    };
    return (
        <main className="mx-auto grid min-h-screen max-w-3xl items-center gap-6 p-4 md:grid-cols-2">
            <div>
                <img src="/mark.svg" alt="" className="mb-3 w-20" />
                <h1 className="text-5xl">Vast Yard</h1>
                <p className="mt-2 text-lg">
                    From the core on the rack to the unit in the vehicle, and back when it comes back.
                </p>
            </div>
            <form
                className="sheet flex flex-col gap-3 p-6"
                onSubmit={(e) => {
                    e.preventDefault();
                    void submit();
                }}
            >
                <h2 className="text-2xl">Sign in</h2>
                <Field
                    label="Badge"
                    value={badge}
                    onChange={setBadge}
                    autoFocus
                    problem={fieldProblem(problem, '/badge')}
                />
                <Field
                    label="PIN"
                    type="password"
                    inputMode="numeric"
                    value={pin}
                    onChange={setPin}
                    problem={fieldProblem(problem, '/pin')}
                />
                <div className="grid grid-cols-3 gap-2" role="group" aria-label="Number pad">
                    {['1', '2', '3', '4', '5', '6', '7', '8', '9', 'clear', '0'].map((k) => (
                        <button
                            key={k}
                            type="button"
                            className="btn min-h-14 text-xl num"
                            onClick={() => setPin(k === 'clear' ? '' : pin + k)}
                        >
                            {k}
                        </button>
                    ))}
                    <button type="submit" className="btn btn-main min-h-14">
                        Sign in
                    </button>
                </div>
                {!problem?.errors?.length && <ProblemNote problem={problem} />}
                {failed && !problem && (
                    <p role="alert" className="text-bad">
                        The server does not answer. Is Vast Yard running?
                    </p>
                )}
            </form>
        </main>
    );
}
