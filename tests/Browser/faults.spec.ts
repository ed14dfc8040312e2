import { expect, test, type Page } from '@playwright/test';
import { signIn } from './people';

const region = (page: Page, name: string) => page.getByRole('region', { name, exact: true });

for (const colorScheme of ['light', 'dark'] as const) {
    test.describe(`the desk of faults, ${colorScheme}`, () => {
        test.use({ colorScheme });

        test('is broken on paper, asked backwards, and says how long a launch may be held', async ({ page }) => {
            await signIn(page, 'manager', '/power/RD4');

            // One clutch fused: the gears that lock are told.
            const failing = region(page, 'What if an element fails');
            await failing.getByLabel('Element').selectOption('C3');
            await failing.getByRole('button', { name: 'stuck on' }).click();
            await expect(failing.getByRole('row', { name: /^R / })).toContainText('ties up');
            await failing.getByRole('button', { name: /take back/ }).click();

            // No reverse, no first, second slips: two packs are among the first.
            const backwards = region(page, 'From the complaint backwards');
            const say = async (said: Record<string, string>) => {
                for (const [what, state] of Object.entries(said))
                    await backwards.getByLabel(what, { exact: true }).selectOption(state);
            };
            await say({ 'Gear R': 'missing', 'Gear 1': 'missing', 'Gear 2': 'slips', 'Gear 3': 'ok', 'Gear 4': 'ok' });
            await expect(
                backwards
                    .getByRole('listitem')
                    .filter({ hasText: /weak together/ })
                    .first(),
            ).toContainText('C1');

            // Nothing drives, pressure right: the converter first.
            const gone = Object.fromEntries(['1', '2', '3', '4', 'R'].map((g) => [`Gear ${g}`, 'neutral']));
            await say(gone);
            for (const circuit of await backwards.getByLabel(/^Pressure /).all()) await circuit.selectOption('normal');
            await expect(backwards.getByRole('listitem').first()).toContainText(/^Converter/);

            // Third for the first, second for the fourth: one solenoid has both shifts.
            const came = page.getByLabel('Came for 1');
            await came.selectOption('4');
            await page.getByLabel('Came for 2').selectOption('3');
            await expect(page.getByText(/Shift solenoid B/).first()).toBeVisible();

            // A launch, and what no number is.
            const launch = region(page, 'Launch clock');
            await expect(launch.getByText('until the sensor pulls back')).toBeVisible();
            await launch.getByLabel('Speed (rev/min)').fill('fast');
            await expect(launch.getByRole('alert')).toContainText(/speed_rpm|Speed/);
            await expect(region(page, 'Cooler on a grade').getByText('would just do.')).toBeVisible();
            await expect(region(page, 'Losses').getByRole('row', { name: /^1 / })).toContainText('%');
        });
    });
}

test('the trainer deals a fault, looks cost, and the cause is scored', async ({ page }) => {
    await signIn(page, 'manager', '/power/LP6');
    await page.getByRole('button', { name: 'Deal one fault' }).click();
    await page.getByRole('button', { name: /drive gear 1/ }).click();
    const cause = page.getByLabel('The cause');
    await cause.selectOption({ index: 1 });
    await page.getByRole('button', { name: 'That is it' }).click();
    await expect(page.getByText(/^It was .+With your looks the engine gives it/)).toBeVisible();
});
