import { expect, test, type Page } from '@playwright/test';
import { readFileSync, writeFileSync } from 'node:fs';
import { scan, signIn, pickCustomer } from './people';

const panel = (page: Page, name: string | RegExp) => page.getByRole('region', { name });

test('a pallet of cores is taken in by scanner, one keystroke a core', async ({ page }) => {
    await signIn(page, 'receiver', '/receiving/pallet');
    await page.getByLabel('Pallet', { exact: true }).fill('P-77');
    await pickCustomer(page, 'Customer', 'Lowgate Drivetrain');
    await page.getByLabel('Family').selectOption({ label: 'Ostler OV3, rear-drive three-speed with overdrive' });
    await page.getByRole('button', { name: 'Dust shield' }).click();
    const tag = page.getByLabel('Core tag');
    await tag.focus();
    for (let i = 1; i <= 40; i++) {
        await page.keyboard.type(`P77-${String(i).padStart(2, '0')}`);
        await page.keyboard.press('Enter');
        await expect(page.getByRole('heading', { name: `Taken in: ${i}` })).toBeVisible();
        await expect(tag).toBeFocused();
    }
    await page.keyboard.type('P77-07');
    await page.keyboard.press('Enter');
    await expect(page.getByText('already on another core')).toBeVisible();
    await page.reload();
    await expect(page.getByRole('heading', { name: 'Taken in: 40' }), 'the list survives a reload').toBeVisible();
    await page.getByRole('link', { name: 'P77-07' }).click();
    await page.getByRole('link', { name: 'Receiving' }).click();
    await expect(panel(page, 'Received')).toContainText('P-77');
    await expect(panel(page, /Grade B/)).toContainText('Missing: Dust shield');
});

test('a walk-round prices what is missing, grades by rule, and damage is photographed where it is', async ({
    page,
}) => {
    await signIn(page, 'receiver', '/receiving');
    await page.getByLabel('Core tag').fill('C-9101');
    await page.getByLabel('Stamped tag code').fill('6S12 4410');
    await expect(page.getByText('the year can be 2012')).toBeVisible();
    await page.getByRole('button', { name: 'take LP6' }).click();
    await page.getByLabel('Complaint').fill('Slips when hot');
    await page.getByRole('button', { name: /^Pan/ }).click();
    await page.getByRole('radiogroup', { name: 'Colour of the fluid' }).getByRole('radio', { name: 'black' }).click();
    await expect(page.getByText('Overheated:')).toBeVisible();
    await page.getByLabel('Damage that was there on arrival').fill('Pan dented');
    await page.getByRole('button', { name: /^Bell housing/ }).click();
    await page.getByRole('button', { name: /Dust shield/ }).click();
    await expect(panel(page, 'Grade')).toContainText('Complete but for 1 small parts.');
    await page.getByRole('radio', { name: 'A', exact: true }).click();
    await page.getByRole('button', { name: 'Take it in' }).click();
    await expect(page.getByText('The house rules give grade B').first()).toBeVisible();
    await page.getByRole('radio', { name: 'A', exact: true }).click();
    await page.getByRole('button', { name: 'Take it in' }).click();
    await expect(page.getByRole('heading', { name: 'C-9101' })).toBeVisible();
    await expect(page.getByText('one damage has no picture yet')).toBeVisible();
    await page.getByLabel('Picture of this place').first().setInputFiles('docs/screenshots/yard.png');
    await page.getByRole('button', { name: 'Attach' }).first().click();
    await expect(page.getByText('no picture yet')).toHaveCount(0);
    await expect(page.getByRole('img', { name: /^pan, taken/ })).toBeVisible();
});

test('a lying core is called mixed and confirmed with its foreign parts', async ({ page }) => {
    await signIn(page, 'receiver', '/units/C-0248/identification');
    const clue = (name: string) => page.getByRole('listitem').filter({ hasText: name });
    await clue('Dipstick tube').getByRole('button', { name: 'tube', exact: true }).click();
    await clue('Final drive').getByLabel('Reading (turns)').fill('17,2');
    await clue('Final drive').getByRole('button', { name: 'Take the reading' }).click();
    await expect(page.getByText('no number of turns')).toBeVisible();
    await clue('Final drive').getByLabel('Reading (turns)').fill('17.2');
    await clue('Final drive').getByRole('button', { name: 'Take the reading' }).click();
    await expect(panel(page, 'Which variant is it').getByRole('listitem').first()).toContainText('TX6-F1');
    const mixed = panel(page, 'A mixed core');
    await expect(mixed).toContainText('lever sensor: digital, as on TX6-F2');
    await expect(mixed).toContainText('ordered as a pair by the sensor found');
    await expect(page.getByRole('button', { name: 'Pick the variant first' })).toBeDisabled();
    const decide = page.getByRole('region', { name: 'Decide' });
    await decide.getByRole('radio', { name: 'TX6-F1', exact: true }).click();
    await expect(page.getByLabel('lever sensor from TX6-F2 or TX6-H or TX6-HX')).toBeChecked();
    await page.getByRole('button', { name: 'Confirm TX6-F1 with foreign parts' }).click();
    await expect(panel(page, 'Decided')).toContainText('lever sensor (from TX6-F2');
});

test('what fits this VIN, and where can I get this part', async ({ page }) => {
    await signIn(page, 'receiver', '/units/C-0205/receiving');
    const vin = (await page
        .locator('dd')
        .filter({ hasText: /^4ZHT5[A-Z0-9]{12}$/ })
        .first()
        .textContent())!;
    await page.keyboard.press('x');
    await page.getByLabel('VIN, or maker').fill(vin);
    await page.keyboard.press('Enter');
    await expect(page.getByText('VIN reads right')).toBeVisible();
    const fits = panel(page, /Trusty 5/);
    await expect(fits.getByRole('link').first()).toBeVisible();
    await expect(fits).toContainText('fits as it is');
    await panel(page, 'Ways to make it fit').getByRole('button').first().click();
    await expect(panel(page, 'Ways to make it fit')).toContainText('Reprogram the controller');
    await page.getByRole('radio', { name: 'Where a part is' }).click();
    await page.getByLabel('part number').fill('RD-TB-L1');
    await page.keyboard.press('Enter');
    await expect(panel(page, 'Can stand in for it')).toContainText('RD-TB-L1 → RD-TB-L2 → RD-TB-L, the current number');
    await page.getByLabel('part number').fill('NO-SUCH');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('alert')).toContainText('nothing under this number');
    await page.getByRole('radio', { name: 'What a core fits' }).click();
    await page.getByLabel('core tag or unit serial').fill('C-0219');
    await page.keyboard.press('Enter');
    await expect(panel(page, /C-0219/)).toContainText('as it is');
    await expect(panel(page, 'What such units sold for')).toContainText('median of');
});

test('a window is edited, seen as of last week, and the pack goes out and in without a difference', async ({
    page,
}, info) => {
    await signIn(page, 'manager', '/catalog/entries?kind=packs&key=RD4%7CC1');
    const window = page.getByRole('group', { name: 'window' });
    await window.getByLabel('max').fill('0,034');
    await expect(page.getByText('Write a decimal point: 0.034')).toBeVisible();
    await window.getByLabel('max').fill('0.001');
    await page.getByRole('button', { name: 'Save the change' }).click();
    await expect(page.getByRole('alert').first()).toContainText('window must go from min to max');
    await window.getByLabel('max').fill('0.034');
    await page.getByRole('button', { name: 'Save the change' }).click();
    const history = panel(page, 'History');
    await expect(history.getByRole('listitem').first()).toContainText('0.034');
    await expect(history).toContainText('Mara Quill');
    const lastWeek = new Date(Date.now() - 20 * 86400e3).toISOString().slice(0, 10);
    await page.getByLabel('As it was on').fill(lastWeek);
    await expect(page.getByText(`Looking back to ${lastWeek}`)).toBeVisible();
    await expect(window.getByLabel('max')).toHaveValue('0.032');
    await page.getByRole('button', { name: 'back to now' }).click();
    await expect(window.getByLabel('max')).toHaveValue('0.034');
    await page.getByRole('tab', { name: 'What changed' }).click();
    await expect(page.getByRole('region', { name: /differ/ })).toContainText('0.034');
    await page.getByRole('tab', { name: 'Packs and CSV' }).click();
    const [download] = await Promise.all([
        page.waitForEvent('download'),
        page.getByRole('link', { name: 'Export the catalog' }).click(),
    ]);
    const file = info.outputPath('pack.json');
    await download.saveAs(file);
    expect(JSON.parse(readFileSync(file, 'utf8')).families.length).toBeGreaterThanOrEqual(5);
    await page.getByLabel('Import a pack').setInputFiles(file);
    await page.getByRole('button', { name: 'Import', exact: true }).click();
    await expect(page.getByText(/0 new, 0 changed, \d+ as they were/)).toBeVisible({ timeout: 30_000 });
});

test('a CSV file shows its wrong lines, then its preview, then is written', async ({ page }, info) => {
    await signIn(page, 'manager', '/catalog/entries?tab=Packs+and+CSV');
    const send = async (text: string) => {
        const file = info.outputPath('prices.csv');
        writeFileSync(file, text);
        await page.getByLabel('File', { exact: true }).setInputFiles(file);
        await page.getByRole('button', { name: 'Check it' }).click();
    };
    await send('number,price\nBP-195,21\nNOPE,3\nBP-212,dear\n');
    const latest = page.getByRole('region', { name: 'prices.csv' }).first();
    await expect(latest).toContainText('not taken', { timeout: 20_000 });
    await expect(latest).toContainText('Line 3: There is no part "NOPE"');
    await expect(latest).toContainText('Line 4: The column "price" must be a number');
    await send('number,price\nBP-195,22.50\n');
    await expect(latest.getByRole('button', { name: 'Write 1 line' })).toBeVisible({ timeout: 20_000 });
    await latest.getByRole('button', { name: 'Write 1 line' }).click();
    await expect(latest.getByText('written', { exact: true })).toBeVisible({ timeout: 20_000 });
    await scan(page, 'BP-195');
    await expect(page.getByText('22.50')).toBeVisible();
});

test('the trainer plays a round', async ({ page }) => {
    await signIn(page, 'receiver', '/identification/trainer');
    await page.getByRole('button', { name: 'Deal' }).click();
    await page
        .getByRole('button', { name: /outside, 1$/ })
        .first()
        .click();
    await expect(page.getByText('of the best question')).toBeVisible();
    await page
        .getByRole('heading', { name: 'It is' })
        .locator('xpath=following-sibling::div[1]')
        .getByRole('button')
        .first()
        .click();
    await expect(page.getByText(/^(Right:|It was confirmed as)/).first()).toBeVisible();
    await expect(panel(page, 'Results')).toContainText('of 1 right');
});

test('the statement of a customer can be printed', async ({ page }, info) => {
    await signIn(page, 'manager', '/core-accounts');
    await page
        .getByRole('row', { name: /Lowgate Drivetrain/ })
        .getByRole('link', { name: 'statement' })
        .click();
    await expect(page.getByRole('heading', { name: 'Core statement' })).toBeVisible();
    const pdf = info.outputPath('statement.pdf');
    await page.pdf({ path: pdf, format: 'A4' });
    expect(readFileSync(pdf).subarray(0, 4).toString()).toBe('%PDF');
});
