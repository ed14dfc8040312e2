import { expect, test, type Locator, type Page } from '@playwright/test';
import { handsKnow, inHand, prove, workThrough } from './bench';
import { expectAt, signIn } from './people';

const TAG = 'C-0230';
const panel = (page: Page, name: string): Locator => page.getByRole('region', { name, exact: true });
const next = (page: Page) => page.getByRole('button', { name: 'Right, next' }).click();

test.beforeAll(() => handsKnow('OV3'));
test.afterAll(() => handsKnow('RD4'));

test('a unit with surprises is torn down, and nothing of it is lost', async ({ page }) => {
    test.setTimeout(420_000);
    await signIn(page, 'teardown', `/units/${TAG}/teardown`);

    await test.step('a ball is missing: it is named, and says what that does', async () => {
        await workThrough(page, {}, 'valve-body');
        const balls = page.getByLabel(/check balls, counted/);
        const asked = await page.getByLabel(/counted \(of/).all();
        for (const field of asked) {
            const label = await field.evaluate((e) => (e as HTMLInputElement).labels?.[0]?.textContent ?? '');
            await field.fill(/of (\d+)\)/.exec(label)?.[1] ?? '');
        }
        await balls.fill('-1');
        await next(page);
        await expect(page.getByText(/Count the check balls first/)).toBeVisible();
        await balls.fill('7');
        await page.getByLabel('Note: why the count differs').fill('One pocket was empty.');
        await next(page);
        await expect(panel(page, 'Counts that differ')).toContainText('7 check balls where there should be 8');
    });

    await test.step('the pump needs its puller; it jams, and comes another way', async () => {
        await workThrough(page, {}, 'pump');
        await page.getByLabel(/^Scan the tool/).fill('ST-10');
        await next(page);
        await expect(page.getByText('"Lip tools, old set" is not a pump puller.')).toBeVisible();
        await page.getByRole('button', { name: 'It will not go' }).click();
        await page.getByLabel('What jams?').fill('Corroded in its bore');
        await page.getByRole('button', { name: 'Write it down' }).click();
        await expect.poll(() => inHand(page)).toMatch(/^pump-pried\//);
    });

    await test.step('a burnt pack is graded plate by plate, from the piston outwards', async () => {
        await workThrough(page, {}, 'forward-pack');
        const plates = page.getByRole('button', { name: /^Plate \d/ });
        const count = await plates.count();
        const word = (name: string) =>
            page.getByRole('radiogroup', { name: 'This word' }).getByRole('radio', { name, exact: true }).click();
        await word('even brown');
        for (let n = 0; n < count - 1; n++) await plates.nth(n).click();
        await word('black');
        await plates.nth(count - 1).click();
        await page.getByRole('radio', { name: 'replace', exact: true }).click();
        await page.getByRole('radio', { name: 'the cause' }).click();
        await next(page);
        await expect(panel(page, 'Inspection')).toContainText('Worse towards the backing plate');
    });

    await test.step('grey film makes washing a step of its own', async () => {
        const inspection = panel(page, 'Inspection');
        await inspection.getByLabel(/^Part, of/).fill('What lay');
        const debris = inspection.getByRole('button', { name: /(Inspect|Change) What lay in the pan/ });
        await debris.click();
        await inspection.getByRole('radio', { name: 'flakes or chunks' }).click();
        await inspection.getByRole('radio', { name: 'replace', exact: true }).click();
        await inspection.getByRole('radio', { name: 'done by its debris' }).click();
        await inspection.getByRole('button', { name: 'Write it down' }).click();
        await expect(inspection).toContainText('flakes or chunks, replace');
        await workThrough(page, {}, 'wash-debris');
        await expect(page.getByRole('heading', { name: /galleries rodded/ })).toBeVisible();
        await prove(page);
        await workThrough(page);
    });

    await test.step('a broken ring: its pieces are accounted for before the teardown ends', async () => {
        const inspection = panel(page, 'Inspection');
        await inspection.getByLabel(/^Part, of/).fill('Snap rings');
        await inspection.getByRole('button', { name: /(Inspect|Change) Snap rings/ }).click();
        await inspection.getByRole('radio', { name: 'broken' }).click();
        await inspection.getByRole('radio', { name: 'done by its debris' }).click();
        await inspection.getByRole('button', { name: 'Write it down' }).click();
        await expect(inspection.getByText(/lay the pieces together/)).toBeVisible();
        await inspection.getByRole('radio', { name: 'pieces are missing' }).click();
        await inspection.getByRole('button', { name: 'Write it down' }).click();
        const counts = panel(page, 'Counts that differ');
        await expect(counts).toContainText('"Snap rings" are not found');
        await page.getByRole('button', { name: 'Teardown is complete' }).click();
        await expect(page.getByText(/Teardown cannot be closed/)).toBeVisible();
        for (const found of ['7 check balls', 'Snap rings']) {
            const one = counts.getByRole('listitem').filter({ hasText: found });
            await one.getByRole('radio', { name: /^It turned up/ }).click();
            await one.getByLabel('How that is known').fill('In the sump of the washer.');
            await one.getByRole('button', { name: 'Decide it' }).click();
            await expect(one.getByRole('button', { name: 'Decide it' })).toHaveCount(0);
        }
    });

    await test.step('small parts are weighed, and less than nothing is refused', async () => {
        const trays = panel(page, 'Trays');
        await trays.getByRole('button', { name: 'Tie a tray to this unit' }).click();
        await trays.getByLabel('Tray tag').fill('T-930');
        await trays.getByLabel(/^Contents/).fill('8 check balls\n1 governor with its spring: governor');
        await trays.getByRole('button', { name: 'Keep the list' }).click();
        await trays.getByRole('button', { name: 'Weigh, move or picture it' }).click();
        await trays.getByLabel('They weigh, g').fill('10.5 g');
        await trays.getByLabel('Empty basket, g').fill('120.0 g');
        await trays.getByLabel('Basket with all, g').fill('117.0 g');
        await trays.getByRole('button', { name: 'Count by weight' }).click();
        await expect(trays.getByText(/The scale shows -3 g: less than nothing/)).toBeVisible();
        await trays.getByLabel('Basket with all, g').fill('128.4 g');
        await trays.getByRole('button', { name: 'Count by weight' }).click();
        await expect(trays).toContainText('8 by weight, 8.4 g');
    });

    await test.step('the vehicle gets its letter, the unit its report', async () => {
        const follows = panel(page, 'What follows from the teardown');
        await follows.getByRole('button', { name: /Causes in the vehicle/ }).click();
        await follows.getByLabel('What lies in the vehicle').selectOption('cooler');
        await follows.getByRole('button', { name: /Name it/ }).click();
        await expect(follows.getByText('Before the warranty starts: Cooler exchanged')).toBeVisible();
        for (const paper of ['letter.pdf', 'report.pdf']) {
            const answer = await page.request.get(`/api/units/${TAG}/teardown/${paper}`);
            expect(answer.status()).toBe(200);
            expect((await answer.body()).subarray(0, 5).toString()).toBe('%PDF-');
        }
        await page.getByRole('button', { name: 'Teardown is complete' }).click();
        await expectAt(page, 'Assembly');
    });
});

test('a missing wave plate is told from the count, with what it does', async ({ page }) => {
    test.setTimeout(240_000);
    handsKnow('RD4');
    await signIn(page, 'teardown', '/units/C-0217/teardown');
    await workThrough(page, {}, 'high-pack');
    for (const field of await page.getByLabel(/counted \(of/).all()) {
        const label = await field.evaluate((e) => (e as HTMLInputElement).labels?.[0]?.textContent ?? '');
        await field.fill(label.includes('wave plates') ? '0' : (/of (\d+)\)/.exec(label)?.[1] ?? ''));
    }
    await page.getByLabel('Note: why the count differs').fill('Somebody was here before.');
    await next(page);
    const counts = panel(page, 'Counts that differ');
    await expect(counts).toContainText('0 wave plates where there should be 1');
    await expect(counts).toContainText('the pack has too much room: it bangs, then burns');
});

test('a second person grades without knowing the first grade', async ({ page }) => {
    await signIn(page, 'manager', '/second-looks');
    const hand = panel(page, 'In hand');
    await expect(hand.getByRole('button', { name: 'That is my grade' })).toBeDisabled();
    await hand.getByRole('radio').first().click();
    await hand.getByRole('button', { name: 'That is my grade' }).click();
    await expect(hand.getByRole('status')).toContainText('the first person');
});
