import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { scan, signIn } from './people';

test('a fault in one page does not blank the tablet', async ({ page }) => {
    await signIn(page, 'manager');
    await page.route('**/api/insight/return-rates', (route) => route.fulfill({ json: { groups: 'not a list' } }));
    await page.goto('/insight');
    await expect(page.getByRole('alert')).toContainText('This page could not be shown');
    await expect(page.getByRole('link', { name: 'Yard', exact: true })).toBeVisible();
});

const PAGES = [
    '/',
    '/units',
    '/receiving',
    '/stock',
    '/catalog',
    '/insight',
    '/calculators',
    '/house-rules',
    '/units/C-0201',
    '/units/C-0205/receiving',
    '/units/C-0221/identification',
    '/units/C-0220/ordering',
    '/units/C-0218/teardown',
    '/units/C-0216/assembly',
    '/units/C-0214/dyno',
    '/units/C-0211/dispatch',
    '/units/C-0202/returns',
    '/units/C-0201/history',
    '/receiving/pallet',
    '/interchange',
    '/interchange?desk=vehicle&q=HW-TR5',
    '/interchange?desk=core&q=C-0219',
    '/interchange?desk=part&q=FR-F080',
    '/identification/trainer',
    '/health',
    '/core-accounts',
    '/core-accounts/WS-LOW',
    '/catalog/entries',
    '/catalog/entries?kind=endPlays&key=RD4%7Cfront',
    '/catalog/entries?kind=families&key=TX6',
    '/catalog/entries?tab=What+changed',
    '/catalog/entries?tab=Packs+and+CSV',
    '/units/C-0250/receiving',
    '/power/LP6',
    '/power/RD4',
    '/power/new',
    '/units/C-0220/ordering/quote',
    '/units/C-0220/ordering/compare',
    '/second-looks',
    '/tools',
    '/gauges',
    '/dyno/cells',
    '/catalog/entries?kind=testPrograms&key=RD4%7Cstandard',
    '/processes/RD4/pack/C1',
    '/bin-plan/RD4/C2',
];

const WCAG = ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'];
const OF_COLOURS = ['color-contrast', 'link-in-text-block'];

for (const light of ['on', 'off']) {
    test(`every page passes the automatic accessibility rules, ${light === 'on' ? 'light' : 'dark'}`, async ({
        page,
    }) => {
        await signIn(page, 'manager');
        await page.evaluate((v) => localStorage.setItem('yard.light', v), light);
        for (const path of PAGES) {
            await page.goto(path);
            await expect(page.getByText('Fetching')).toHaveCount(0);
            const rules = new AxeBuilder({ page });
            // The dark page is the same page in other colours.
            const result = await (light === 'on' ? rules.withTags(WCAG) : rules.withRules(OF_COLOURS)).analyze();
            expect(
                result.violations.map(
                    (v) => `${path} ${light} ${v.id}: ${v.nodes[0]?.html} ${v.nodes[0]?.failureSummary}`,
                ),
            ).toEqual([]);
            expect(
                await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth),
                `${path} fits the tablet`,
            ).toBe(true);
        }
    });
}

test('the yard works by keyboard alone', async ({ page }) => {
    await signIn(page, 'manager');
    await page.keyboard.press('/');
    await page.keyboard.type('C-0201');
    await expect(page.getByRole('option').first()).toBeVisible();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: 'C-0201' })).toBeVisible();
    await page.keyboard.press(']');
    await expect(page.getByRole('link', { name: 'Receiving' })).toHaveAttribute('aria-current', 'page');
    await page.keyboard.press('[');
    await expect(page.getByRole('link', { name: 'Card', exact: true })).toHaveAttribute('aria-current', 'page');
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog')).toContainText('Scan line');
    await page.keyboard.press('Escape');
    await page.keyboard.press('n');
    await expect(page.getByRole('heading', { name: 'Receive a core' })).toBeVisible();
});

test('wrong PINs are refused at the field and a viewer finds no doors', async ({ page }) => {
    await page.goto('/');
    await page.getByLabel('Badge').fill('106');
    await page.getByLabel('PIN', { exact: true }).fill('0000');
    await page.locator('form').getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByText('Badge and PIN do not go together.')).toBeVisible();
    await signIn(page, 'viewer', '/units/C-0215/assembly');
    await expect(page.getByRole('heading', { name: /VY-/ })).toBeVisible();
    await expect(page.getByRole('button', { name: 'Sign for the assembly' })).toHaveCount(0);
    await expect(page.getByRole('button', { name: 'Which parts?' })).toHaveCount(0);
});

test('the tag label carries a barcode a scanner reads', async ({ page }, info) => {
    await signIn(page, 'receiver', '/units/C-0205/label');
    const canvas = page.getByRole('img', { name: 'Barcode C-0205' });
    await expect(canvas).toBeVisible();
    const png = info.outputPath('label.png');
    writeFileSync(
        png,
        Buffer.from(
            (await canvas.evaluate((c) => (c as HTMLCanvasElement).toDataURL('image/png'))).split(',')[1]!,
            'base64',
        ),
    );
    expect(execFileSync('zbarimg', ['--quiet', '--raw', png]).toString().trim()).toBe('C-0205');
});

test('a lost connection loses nothing and doubles nothing', async ({ page, context }) => {
    await signIn(page, 'receiver', '/receiving');
    await page.getByLabel('Core tag').fill('C-7399');
    await page.getByLabel("Complaint, in the owner's words").fill('Whines');
    let posts = 0;
    await page.route('**/api/receiving', async (route) => {
        // The first answer is lost on its way back: the server has done the work, the tablet does not know.
        if (route.request().method() === 'POST' && posts++ === 0) {
            await route.fetch();
            return route.abort('connectionreset');
        }
        return route.continue();
    });
    await page.getByRole('button', { name: 'Take it in' }).click();
    await expect(page.getByRole('heading', { name: 'C-7399' })).toBeVisible({ timeout: 20_000 });
    expect(posts).toBe(2);
    await context.setOffline(true);
    await page.getByRole('link', { name: 'Receiving' }).click();
    await context.setOffline(false);
});

test('two people on one card see both versions', async ({ page, browser }) => {
    await signIn(page, 'receiver', '/units/C-0222/receiving');
    const other = await browser.newPage();
    await signIn(other, 'manager', '/units/C-0222/receiving');
    for (const p of [page, other]) await p.getByRole('button', { name: 'Correct this' }).click();
    await page.getByLabel('Rack').fill('R9-1');
    await page.getByRole('button', { name: 'Save the correction' }).click();
    await expect(page.getByText('R9-1', { exact: false }).first()).toBeVisible();
    await other.getByLabel('Rack').fill('R8-8');
    await other.getByRole('button', { name: 'Save the correction' }).click();
    await expect(other.getByText('Somebody else changed this intake')).toBeVisible();
    await expect(other.getByRole('row', { name: /rack R9-1 R8-8/ })).toBeVisible();
    await other.close();
});

test('bad files and odd numbers are answered in one sentence', async ({ page }) => {
    await signIn(page, 'receiver', '/units/C-0222/receiving');
    await page
        .getByLabel('Picture of this place')
        .first()
        .setInputFiles({ name: 'a.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('this is no picture') });
    await page.getByRole('button', { name: 'Attach' }).first().click();
    await expect(page.getByText('This file is not a picture')).toBeVisible();
    await page.goto('/calculators?name=fit.stack');
    await page.getByRole('tab', { name: 'JSON' }).click();
    await page.getByLabel('Input, JSON').fill('{"unit":"furlong"}');
    await page.getByRole('button', { name: 'Compute' }).click();
    await expect(page.getByText('must be one of in, mm, um')).toBeVisible();
    await page.goto('/units/C-0224/dyno'); // a section this core does not have yet
    await expect(page.getByRole('link', { name: 'Card', exact: true })).toHaveAttribute('aria-current', 'page');
    await page.goto('/units/C-0000');
    await expect(page.getByText('There is nothing under this number.')).toBeVisible();
    await scan(page, 'VY-26-0003');
    await expect(page.getByRole('heading', { name: 'VY-26-0003' })).toBeVisible();
});

test('a calculator takes what people type, shows the number that decides, and lays answers side by side', async ({
    page,
}) => {
    await signIn(page, 'builder', '/calculators?name=band.capacity');
    const drum = page.getByLabel('drum diameter (mm)');
    await drum.fill('5 1/2 in');
    await drum.blur();
    await expect(drum).toHaveValue('139.7');
    const force = page.getByLabel('apply force (N)');
    await force.fill('43 psi');
    await force.blur();
    await expect(page.getByRole('alert')).toBeVisible();
    await expect(force).toHaveValue('43 psi');
    await force.fill('2500');
    await page.getByRole('button', { name: 'Compute' }).click();
    const answer = page.getByRole('region', { name: 'Answer' });
    await expect(answer.getByText(/^[\d.]+ N\.m$/)).toBeVisible();
    await answer.getByRole('button', { name: 'Keep it to compare' }).click();
    await page.getByLabel('rotation').selectOption('against');
    await page.getByRole('button', { name: 'Compute' }).click();
    await answer.getByRole('button', { name: 'Keep it to compare' }).click();
    await expect(page.getByRole('region', { name: 'Side by side' })).toContainText('rotation: against');
});

test('a cancelled run ends and says so', async ({ page }) => {
    await signIn(page, 'dyno', '/units/C-0213/dyno');
    await expect(page.getByText('Against the limits')).toBeVisible();
    await page.getByRole('button', { name: 'Start the run in cell A' }).click();
    await page.getByRole('button', { name: 'Cancel the run' }).click();
    await expect(page.getByText('cancelled', { exact: true })).toBeVisible({ timeout: 15_000 });
});
