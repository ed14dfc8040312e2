import { expect, test } from '@playwright/test';
import { signIn } from './people';

test('a new train is entered, solved as typed, drawn, and kept as a family', async ({ page }) => {
    await signIn(page, 'manager', '/power/new');
    // Ring held, sun in, carrier out: 1 + 72/30 (Willis).
    await expect(page.getByRole('heading', { name: 'Gear 1: 3.400' })).toBeVisible();
    await page.getByLabel('Sun teeth of P1').fill('0');
    await expect(page.getByRole('alert').first()).toContainText('sunTeeth');
    await page.getByLabel('Sun teeth of P1').fill('36');
    await expect(page.getByRole('heading', { name: 'Gear 1: 3.000' })).toBeVisible();
    await page.getByLabel('Second shaft of C1').fill('in');
    await expect(page.getByRole('alert').first()).toContainText('ties the shaft "in" to itself');
    await page.getByLabel('Second shaft of C1').fill('sun');
    await page.getByLabel('B2 in gear 1').check();
    await expect(page.getByText('two gears at once')).toBeVisible();
    await page.getByLabel('B2 in gear 1').uncheck();
    await expect(page.getByRole('img', { name: /Power flow. Gear 1, ratio 3.000; applied C1, B1/ })).toBeVisible();
    await page.reload();
    await expect(page.getByLabel('Sun teeth of P1')).toHaveValue('36');
    await page.getByLabel('Code', { exact: true }).fill('own3');
    await page.getByLabel('Name', { exact: true }).fill('A train of our own');
    await page.getByRole('button', { name: 'Write it into the catalog' }).click();
    await expect(page.getByRole('radio', { name: 'OWN3' })).toBeChecked();
    await expect(page.getByRole('heading', { name: 'Gear 1: 3.000' })).toBeVisible();
});

test('every family draws each of its gears', async ({ page }) => {
    await signIn(page, 'viewer');
    for (const [family, gears] of [
        ['RD4', ['1', '2', '3', '4', 'R']],
        ['OV3', ['1', '4', 'R']],
        ['LP6', ['1', '5', '6', 'R']],
        ['TX6', ['2', '6', 'R']],
        ['GV5', ['3', '5', 'R']],
    ] as const) {
        await page.goto(`/power/${family}`);
        for (const gear of gears) {
            await page
                .getByRole('radiogroup', { name: 'Gear' })
                .getByRole('radio', { name: gear, exact: true })
                .click();
            await expect(
                page.getByRole('img', { name: new RegExp(`Power flow. Gear ${gear}, ratio -?[0-9.]+; applied`) }),
            ).toBeVisible();
        }
        await expect(page.getByRole('region', { name: 'Shift by shift' })).toContainText('kJ');
    }
});

test('a tow order above the stock limit gets the cheapest package that holds, told clashes, and a quote', async ({
    page,
}) => {
    await signIn(page, 'manager', '/units/C-0219/ordering');
    await page.getByRole('radio', { name: 'Daily' }).click();
    const hold = page.getByRole('region', { name: 'What it can hold' });
    await expect(hold).toContainText('good for 418 N.m');
    await page.getByLabel('Engine torque').fill('350 lbf.ft');
    await expect(hold).toContainText('this order has 475');
    await expect(page.getByRole('region', { name: 'What goes in' })).toContainText(
        'With "Stock pressure spring" in its place C3 in gear 4 at 50 % throttle has a margin of 1.01',
    );
    await page.getByLabel('Engine torque').fill('350 psi');
    await expect(page.getByText('is a pressure; this field takes a torque')).toBeVisible();
    await page.getByLabel('Engine torque').fill('350 lbf.ft');
    await page.getByRole('button', { name: /^Could be added/ }).click();
    await page.getByRole('button', { name: 'Add Deep pan' }).click();
    await expect(page.getByRole('region', { name: 'What goes in' })).toContainText('needs "Long-neck filter"');
    await page.getByRole('tab', { name: 'Packages side by side' }).click();
    await expect(page.getByRole('region', { name: 'Packages side by side' })).toContainText('Weakest margin');
    await page.getByLabel('Engine torque').fill('780');
    await expect(page.getByText('It does not hold.')).toBeVisible();
    await page.getByLabel('Engine torque').fill('1300');
    await expect(page.getByText('it slips and heats the fluid').first()).toBeVisible();
    await page.getByLabel('Engine torque').fill('350 lbf.ft');
    await page.getByRole('tab', { name: 'Pulling away and shifting' }).click();
    const drive = page.getByRole('region', { name: 'Pulling away and shifting' });
    await page.getByLabel('Mass with trailer').fill('4200');
    await expect(drive).toContainText('pulls 4200 kg on a grade of 12 % away');
    await page.getByLabel('Pulls away on').fill('45');
    await expect(drive).toContainText('Hangs');
    await page.getByLabel('Tyre').fill('large');
    await expect(page.getByText('"large" is no tyre size')).toBeVisible();
    await page.getByLabel('Tyre').fill('265/70R17');
    await page.getByLabel('Pulls away on').fill('12');
    await expect(drive).toContainText('stay in');
    await page.getByRole('radio', { name: 'lining pressure' }).click();
    await expect(hold).toContainText(/1\.\d \/ 4\.0/);
    await page.getByRole('button', { name: 'Save the draft' }).click();
    await page.getByRole('link', { name: 'Compare on paper' }).click();
    await expect(page.getByRole('heading', { name: 'Packages compared' })).toBeVisible();
    await expect(page.getByText('4200 kg, axle')).toBeVisible();
    await expect(page.getByRole('row', { name: /Heat of pulling away \d+ kJ/ })).toBeVisible();
    await page.getByRole('link', { name: 'back to the order' }).click();
    await page.getByRole('link', { name: 'Quote' }).click();
    await expect(page.getByRole('heading', { name: 'Quote' })).toBeVisible();
    await expect(page.getByRole('region', { name: 'What else could be done' })).toContainText('Rebuild this one');
});

test('an accumulator option is weighed by the shift it makes, and a spring typed by hand answers at once', async ({
    page,
}) => {
    await signIn(page, 'manager', '/power/RD4');
    const feel = page.getByRole('region', { name: 'Feel: Second and fourth band, 1 to 2' });
    const cell = async (row: RegExp, column: number) =>
        Number.parseFloat(await feel.getByRole('row', { name: row }).getByRole('cell').nth(column).innerText());
    await expect(feel.getByRole('row', { name: /Then pulls the input down in/ })).toContainText(/[0-9.]+ s/);
    const [before, after] = [await cell(/Takes over after/, 0), await cell(/Takes over after/, 1)];
    expect(after).toBeLessThan(before); // the first option offered has stiffer springs
    await feel
        .getByRole('group', { name: 'After' })
        .getByLabel('Build')
        .selectOption({ label: 'Accumulators blocked solid' });
    await expect(feel.getByText('No spring: the piston is blocked.')).toBeVisible();
    await expect.poll(() => cell(/Takes over after/, 1)).toBe(0);
    await feel.getByRole('group', { name: 'Before' }).getByLabel('Feed orifice (mm)').fill('1.4');
    await expect.poll(() => cell(/Takes over after/, 0)).toBeGreaterThan(before);
    await feel.getByRole('group', { name: 'Before' }).getByLabel('Stroke (mm)').fill('90');
    await expect(
        feel.getByRole('group', { name: 'Before' }).getByText(/presses a spring below its solid length/),
    ).toBeVisible();
    await feel.getByRole('radio', { name: '2 to 3' }).click();
    const direct = page.getByRole('region', { name: 'Feel: High clutch, 2 to 3' });
    await direct.getByLabel('Old gear lets go at (s)').first().fill('0.01');
    await direct.getByLabel('Old gear lets go at (s)').last().fill('0.3');
    await expect(direct.getByRole('row', { name: /Old gear lets go/ })).toContainText(
        /flare.*the input runs up \d+ rev\/min.*tie-up.*the output falls to -?\d+ N\.m/s,
    );
});
