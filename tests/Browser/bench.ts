import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { fill, next, pick, picture, press } from './hands';

type Entry = { code: string; body?: Entry } & Record<string, unknown>;
type Proof = { kind?: string; right?: string };
type Test = { group: string; unit: string; window: { min: number; max: number }; derived?: unknown };
type Measure = { what: string; unit: string; window: { min: number; max: number }; gauge: string };

type Family = { code: string } & Record<string, Entry[]>;
type Pack = { families: Family[]; vocabularies: { code: string; body: { operations?: Entry[] } }[] };
const PACK = JSON.parse(readFileSync('database/demo/catalog.json', 'utf8')) as Pack;
const FAMILIES = PACK.families;
/** What every unit goes through before it leaves, whatever its family. */
const AT_DISPATCH = PACK.vocabularies.find((v) => v.code === 'dispatch-operations')?.body.operations ?? [];

/** What hands must know of a family: it is in the shop's own pack. */
function knowledgeOf(family: Family) {
    const entries = (list: string): Entry[] => family[list]!.map((e) => ({ ...e, ...e.body, code: e.code }));
    const proofs = [...entries('teardown'), ...entries('assembly'), ...AT_DISPATCH].flatMap(
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
        /** Parts tested at the bench: the middle of each window, and the gauge that shows it. */
        // The pack is checked by its schema; here it is only read.
        tests: entries('benchTests').map((t) => ({ ...(t as unknown as Test), name: String(t['name']) })),
        /** What the bolts of a pattern are made of. */
        metals: new Map(entries('fasteners').map((f) => [f.code, String(f['metal'] ?? 'steel')] as const)),
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

const TESTERS: Record<string, string> = {
    ohm: 'M-01',
    inHg: 'V-01',
    psi: 'P-01',
    mm: 'MB-01',
    'N.m': 'T-03',
    'g.cm': 'W-01',
};

const GAUGES: Record<string, string> = { 'bore gauge': 'B-01', feeler: 'F-01', dial: 'D-01', 'beam wrench': 'T-03' };

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
        await press(page.getByRole('radio', { name: new RegExp(`^(${known.right.join('|')})$`) }));
    if (kind === 'free') {
        for (const valve of await page.getByRole('radiogroup', { name: /^How the .+ moves$/ }).all())
            await press(valve.getByRole('radio', { name: 'falls' }));
    }
    if (kind === 'values') await testParts(page, proof.slice('values-'.length));
    if (kind === 'metal') {
        const metal = known.metals.get(proof.slice('metal-'.length)) ?? '';
        await press(page.getByRole('radio', { name: metal, exact: true }));
    }
    if (kind === 'scan') {
        const label = page.getByLabel(/^Scan the/);
        const own = proof === 'scan-unit-label';
        await fill(label, own ? ((await page.getByRole('heading', { level: 1 }).textContent()) ?? '') : 'T-7');
    }
    if (kind === 'tool') await fill(page.getByLabel(/^Scan the tool/), TOOLS.get(proof.slice('tool-'.length)) ?? '');
    if (kind === 'patch') {
        for (const [size, count] of [
            ['over 4', '900'],
            ['over 6', '250'],
            ['over 14', '25'],
        ] as const) {
            await fill(page.getByLabel(`Particles ${size} µm, a mL`), count);
        }
    }
    if (kind === 'observation') await press(page.getByRole('radio', { name: 'cannot be said' }));
    if (kind === 'timer') await fill(page.getByLabel(/^Begun before/), 'In the soaking tray since last night');
    if (kind === 'condition') {
        const part = proof.slice('condition-'.length);
        await grade(page, graded[part] ?? []);
        await measure(page, known.measures.get(part));
    }
    if (kind === 'skilled') {
        const [badge, pin] = SKILLED.get(proof.slice('skilled-'.length)) ?? ['', ''];
        await fill(page.getByLabel('Badge of the second person'), badge);
        await fill(page.getByLabel('Their PIN'), pin);
    }
    if (kind === 'sign') {
        await fill(page.getByLabel('Badge of the second person'), '100');
        await fill(page.getByLabel('Their PIN'), '482163');
    }
    if (kind === 'fit') {
        await fill(page.getByLabel(/Groove depth|Play, trial fit/), known.measured.get(proof) ?? '');
        await next(page);
        await expect(page.getByText('Best from the shelf')).toBeVisible();
    }
    if (['reading', 'torque', 'air'].includes(kind ?? '')) await read(page, kind ?? '');
    if (kind === 'photo') {
        await picture(page);
    } else {
        await next(page);
    }
}

async function count(page: Page) {
    for (const field of await page.getByLabel(/counted \(of/).all()) {
        const label = await field.evaluate((e) => (e as HTMLInputElement).labels?.[0]?.textContent ?? '');
        await fill(field, /of (\d+)\)/.exec(label)?.[1] ?? '');
    }
}

async function grade(page: Page, [condition, said, role = 'neither']: string[]) {
    const renewed = await page.locator('[data-proof]').getByText('always renewed:').isVisible();
    const disposition = said ?? (renewed ? 'replace' : 'reuse');
    const conditions = page.getByRole('radiogroup', { name: /condition$|^This word$/ });
    await press(
        condition
            ? conditions.getByRole('radio', { name: condition, exact: true })
            : conditions.getByRole('radio').first(),
    );
    const alike = page.getByRole('button', { name: /^All are/ });
    if (await alike.isVisible()) await press(alike); // a pack: every plate of it
    const answerOf = (group: string, name: string) =>
        page.getByRole('radiogroup', { name: group }).getByRole('radio', { name, exact: true });
    await press(answerOf('What becomes of it', disposition));
    await press(answerOf('Is it', role));
}

async function measure(page: Page, m: Measure | undefined) {
    if (!m) return;
    await fill(page.getByLabel(`${m.what} (${m.unit})`), String((m.window.min + m.window.max) / 2));
    await pick(page.getByLabel('Gauge', { exact: true }), GAUGES[m.gauge] ?? 'D-01');
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
    await fill(page.getByLabel(/^Reading/), value);
    await pick(page.getByLabel('Gauge', { exact: true }), gauge);
}

async function testParts(page: Page, group: string) {
    const tests = known.tests.filter((t) => t.group === group);
    for (const t of tests.filter((t) => t.derived === undefined)) {
        await fill(page.getByLabel(`${t.name} (${t.unit})`), String((t.window.min + t.window.max) / 2));
    }
    const warm = page.getByLabel(/^Coils are that warm/);
    if (await warm.isVisible()) await fill(warm, '20');
    await pick(page.getByLabel('Gauge', { exact: true }), TESTERS[tests[0]?.unit ?? ''] ?? '');
}

/** Whoever built the sub-assemblies signs for each. */
export async function signSubs(page: Page): Promise<void> {
    const buttons = page.getByRole('button', { name: /^Sign for the (?!assembly)/ });
    for (let left = await buttons.count(); left > 0; left--) {
        await press(buttons.first());
        await expect(buttons).toHaveCount(left - 1);
    }
}
