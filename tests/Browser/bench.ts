import { expect, type Locator, type Page } from '@playwright/test';

/** What is right where a part can lie two ways. */
const RIGHT = ['the wide lip', 'clockwise', 'in the groove of the manual valve'];

/** Depths and plays a builder measures in a family with inch parts. */
const MEASURED: Record<string, string> = { 'pack-C1': '.981', 'pack-C3': '.889', 'end-play': '31 thou' };

/** A small grey picture. */
const PICTURE = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAACAAAAAgCAIAAAD8GO2jAAAAKklEQVR4nGNIKGigKWIYtWDUglELRi0YtWDUglELRi0YtWDUglELhooFAGmbQEzvPTd0AAAAAElFTkSuQmCC',
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
    const [operation, proof] = before.split('/') as [string, string];
    await answer(page, operation, proof, graded);
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

async function answer(page: Page, operation: string, proof: string, graded: Record<string, string[]>) {
    const kind = proof.split('-')[0];
    if (kind === 'count') await count(page);
    if (kind === 'orientation') await page.getByRole('radio', { name: new RegExp(`^(${RIGHT.join('|')})$`) }).click();
    if (kind === 'scan') {
        const label = page.getByLabel(/^Scan the/);
        const own = proof === 'scan-unit-label';
        await label.fill(own ? ((await page.getByRole('heading', { level: 1 }).textContent()) ?? '') : 'T-7');
    }
    if (kind === 'observation') await page.getByRole('radio', { name: 'cannot be said' }).click();
    if (kind === 'timer') await page.getByLabel(/^Begun before/).fill('In the soaking tray since last night');
    if (kind === 'condition') await grade(page, graded[proof.slice('condition-'.length)] ?? []);
    if (kind === 'sign') {
        await page.getByLabel('Badge of the second person').fill('100');
        await page.getByLabel('Their PIN').fill('482163');
    }
    if (kind === 'fit') {
        await page.getByLabel(/Groove depth|Play, trial fit/).fill(MEASURED[operation] ?? '');
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

async function grade(page: Page, [condition, disposition = 'reuse', role = 'neither']: string[]) {
    const conditions = page.getByRole('radiogroup', { name: /condition$/ });
    await (
        condition
            ? conditions.getByRole('radio', { name: condition, exact: true })
            : conditions.getByRole('radio').first()
    ).click();
    await page
        .getByRole('radiogroup', { name: 'What becomes of it' })
        .getByRole('radio', { name: disposition, exact: true })
        .click();
    await page.getByRole('radiogroup', { name: 'Is it' }).getByRole('radio', { name: role }).click();
}

async function read(page: Page, kind: string) {
    const shown = (await page.locator('[data-proof]').textContent()) ?? '';
    const newtonMetres = Number(/([\d.]+) N·m ·/.exec(shown)?.[1] ?? 0);
    const play = (await inHand(page)).startsWith('end-play');
    const [value, gauge] = {
        reading: [/Predicted ([\d.]+)/.exec(shown)?.[1] ?? '', play ? 'D-01' : 'F-01'],
        torque: [`${newtonMetres} N.m`, newtonMetres < 20 ? 'T-01' : 'T-02'],
        air: ['2', 'P-01'],
    }[kind] as [string, string];
    await page.getByLabel(/^Reading/).fill(value);
    await page.getByLabel('Gauge').selectOption(gauge);
}
