import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { FamilyPicture } from '../rooms/catalog/FamilyPicture';
import { Drawing } from './Drawing';
import { apart, type Part, type Section, type Shape } from './section';
import { OperationPicture, toggled } from '../rooms/catalog/OperationPicture';
import { PortMap } from './PortMap';
import { boxOfLook, nearer } from './useZoom';
import { WaitingNote } from './WaitingNote';

// The client keeps the fetch it finds when it is made; the calls go through the one of the test.
const seen = vi.hoisted(() => ({ fetch: null as null | (() => Promise<Response>) }));
vi.mock('openapi-fetch', async (original) => {
    const real = await original<{ default: (o: object) => unknown }>();
    return {
        ...real,
        default: (o: object) => real.default({ ...o, baseUrl: 'http://yard.test/api', fetch: () => seen.fetch?.() }),
    };
});

const box = (as: Shape['as'], x: number, y: number): Shape => ({
    as,
    form: 'outline',
    points: [
        [x, y],
        [x + 10, y],
        [x + 10, y + 10],
        [x, y + 10],
    ],
});
const part = (code: string, name: string, shapes: Shape[], change: Partial<Part> = {}): Part => ({
    code,
    name,
    kind: 'block',
    turns: 'stands',
    of: '',
    shapes,
    ...change,
});
const parts = [
    part('C1', 'Forward clutch', [box('friction', 20, 40), box('steel', 30, 40)], { kind: 'pack', turns: 'other' }),
    part('case', 'Case', [box('cut', 0, 80), box('outside', 0, -60)], { kind: 'housing' }),
    part('shaft', 'Input shaft', [box('cut', 0, 0)], { turns: 'input' }),
    part('pan', 'Pan', [box('plain', 10, -90)], { kind: 'below' }),
    part('gear', 'Final drive', [box('cut', 60, -80)], { turns: 'other' }),
];

const ports = {
    face: 'Case face',
    outline: [[0, 0], [90, 0], [90, 60], [0, 60]], // prettier-ignore
    list: [
        { number: 1, at: [20, 20], bore: 8, name: 'Forward feed', element: 'C1', bleeds: 'A little.', cover: [2] },
        { number: 2, at: [50, 20], bore: 8, name: 'Line' },
    ],
};

const shown = (what: React.ReactNode) =>
    render(<QueryClientProvider client={new QueryClient()}>{what}</QueryClientProvider>);
const drawn = () => [...document.querySelectorAll('[data-part]')].map((g) => g.getAttribute('data-part'));

beforeEach(() => {
    seen.fetch = () => Promise.resolve(Response.json({ family: 'RD4', axes: [], parts, ports }));
});
afterEach(cleanup);

describe('the section drawing', () => {
    it('says what is in hand, and what each part turns with as a table too', async () => {
        shown(<Drawing family="RD4" states={{ C1: 'hand', shaft: 'off' }} tags={{ C1: '0.041 in' }} />);
        expect(await screen.findByRole('img', { name: /In hand: Forward clutch/ })).toBeTruthy();
        const rows = [...document.querySelectorAll('tbody tr')].map((r) =>
            [...r.querySelectorAll('td')].map((c) => c.textContent?.trim()),
        );
        expect(rows).toContainEqual(['Forward clutch', 'turns otherwise', 'in hand 0.041 in']);
        expect(rows).toContainEqual(['Input shaft', 'turns with the input', 'off the unit']);
        expect(screen.getByText('Forward clutch 0.041 in')).toBeTruthy();
    });

    it('turns to the half in which the parts in hand lie', async () => {
        const { rerender } = shown(<Drawing family="RD4" states={{}} follow={['C1']} />);
        await screen.findByRole('img');
        expect(drawn()).toEqual(['C1', 'case', 'shaft']);
        const again = (follow: string[]) =>
            rerender(
                <QueryClientProvider client={new QueryClient()}>
                    <Drawing family="RD4" states={{}} follow={follow} />
                </QueryClientProvider>,
            );
        again(['pan']);
        await screen.findByRole('img');
        expect(drawn()).toEqual(['pan']);
        again(['gear', 'C1']);
        await screen.findByRole('img');
        expect(drawn()).toEqual(['C1', 'case', 'shaft', 'gear']);
    });

    it('is walked with arrow keys along the unit, each part said by name', async () => {
        shown(<Drawing family="RD4" states={{}} />);
        const picture = await screen.findByRole('img', { name: /arrow keys walk them/ });
        const said = (key: string) => {
            fireEvent.keyDown(picture, { key });
            return picture.getAttribute('aria-label');
        };
        expect(said('ArrowRight')).toContain('Input shaft, turns with the input.');
        expect(said('ArrowRight')).toContain('Case, stands.');
        expect(said('ArrowLeft')).toContain('Input shaft');
        const whole = picture.getAttribute('viewBox');
        fireEvent.keyDown(picture, { key: '+' });
        expect(picture.getAttribute('viewBox')).not.toBe(whole);
        fireEvent.doubleClick(picture);
        expect(picture.getAttribute('viewBox')).toBe(whole);
    });

    it('lights what a gear applies in the catalog', async () => {
        shown(<FamilyPicture family="RD4" gears={[{ name: '1', applied: ['C1'] }]} />);
        fireEvent.click(await screen.findByRole('radio', { name: '1' }));
        expect(await screen.findByRole('img', { name: /In hand: Forward clutch/ })).toBeTruthy();
    });

    it('says the sentence of the server where there is none', async () => {
        const detail = 'The catalog has no section drawing of this family.';
        seen.fetch = () => Promise.resolve(Response.json({ status: 404, detail }, { status: 404 }));
        shown(<Drawing family="XX" states={{}} />);
        expect(await screen.findByText(detail)).toBeTruthy();
    });
});

describe('what waits', () => {
    const write = {
        key: 'k',
        number: 'C-1',
        bench: 'assembly' as const,
        operation: 'clean',
        proof: 'done',
        note: '',
        at: '',
        badge: '103',
    };

    it('is counted, and a refusal stays until somebody has seen it', () => {
        const dropped: number[] = [];
        const waiting = [
            { id: 1, write },
            { id: 2, write: { ...write, refused: 'It is done already.' } },
        ];
        render(<WaitingNote waiting={waiting} elsewhere={2} onDrop={(id) => dropped.push(id)} />);
        expect(screen.getByText(/1 entry waits for the network/)).toBeTruthy();
        expect(screen.getByText('2 more on this tablet, of other units.')).toBeTruthy();
        expect(screen.getByText(/It is done already\./)).toBeTruthy();
        fireEvent.click(screen.getByRole('button', { name: 'I have seen it, drop it' }));
        expect(dropped).toEqual([2]);
    });

    it('shows nothing where nothing waits', () => {
        render(<WaitingNote waiting={[]} elsewhere={0} onDrop={() => undefined} />);
        expect(screen.queryByRole('status')).toBeNull();
    });
});

describe('drawn apart', () => {
    it('slides each part along the axis in its order, by the same room, and leaves what holds them', () => {
        const section: Section = { family: 'RD4', axes: [], ports: null, parts };
        const left = (code: string, of: Section) =>
            Math.min(
                ...(of.parts.find((p) => p.code === code)?.shapes ?? []).flatMap((s) => s.points.map(([x]) => x ?? 0)),
            );
        const moved = apart(section);
        expect(left('case', moved)).toBe(left('case', section));
        expect(left('pan', moved)).toBe(left('pan', section));
        const by = ['shaft', 'C1', 'gear'].map((code) => left(code, moved) - left(code, section));
        expect(by).toEqual([-11, 0, 11]);
    });

    it('is a switch at the drawing, not there for the outside', async () => {
        shown(<Drawing family="RD4" states={{}} />);
        fireEvent.click(await screen.findByRole('button', { name: 'Drawn apart' }));
        expect(screen.getByRole('button', { name: 'Drawn apart' }).getAttribute('aria-pressed')).toBe('true');
        fireEvent.click(screen.getByRole('button', { name: 'Outside' }));
        expect(screen.queryByRole('button', { name: 'Drawn apart' })).toBeNull();
    });
});

describe('coming nearer', () => {
    const view = { x: 0, y: 0, w: 600, h: 300 };

    it('keeps the point under the hand where it is', () => {
        const hand = { x: 90, y: 210 };
        const before = boxOfLook(view, { zoom: 1, at: { x: 300, y: 150 } });
        const after = boxOfLook(view, nearer({ zoom: 1, at: { x: 300, y: 150 } }, 2.5, hand));
        const share = (box: typeof view) => [(hand.x - box.x) / box.w, (hand.y - box.y) / box.h];
        share(after).forEach((s, n) => expect(s).toBeCloseTo(share(before)[n]!, 9));
        expect(after.w).toBeCloseTo(240);
    });

    it('never goes beyond the whole unit or into the grain', () => {
        const at = { x: 300, y: 150 };
        expect(nearer({ zoom: 1, at }, 0.1, at).zoom).toBe(1);
        expect(nearer({ zoom: 5, at }, 90, at).zoom).toBe(6);
    });

    it('turns to the outside and back by hand, and follows the work again when that moves on', async () => {
        const tree = (follow: string[]) => (
            <QueryClientProvider client={new QueryClient()}>
                <Drawing family="RD4" states={{}} follow={follow} />
            </QueryClientProvider>
        );
        const { rerender } = render(tree(['C1']));
        fireEvent.click(await screen.findByRole('button', { name: 'Outside' }));
        expect(drawn()).toEqual(['pan']);
        rerender(tree(['shaft']));
        await screen.findByRole('img');
        expect(drawn()).toContain('shaft');
    });

    it('draws what is not there yet grey and names it in the table', async () => {
        shown(<Drawing family="RD4" states={{ C1: 'absent' }} />);
        await screen.findByRole('img');
        expect(document.querySelector('[data-part=C1] polygon')?.getAttribute('fill')).toBe('none');
        expect(document.querySelector('tbody')?.textContent).toContain('not there yet');
    });
});

describe('the air ports', () => {
    it('light the port of the check in hand, and say what must move and what to hold shut', async () => {
        shown(<PortMap family="RD4" element="C1" />);
        const lit = await screen.findByRole('button', { name: 'Port 1, Forward feed, blow here' });
        expect(lit.getAttribute('aria-pressed')).toBe('true');
        expect(screen.getByRole('button', { name: 'Port 2, Line, hold shut' })).toBeTruthy();
        expect(document.querySelector('figcaption')?.textContent).toBe(
            '1 Forward feed: C1 must move. A little. Hold shut meanwhile: 2.',
        );
        fireEvent.keyDown(screen.getByRole('button', { name: /Port 2/ }), { key: 'Enter' });
        expect(document.querySelector('figcaption')?.textContent).toContain('2 Line: nothing to hear.');
    });
});

describe('the drawing beside an operation that is written', () => {
    it('puts a touched part in and takes it out again, leaving everything else alone', () => {
        const node = { code: 'a', body: { after: ['b'], removes: ['pan'] } };
        const once = toggled(node, 'parts', 'pan');
        expect(once).toEqual({ code: 'a', body: { after: ['b'], removes: ['pan'], parts: ['pan'] } });
        expect(toggled(once, 'parts', 'pan')).toEqual(node);
        expect(toggled(node, 'removes', 'pan')).toEqual({ code: 'a', body: { after: ['b'] } });
    });

    it('asks which of the two a touch means, and changes nothing for who may only look', async () => {
        const changes: unknown[] = [];
        const picture = (editable: boolean) => (
            <OperationPicture
                family="RD4"
                node={{ body: {} }}
                editable={editable}
                onChange={(n) => void changes.push(n)}
            />
        );
        shown(picture(true));
        await screen.findByRole('img');
        fireEvent.click(screen.getByRole('radio', { name: 'comes off here' }));
        fireEvent.click(document.querySelector('[data-part=C1]')!);
        expect(changes).toEqual([{ body: { removes: ['C1'] } }]);
        cleanup();
        shown(picture(false));
        await screen.findByRole('img');
        fireEvent.click(document.querySelector('[data-part=C1]')!);
        expect(changes).toHaveLength(1);
    });
});
