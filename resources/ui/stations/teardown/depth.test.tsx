import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Card } from '../../api/client';
import type { SectionProps } from '../../card/section';

const seen = vi.hoisted(() => ({ fetch: null as null | ((r: Request) => Promise<Response>) }));
vi.mock('openapi-fetch', async (original) => {
    const real = (await original()) as { default: (o: object) => unknown };
    return {
        ...real,
        default: (o: object) =>
            real.default({ ...o, baseUrl: 'http://yard.test/api', fetch: (r: Request) => seen.fetch?.(r) }),
    };
});

import { BurnMap } from '../../bench/proofs/BurnMap';
import { GradeFields, isGraded, saidOf, useGrade } from '../../bench/proofs/Grade';
import { groupsOf, notLookedAt, saidOfGroup } from './Inspection';
import { inOrder } from './LeakTracer';
import { RescueBench, waysFor } from './RescueBench';

type Teardown = NonNullable<Card['teardown']>;
type Item = Teardown['inspection'][number];

let sent: unknown[];
beforeEach(() => {
    sent = [];
    seen.fetch = async (r) => {
        sent.push(await r.json());
        return Response.json({ coreTag: 'C-1' });
    };
});
afterEach(cleanup);

const CONDITIONS = ['even brown', 'dark', 'black'];
const item = (part: string, group: string, condition?: string): Item => ({
    part,
    name: part,
    conditions: CONDITIONS,
    group,
    partNumber: 'P-1',
    plates: null,
    measure: null,
    always: null,
    kind: 'friction',
    pieces: [],
    finding:
        condition === undefined
            ? null
            : {
                  condition,
                  plates: [],
                  burn: null,
                  reading: null,
                  inside: null,
                  gauge: null,
                  disposition: 'reuse',
                  pieces: null,
                  route: null,
                  role: 'none',
                  ours: false,
                  note: '',
                  by: 'Pell',
                  at: '2026-11-27T10:00:00Z',
                  version: 1,
              },
});

describe('the burn map', () => {
    function Pack() {
        const [plates, setPlates] = useState<string[]>([]);
        return <BurnMap name="Forward" count={3} conditions={CONDITIONS} plates={plates} onPlates={setPlates} />;
    }

    it('grades nothing by itself, and each plate by a touch', () => {
        render(<Pack />);
        const plate = (n: number, as: string) => screen.getByLabelText(`Plate ${n} of 3: ${as}`);
        fireEvent.click(plate(2, 'not graded'));
        expect(plate(2, 'not graded'), 'no word is taken yet').toBeTruthy();
        fireEvent.click(screen.getByRole('radio', { name: 'black' }));
        fireEvent.click(plate(3, 'not graded'));
        expect(plate(3, 'black')).toBeTruthy();
        expect(plate(1, 'not graded')).toBeTruthy();
        fireEvent.click(screen.getByRole('radio', { name: 'dark' }));
        fireEvent.click(screen.getByRole('button', { name: 'All are dark' }));
        expect(plate(3, 'dark')).toBeTruthy();
    });
});

describe('what is sent of a grade', () => {
    const grade = {
        condition: 'dark',
        plates: [],
        reading: '0.02 in',
        gauge: 'F-01',
        disposition: 'reuse',
        role: 'none',
        note: '',
        ours: false,
        pieces: null,
        route: '',
    };

    it('is the plates or the word, never both, and a number only where one is asked', () => {
        expect(saidOf(grade, item('a', ''))).toEqual({
            condition: 'dark',
            disposition: 'reuse',
            role: 'none',
            note: '',
            ours: false,
        });
        const plates = ['dark', 'black'];
        expect(saidOf({ ...grade, plates }, item('a', ''))).not.toHaveProperty('condition');
        const broken = { ...item('a', ''), pieces: ['dark'] };
        expect(saidOf({ ...grade, pieces: 'missing' }, broken)).toMatchObject({ pieces: 'missing' });
        expect(saidOf({ ...grade, pieces: 'missing' }, item('a', ''))).not.toHaveProperty('pieces');
        expect(saidOf({ ...grade, disposition: 'recondition', route: 'pins' }, broken)).toMatchObject({
            route: 'pins',
        });
        const measure = { what: 'play', unit: 'in', window: { min: 0, max: 1 }, gauge: 'feeler' };
        expect(saidOf(grade, { ...item('a', ''), measure })).toMatchObject({ reading: '0.02 in', gauge: 'F-01' });
        expect([isGraded(grade), isGraded({ ...grade, condition: '' }), isGraded({ ...grade, plates })]).toEqual([
            true,
            false,
            true,
        ]);
    });
});

it('groups the list by element, and says of each what it comes to', () => {
    const groups = groupsOf([item('a', 'C1', 'dark'), item('b', 'train'), item('c', 'C1', 'even brown')], {
        C1: 'Forward clutch',
    });
    expect(groups.map((g) => [g.name, g.items.length])).toEqual([
        ['Forward clutch', 2],
        ['train', 1],
    ]);
    expect(groups.map((g) => saidOfGroup(g.items))).toEqual(['2 of 2 looked at, 1 not sound', '0 of 1 looked at']);
    expect(saidOfGroup([item('c', 'C1', 'even brown')])).toBe('1 of 1 looked at, unharmed');
});

it('says in one go only what a look can tell and nobody has looked at', () => {
    const measure = { what: 'play', unit: 'in', window: { min: 0, max: 1 }, gauge: 'feeler' };
    const items = [item('a', 'C1'), item('b', 'C1', 'dark'), { ...item('c', 'C1'), measure }, item('d', 'C1')];
    expect(notLookedAt(items).map((i) => i.part)).toEqual(['a', 'd']);
});

it('has what is renewed as a rule stand there with its reason, and nothing else chosen', () => {
    function Asked({ always }: { always: string | null }) {
        const asked = { ...item('a', 'C1'), always };
        const [grade, setGrade] = useGrade(asked);
        const none = { gauges: [], routes: [], references: [] };
        return <GradeFields item={asked} {...none} grade={grade} onGrade={setGrade} problem={null} at="" />;
    }
    const chosen = () => screen.getAllByRole('radio', { checked: true }).map((r) => r.textContent);
    const { unmount } = render(<Asked always="It cracks at the seam." />);
    expect(screen.getByText(/It cracks at the seam/)).toBeTruthy();
    expect(chosen()).toEqual(['✓replace']);
    unmount();
    render(<Asked always={null} />);
    expect(screen.queryAllByRole('radio', { checked: true })).toHaveLength(0);
});

it('asks first what promises most for its effort', () => {
    const ask = (feature: string) => ({ feature, name: feature, values: ['x'] });
    const leak: NonNullable<Teardown['leak']> = {
        questions: [ask('where'), ask('hub'), ask('drip')],
        observed: {},
        ranking: [],
        next: { where: 0.9, hub: 0.05, drip: 1.4 },
        impossible: null,
    };
    expect(inOrder(leak).map((q) => q.feature)).toEqual(['drip', 'where', 'hub']);
});

describe('a bolt that will not come', () => {
    type Method = Teardown['rescue']['methods'][number];
    const method = (code: string, change: Partial<Method> = {}): Method => ({
        code,
        name: code,
        hours: 0.3,
        for: ['seized'],
        after: 'Chase the thread.',
        forbidden: null,
        note: null,
        ...change,
    });
    const methods = [
        method('soak'),
        method('flame', { forbidden: 'No flame near magnesium.' }),
        method('insert', { for: ['stripped'] }),
    ];

    it('is offered what helps, in order; what is forbidden says why and cannot be taken', async () => {
        expect(waysFor(methods, 'seized').map((m) => m.code)).toEqual(['soak', 'flame']);
        const section = { rescue: { places: [{ code: 'pan', name: 'Pan', size: 'M6' }], methods, repairs: [] } };
        // Only what the rescue bench reads of a card.
        const props = { section, card: { coreTag: 'C-1' }, onCard: vi.fn(), can: () => true, editable: true };
        // The rest of the card is of no interest here.
        render(
            <QueryClientProvider client={new QueryClient()}>
                <RescueBench {...(props as unknown as SectionProps<'teardown'> & { editable: boolean })} />
            </QueryClientProvider>,
        );
        fireEvent.click(screen.getByRole('button', { name: /will not come/ }));
        fireEvent.click(screen.getByRole('radio', { name: 'seized' }));
        expect(screen.getByText(/No flame near magnesium/)).toBeTruthy();
        expect(screen.queryByRole('button', { name: 'This way: flame' })).toBeNull();
        fireEvent.click(screen.getByRole('button', { name: 'This way: soak' }));
        const write = screen.getByRole('button', { name: 'It came: write the repair down' });
        expect((write as HTMLButtonElement).disabled, 'which bolts?').toBe(true);
        fireEvent.change(screen.getByLabelText('What'), { target: { value: 'pan' } });
        fireEvent.click(write);
        await waitFor(() => expect(sent).toHaveLength(1));
        expect(sent[0]).toEqual({ place: 'pan', trouble: 'seized', method: 'soak', note: '' });
    });
});
