import { execFileSync } from 'node:child_process';
import { expect, test, type Page } from '@playwright/test';
import { signIn } from './people';

/** The console of cell A: what ails the unit on it. */
const rig = (...words: string[]) =>
    execFileSync('php', ['rig/console.php', '--state', process.env.YARD_RIG_STATE ?? 'storage/shop/rig', ...words]);

const cell = (page: Page) => page.getByRole('region', { name: 'Cell A', exact: true });

async function runReference(page: Page) {
    await cell(page)
        .getByRole('button', { name: /^Run VY-/ })
        .click();
    await expect(cell(page).getByText(/the reference unit runs/)).toBeVisible();
    await expect(cell(page).getByRole('button', { name: /^Run VY-/ })).toBeVisible({ timeout: 90_000 });
}

test('a torque cell that drifts is told by the reference unit, and nothing passes until it is right again', async ({
    page,
}) => {
    test.setTimeout(300_000);
    await signIn(page, 'dyno', '/dyno/cells');
    const serial =
        (
            await cell(page)
                .getByRole('button', { name: /^Run VY-/ })
                .textContent()
        )?.split(' ')[1] ?? '';
    await runReference(page);
    await expect(cell(page).getByText('shows what it should')).toBeVisible();
    rig('set', serial, 'drifting-torque-cell::0.3');
    try {
        await runReference(page);
        await expect(cell(page).getByText('drifted', { exact: true })).toBeVisible();
        await expect(
            cell(page)
                .getByText(/^torque out over torque in/)
                .first(),
        ).toBeVisible();
        await page.goto('/units/C-0213/dyno');
        await page.getByRole('radio', { name: 'Pass', exact: true }).click();
        await page.getByRole('button', { name: 'Pass the unit on' }).click();
        await expect(page.getByText(/Cell A drifted at its last reference run/).first()).toBeVisible();
        await expect(page.getByText('drifted: nothing passes in it')).toBeVisible();
    } finally {
        rig('clear', serial);
    }
    await page.goto('/dyno/cells');
    await runReference(page);
    await expect(cell(page).getByText('shows what it should')).toBeVisible();
});

test('a recording of another rig is read by its columns, and is no verdict', async ({ page }) => {
    test.setTimeout(120_000);
    await signIn(page, 'dyno', '/units/C-0213/dyno');
    await page.getByRole('button', { name: /Look at a recording/ }).click();
    const lines = Array.from({ length: 3000 }, (_, k) => `${k * 10};${(200 + (k % 7)).toFixed(1)};900;6,5`);
    const buffer = Buffer.from(`Logger 7\nTime;Engine;Out;Line\n${lines.join('\n').replaceAll('.', ',')}\n`);
    const file = page.getByLabel(/CSV file/);
    await file.setInputFiles({ name: 'diary.txt', mimeType: 'text/plain', buffer: Buffer.from('dear diary') });
    await expect(page.getByText(/No line of names/)).toBeVisible();
    await file.setInputFiles({ name: 'drive.csv', mimeType: 'text/csv', buffer });
    for (const [label, column, unit] of [
        ['Time', 'Time', 'ms'],
        ['Speed in', 'Engine', 'rad/s'],
        ['Speed out', 'Out', 'rpm'],
        ['Line pressure', 'Line', 'rpm'],
    ] as const) {
        await page.getByLabel(label, { exact: true }).selectOption(column);
        const units = page.getByLabel(`${label}, in`, { exact: true });
        await (label === 'Line pressure' ? units.selectOption('bar') : units.selectOption(unit));
    }
    await page.getByRole('button', { name: 'Read it' }).click();
    await expect(page.getByText('file drive.csv')).toBeVisible({ timeout: 60_000 });
    await expect(page.getByRole('img', { name: /Speeds and line pressure/ })).toBeVisible({ timeout: 60_000 });
    await expect(page.getByRole('radio', { name: 'Pass', exact: true })).toHaveCount(0);
});

test('a program is gone through before anybody runs it', async ({ page }) => {
    await signIn(page, 'manager', '/catalog/entries?kind=testPrograms&family=RD4&key=RD4%7Cstandard');
    const dry = page.getByRole('region', { name: 'Dry run' });
    await expect(dry).toContainText('nothing is missing');
    await expect(dry).toContainText('1-2 at 35 %, 55 %');
    await expect(dry).toContainText('4-3 at 42 %, 30 %');
});
