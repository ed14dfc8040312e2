import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link, useNavigate, useParams } from 'react-router';
import { z } from 'zod';
import { answer, api, type Schemas } from '../../api/client';
import { useWrite, type Result } from '../../api/useWrite';
import { Mark, Panel, ProblemNote } from '../../kit/basics';
import { DataTable, type Column } from '../../kit/DataTable';
import { Pending } from '../../kit/Fetched';
import { fieldsOf, FormFields, FormProblem, useForm } from '../../kit/form';
import { said } from '../../kit/form/values';
import { moment } from '../../kit/format';
import { PagedTable } from '../../kit/PagedTable';

type People = Schemas['People'];
type Person = People['people'][number];

const KEY = ['people'];
const NEW = 'new';
const ROLES = ['manager', 'receiver', 'teardown', 'builder', 'dyno', 'returns', 'viewer'];

/** Who belongs to the shop, what they may do, where they are signed in, and who tried to. */
export function People() {
    const { badge } = useParams();
    const list = useQuery({ queryKey: KEY, queryFn: () => answer(api.GET('/people')) });
    if (!list.data) return <Pending of={[list]} what="the people" />;
    const chosen = list.data.people.find((p) => p.badge === badge);
    return (
        <>
            <div className="mb-2 flex items-center gap-4">
                <h1 className="flex-1 text-3xl">People</h1>
                <Link className="btn" to={`/people/${NEW}`}>
                    Add a person
                </Link>
            </div>
            <LockedPlaces places={list.data.lockedPlaces} />
            <div className="grid items-start gap-3 lg:grid-cols-[3fr_2fr]">
                <div>
                    <DataTable
                        columns={COLUMNS}
                        rows={list.data.people}
                        rowId={(p) => p.badge}
                        chosen={badge}
                        total={list.data.people.length}
                        empty="Nobody yet."
                    />
                    <SignInLog {...(chosen && { badge: chosen.badge })} />
                </div>
                {badge === NEW ? (
                    <NewPerson />
                ) : chosen ? (
                    <OnePerson key={`${chosen.badge} ${chosen.version}`} person={chosen} />
                ) : (
                    <p className="sheet p-4 text-faint">
                        Choose somebody to change the role, the skills or the PIN, to lift a lock or to end a session.
                    </p>
                )}
            </div>
        </>
    );
}

const COLUMNS: Column<Person>[] = [
    {
        id: 'name',
        title: 'Name',
        head: true,
        sort: (p) => p.name,
        cell: (p) => (
            <Link className="inline-flex min-h-8 items-center underline" to={`/people/${p.badge}`}>
                {p.name}
            </Link>
        ),
    },
    { id: 'badge', title: 'Badge', sort: (p) => p.badge, cell: (p) => <span className="num">{p.badge}</span> },
    { id: 'role', title: 'Role', sort: (p) => p.role, cell: (p) => p.role },
    { id: 'skills', title: 'Skills', cell: (p) => p.skills.join(', ') },
    { id: 'state', title: 'State', cell: (p) => <State person={p} /> },
    { id: 'sessions', title: 'Signed in', right: true, cell: (p) => p.sessions.length || '–' },
];

function State({ person: p }: { person: Person }) {
    if (!p.active) return <Mark kind="idle">left</Mark>;
    if (p.lockedUntil) return <Mark kind="bad">locked</Mark>;
    if (p.pin === 'none') return <Mark kind="warn">no PIN yet</Mark>;
    return p.pin === 'short' ? <Mark kind="warn">PIN too short</Mark> : <Mark kind="good">active</Mark>;
}

/** Writes, and shows everybody anew. */
function usePeopleWrite() {
    const client = useQueryClient();
    const { busy, problem, write } = useWrite();
    const known = (people: People) => client.setQueryData(KEY, people);
    return { busy, problem, known, write: (call: () => Promise<Result<People>>) => void write(call, known) };
}

function LockedPlaces({ places }: { places: People['lockedPlaces'] }) {
    const { busy, problem, write } = usePeopleWrite();
    if (places.length === 0) return null;
    return (
        <div role="status" className="mb-3 border-l-4 border-bad bg-sheet px-4 py-2">
            <p className="font-semibold">Too many wrong PINs came from:</p>
            {places.map(({ place, wrong, until }) => (
                <p key={place} className="flex flex-wrap items-center gap-3">
                    <span className="num">{place.replace(':', ' ')}</span> {wrong} wrong, waits until {moment(until)}
                    <button
                        type="button"
                        className="btn"
                        disabled={busy}
                        onClick={() => write(() => api.POST('/people/locked-places/lift', { body: { place } }))}
                    >
                        Lift
                    </button>
                </p>
            ))}
            <ProblemNote problem={problem} />
        </div>
    );
}

const listed = z.string().transform((typed) =>
    typed
        .split(',')
        .map((s) => s.trim())
        .filter(Boolean),
);
const record = z.object({ name: said('Type the name.'), role: z.string(), skills: listed, active: z.string() });
const added = record.omit({ active: true }).extend({ badge: said('Type or scan the badge.') });
const Change = fieldsOf<z.input<typeof record>>();
const Add = fieldsOf<z.input<typeof added>>();
const asRole = (role: string) => role as Person['role'];

function NewPerson() {
    const { known } = usePeopleWrite();
    const go = useNavigate();
    const form = useForm({ schema: added, start: { badge: '', name: '', role: 'builder', skills: '' } });
    const add = form.submit(
        (body) => api.POST('/people', { body: { ...body, role: asRole(body.role) } }),
        (people) => {
            known(people);
            void go(`/people/${form.fields.getValues('badge')}`);
        },
    );
    return (
        <Panel title="Add a person">
            <FormFields of={form}>
                <div className="flex flex-col gap-3">
                    <Add.Text name="badge" label="Badge" autoFocus />
                    <Add.Text name="name" label="Name" />
                    <Add.Pick name="role" label="Role" options={ROLES.map((r) => ({ value: r, text: r }))} />
                    <Add.Text name="skills" label="Skills" hint="Apart by commas." />
                    <FormProblem of={form} />
                    <button type="button" className="btn btn-main self-start" disabled={form.busy} onClick={add}>
                        Add; the PIN comes next
                    </button>
                </div>
            </FormFields>
        </Panel>
    );
}

function RecordFields() {
    return (
        <>
            <Change.Text name="name" label="Name" />
            <Change.Pick name="role" label="Role" options={ROLES.map((r) => ({ value: r, text: r }))} />
            <Change.Text name="skills" label="Skills" hint="Apart by commas." />
            <Change.Buttons
                name="active"
                label="Belongs to the shop"
                values={['yes', 'no']}
                text={(v) => (v === 'yes' ? 'Yes' : 'Has left')}
            />
        </>
    );
}

function OnePerson({ person }: { person: Person }) {
    const { known } = usePeopleWrite();
    const form = useForm({
        schema: record,
        start: {
            name: person.name,
            role: person.role,
            skills: person.skills.join(', '),
            active: person.active ? 'yes' : 'no',
        },
    });
    const save = form.submit(
        ({ active, ...body }) =>
            api.PUT('/people/{person}', {
                params: { path: { person: person.badge } },
                body: { ...body, active: active === 'yes', version: person.version },
            }),
        known,
    );
    return (
        <div className="flex flex-col gap-3">
            <Panel title={`${person.name}, badge ${person.badge}`}>
                <FormFields of={form}>
                    <div className="flex flex-col gap-3">
                        <RecordFields />
                        <FormProblem of={form} />
                        <button type="button" className="btn btn-main self-start" disabled={form.busy} onClick={save}>
                            Save
                        </button>
                        <p className="text-sm text-faint">A new role, or leaving, ends every session of the badge.</p>
                    </div>
                </FormFields>
            </Panel>
            <NewPin person={person} />
            <Sessions person={person} />
        </div>
    );
}

const pin = z
    .object({ pin: z.string(), again: z.string() })
    .refine((typed) => typed.pin === typed.again, { path: ['again'], message: 'The two are not the same.' });
const Pin = fieldsOf<z.input<typeof pin>>();

function NewPin({ person }: { person: Person }) {
    const { known } = usePeopleWrite();
    const form = useForm({ schema: pin, start: { pin: '', again: '' } });
    const change = form.submit(
        (typed) =>
            api.PUT('/people/{person}/pin', {
                params: { path: { person: person.badge } },
                body: { pin: typed.pin },
            }),
        known,
    );
    return (
        <Panel title={person.pin === 'none' ? 'No PIN yet' : 'New PIN'}>
            <FormFields of={form}>
                <div className="grid items-start gap-3 sm:grid-cols-2">
                    <Pin.Text
                        name="pin"
                        label="PIN"
                        type="password"
                        inputMode="numeric"
                        hint={`${person.shortestPin} to 12 digits.`}
                    />
                    <Pin.Text name="again" label="Again" type="password" inputMode="numeric" />
                </div>
                <FormProblem of={form} />
                <button type="button" className="btn mt-2" disabled={form.busy} onClick={change}>
                    Set the PIN
                </button>
            </FormFields>
        </Panel>
    );
}

function SignedIn({ sessions }: { sessions: Person['sessions'] }) {
    if (sessions.length === 0) return <p className="text-faint">Signed in nowhere.</p>;
    return (
        <ul>
            {sessions.map((s) => (
                <li key={`${s.tablet} ${s.since}`} className="py-1">
                    Tablet <span className="num">{s.tablet}</span> at {s.address}, since {moment(s.since)}, last seen{' '}
                    {moment(s.seenAt)}
                    {s.locked && ', locked'}
                    {s.mine && ' (this one)'}
                </li>
            ))}
        </ul>
    );
}

function Sessions({ person }: { person: Person }) {
    const { busy, problem, write } = usePeopleWrite();
    const path = { params: { path: { person: person.badge } } };
    return (
        <Panel title="Where the badge is now">
            {person.lockedUntil && (
                <p className="mb-2 flex flex-wrap items-center gap-3">
                    <Mark kind="bad">locked until {moment(person.lockedUntil)}</Mark>
                    <button
                        type="button"
                        className="btn"
                        disabled={busy}
                        onClick={() => write(() => api.DELETE('/people/{person}/lock', path))}
                    >
                        Lift the lock
                    </button>
                </p>
            )}
            <SignedIn sessions={person.sessions} />
            {person.sessions.some((s) => !s.mine) && (
                <button
                    type="button"
                    className="btn mt-2"
                    disabled={busy}
                    onClick={() => write(() => api.DELETE('/people/{person}/sessions', path))}
                >
                    End {person.sessions.length === 1 ? 'it' : 'them all'}
                </button>
            )}
            <ProblemNote problem={problem} />
        </Panel>
    );
}

const OUTCOMES: Record<
    Schemas['SignInLog']['entries'][number]['outcome'],
    [Parameters<typeof Mark>[0]['kind'], string]
> = {
    in: ['good', 'came in'],
    out: ['idle', 'went out'],
    wrong: ['warn', 'wrong PIN'],
    locked: ['bad', 'locked after wrong PINs'],
    idle: ['idle', 'locked, nobody there'],
    ended: ['idle', 'ended by the manager'],
};

const LOG: Column<Schemas['SignInLog']['entries'][number]>[] = [
    { id: 'at', title: 'When', cell: (e) => <span className="num">{moment(e.at)}</span> },
    { id: 'badge', title: 'Badge', cell: (e) => <span className="num">{e.badge}</span> },
    {
        id: 'outcome',
        title: 'What',
        cell: (e) => <Mark kind={OUTCOMES[e.outcome][0]}>{OUTCOMES[e.outcome][1]}</Mark>,
    },
    { id: 'tablet', title: 'Tablet', cell: (e) => e.tablet ?? 'not known yet' },
    { id: 'address', title: 'Address', cell: (e) => <span className="num">{e.address}</span> },
];

function SignInLog({ badge }: { badge?: string }) {
    const log = useInfiniteQuery({
        queryKey: ['sign-ins', badge],
        initialPageParam: undefined as number | undefined,
        getNextPageParam: (p: Schemas['SignInLog']) => p.before ?? undefined,
        queryFn: ({ pageParam }) =>
            answer(api.GET('/people/sign-ins', { params: { query: { badge, before: pageParam } } })),
    });
    return (
        <section className="mt-4">
            <h2 className="mb-2 text-2xl">Sign-in log{badge ? ` of badge ${badge}` : ''}</h2>
            <PagedTable
                query={log}
                what="the log"
                columns={LOG}
                rows={(p) => p.entries}
                rowId={(e) => String(e.id)}
                empty="Nothing is written down yet."
                more="Show older ones"
            />
        </section>
    );
}
