import { readFileSync } from 'node:fs';
import { expect, type Locator, type Page } from '@playwright/test';

type Entry = { code: string; body?: Entry } & Record<string, unknown>;
type Proof = { kind?: string; right?: string };
type Measure = { what: string; unit: string; window: { min: number; max: number }; gauge: string };

type Family = { code: string } & Record<string, Entry[]>;
const FAMILIES = (JSON.parse(readFileSync('database/demo/catalog.json', 'utf8')) as { families: Family[] }).families;

/** What hands must know of a family: it is in the shop's own pack. */
function knowledgeOf(family: Family) {
    const entries = (list: string): Entry[] => family[list]!.map((e) => ({ ...e, ...e.body, code: e.code }));
    const proofs = [...entries('teardown'), ...entries('assembly')].flatMap(
        (o) => (o['proofs'] as Proof[] | undefined) ?? [],
    );
    return {
        /** What is right where a part can lie two ways. */
        right: proofs.flatMap((p) => (p.kind === 'orientation' && p.right ? [p.right] : [])),
        /** Depths and plays a builder measures: near what is usual. */
        measured: new Map<string, string>([
            ...entries('packs').map(
                (p) =>
                    [
                        `fit-pack-${p.code.toLowerCase()}`,
                        String((p['depth'] as { nominal: number }).nominal - 0.001),
                    ] as const,
            ),
            ...entries('endPlays').map((p) => [`fit-end-play-${p.code}`, String(p['target'])] as const),
        ]),
        /** What a gauge shows of a part on the bench: the middle of its window. */
        measures: new Map(
            entries('findings').flatMap((f) => (f['measure'] ? [[f.code, f['measure'] as Measure] as const] : [])),
        ),
    };
}
let known = knowledgeOf(FAMILIES[0]!);

/** Which family lies on the bench from here on. */
export function handsKnow(code: string): void {
    known = knowledgeOf(FAMILIES.find((f) => f.code === code)!);
}

const GAUGES: Record<string, string> = { 'bore gauge': 'B-01', feeler: 'F-01', dial: 'D-01' };

/** Who is good at what. */
const SKILLED = new Map(
    (
        JSON.parse(readFileSync('database/demo/shop.json', 'utf8')) as {
            people: { badge: string; pin: string; skills?: string[] }[];
        }
    ).people.flatMap((p) =>
        (p.skills ?? []).map((s) => [s.replaceAll(' ', '-'), [p.badge, p.pin] as [string, string]] as const),
    ),
);

/** One tool of each kind that was looked at in time. */
const TOOLS = new Map(
    (
        JSON.parse(readFileSync('database/demo/shop.json', 'utf8')) as {
            specialTools: { tag: string; kind: string; inspectedDays: number }[];
        }
    ).specialTools
        .filter((t) => t.inspectedDays > 0)
        .map((t) => [t.kind, t.tag] as const),
);

/** A small grey picture. */
const PICTURE = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAACAAAAAgCAIAAAD8GO2jAAAAKklEQVR4nGNIKGigKWIYtWDUglELRi0Y' +
        'tWDUglELRi0YtWDUglELhooFAGmbQEzvPTd0AAAAAElFTkSuQmCC',
    'base64',
);

const rightNext = (page: Page): Locator => page.getByRole('button', { name: 'Right, next' });

/** The proof in hand, as operation/proof; empty when nothing is left. */
export async function inHand(page: Page): Promise<string> {
    const proof = page.locator('[data-proof]');
    const finished = page.getByText('Everything on this bench is done.');
    await expect(proof.or(finished)).toBeVisible();
    // Read in one go: the proof may go while one looks.
    return proof.evaluateAll((all) => all[0]?.getAttribute('data-proof') ?? '');
}

/** Proves what is in hand as a builder would, and waits for the next. */
export async function prove(page: Page, graded: Record<string, string[]> = {}): Promise<void> {
    const before = await inHand(page);
    await answer(page, before.split('/')[1] ?? '', graded);
    await expect.poll(() => inHand(page)).not.toBe(before);
}

/** Proves whatever is due until nothing is left, or until this operation is in hand. */
export async function workThrough(page: Page, graded: Record<string, string[]> = {}, until = '-'): Promise<void> {
    for (let at = await inHand(page); at !== '' && !at.startsWith(`${until}/`); at = await inHand(page)) {
        await prove(page, graded);
    }
}

/** The same with the network cut: everything is kept on the tablet, and sent in its order when it is back. */
export async function withoutNetwork(page: Page, proofs: number): Promise<void> {
    await page.context().setOffline(true);
    for (let n = 0; n < proofs; n++) await prove(page);
    await expect(page.getByText(`${proofs} entries wait for the network`)).toBeVisible();
    const at = await inHand(page);
    await page.context().setOffline(false);
    await expect(page.getByText('wait for the network')).toHaveCount(0, { timeout: 20_000 });
    expect(await inHand(page), 'the server agrees with what was shown').toBe(at);
}

async function answer(page: Page, proof: string, graded: Record<string, string[]>) {
    const kind = proof.split('-')[0];
    if (kind === 'count') await count(page);
    if (kind === 'orientation')
        await page.getByRole('radio', { name: new RegExp(`^(${known.right.join('|')})$`) }).click();
    if (kind === 'scan') {
        const label = page.getByLabel(/^Scan the/);
        const own = proof === 'scan-unit-label';
        await label.fill(own ? ((await page.getByRole('heading', { level: 1 }).textContent()) ?? '') : 'T-7');
    }
    if (kind === 'tool') await page.getByLabel(/^Scan the tool/).fill(TOOLS.get(proof.slice('tool-'.length)) ?? '');
    if (kind === 'patch') {
        for (const [size, count] of [
            ['over 4', '900'],
            ['over 6', '250'],
            ['over 14', '25'],
        ] as const) {
            await page.getByLabel(`Particles ${size} µm, a mL`).fill(count);
        }
    }
    if (kind === 'observation') await page.getByRole('radio', { name: 'cannot be said' }).click();
    if (kind === 'timer') await page.getByLabel(/^Begun before/).fill('In the soaking tray since last night');
    if (kind === 'condition') {
        const part = proof.slice('condition-'.length);
        await grade(page, graded[part] ?? []);
        await measure(page, known.measures.get(part));
    }
    if (kind === 'skilled') {
        const [badge, pin] = SKILLED.get(proof.slice('skilled-'.length)) ?? ['', ''];
        await page.getByLabel('Badge of the second person').fill(badge);
        await page.getByLabel('Their PIN').fill(pin);
    }
    if (kind === 'sign') {
        await page.getByLabel('Badge of the second person').fill('100');
        await page.getByLabel('Their PIN').fill('482163');
    }
    if (kind === 'fit') {
        await page.getByLabel(/Groove depth|Play, trial fit/).fill(known.measured.get(proof) ?? '');
        await rightNext(page).click();
        await expect(page.getByText('Best from the shelf')).toBeVisible();
    }
    if (['reading', 'torque', 'air'].includes(kind ?? '')) await read(page, kind ?? '');
    if (kind === 'photo') {
        await page
            .locator('[data-proof] input[type=file]')
            .setInputFiles({ name: 'a.png', mimeType: 'image/png', buffer: PICTURE });
    } else {
        await rightNext(page).click();
    }
}

async function count(page: Page) {
    for (const field of await page.getByLabel(/counted \(of/).all()) {
        const label = await field.evaluate((e) => (e as HTMLInputElement).labels?.[0]?.textContent ?? '');
        await field.fill(/of (\d+)\)/.exec(label)?.[1] ?? '');
    }
}

async function grade(page: Page, [condition, said, role = 'neither']: string[]) {
    const renewed = await page.locator('[data-proof]').getByText('always renewed:').isVisible();
    const disposition = said ?? (renewed ? 'replace' : 'reuse');
    const conditions = page.getByRole('radiogroup', { name: /condition$|^This word$/ });
    await (
        condition
            ? conditions.getByRole('radio', { name: condition, exact: true })
            : conditions.getByRole('radio').first()
    ).click();
    const alike = page.getByRole('button', { name: /^All are/ });
    if (await alike.isVisible()) await alike.click(); // a pack: every plate of it
    await page
        .getByRole('radiogroup', { name: 'What becomes of it' })
        .getByRole('radio', { name: disposition, exact: true })
        .click();
    await page.getByRole('radiogroup', { name: 'Is it' }).getByRole('radio', { name: role }).click();
}

async function measure(page: Page, m: Measure | undefined) {
    if (!m) return;
    await page.getByLabel(`${m.what} (${m.unit})`).fill(String((m.window.min + m.window.max) / 2));
    await page.getByLabel('Gauge', { exact: true }).selectOption(GAUGES[m.gauge] ?? 'D-01');
}

async function read(page: Page, kind: string) {
    const shown = (await page.locator('[data-proof]').textContent()) ?? '';
    const newtonMetres = Number(/([\d.]+) N·m ·/.exec(shown)?.[1] ?? 0);
    const play = (await inHand(page)).includes('/reading-end-play');
    const [value, gauge] = {
        reading: [/Predicted ([\d.]+)/.exec(shown)?.[1] ?? '', play ? 'D-01' : 'F-01'],
        torque: [`${newtonMetres} N.m`, newtonMetres < 20 ? 'T-01' : 'T-02'],
        air: ['2', 'P-01'],
    }[kind] as [string, string];
    await page.getByLabel(/^Reading/).fill(value);
    await page.getByLabel('Gauge', { exact: true }).selectOption(gauge);
}
