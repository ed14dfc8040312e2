import { execFileSync } from 'node:child_process';
import { expect, test, type Locator, type Page } from '@playwright/test';
import { inHand, prove, signSubs, withoutNetwork, workThrough } from './bench';
import { expectAt, scan, signIn, pickCustomer } from './people';

/** The rig's own console: what ails the unit on it. */
const rig = (...words: string[]) =>
    execFileSync('php', ['rig/console.php', '--state', process.env.YARD_RIG_STATE ?? 'storage/shop/rig', ...words]);

const TAG = `C-${String(Date.now()).slice(-7)}`;

const panel = (page: Page, name: string): Locator => page.getByRole('region', { name, exact: true });

/** Opens a section of the route card by its tab. */
const section = (page: Page, name: string) =>
    page.getByRole('navigation', { name: 'Sections of the route card' }).getByRole('link', { name }).click();

test('one physical unit goes from "a core arrives" to "the rebuilt unit came back and we know why"', async ({
    page,
}) => {
    test.setTimeout(420_000);
    const errors: string[] = [];
    page.on('pageerror', (e) => errors.push(e.message));

    await test.step('1 receive', async () => {
        await signIn(page, 'receiver', '/receiving');
        await page.getByLabel('Core tag').fill(TAG);
        await page.getByRole('radio', { name: 'Kestrel RD4, rear-drive four-speed' }).click();
        await page.getByLabel('Vehicle').fill('Hallowmere Trusty 5, 4.2 V8');
        await page.getByLabel('VIN', { exact: true }).fill('3XYRN25D8A8654321');
        await page.getByLabel('Odometer').fill('61000 mi');
        await page.getByLabel("Complaint, in the owner's words").fill('No third or fourth, engine runs up');
        await page.getByLabel('Stored codes').fill('P0730');
        await page.getByRole('button', { name: /^Pan/ }).click();
        await page
            .getByRole('radiogroup', { name: 'Colour of the fluid' })
            .getByRole('radio', { name: 'black' })
            .click();
        await page
            .getByRole('button', { name: /^Bell housing/ })
            .first()
            .click();
        await page.getByRole('button', { name: /^Dust shield/ }).click();
        await page.getByLabel('Repair hours').fill('1.5');
        await expect(panel(page, 'Credit')).toContainText('201.50');
        await page.getByRole('button', { name: 'Take it in' }).click();
        await expect(page.getByText('The check digit of the VIN does not agree')).toBeVisible();
        await page.reload(); // nothing typed is lost
        await expect(page.getByLabel("Complaint, in the owner's words")).toHaveValue(
            'No third or fourth, engine runs up',
        );
        await page.getByLabel('VIN', { exact: true }).fill('3XYRN25D9A8654321');
        await page.getByRole('button', { name: 'Take it in' }).click();
        await expect(page.getByRole('heading', { name: TAG })).toBeVisible();
    });

    await test.step('2 identify', async () => {
        const next = panel(page, 'Look at this next');
        await next.getByRole('button', { name: 'black', exact: true }).click();
        await next.getByRole('button', { name: '16', exact: true }).first().click();
        await next.getByLabel('Reading (mm)').first().fill('2.44 in');
        await page.keyboard.press('Enter');
        await expect(panel(page, 'Answered')).toContainText('61.976 mm');
        await expect(panel(page, 'Which variant is it').getByRole('listitem').first()).toContainText('RD4-M');
        await panel(page, 'Decide').getByRole('radio', { name: 'RD4-M', exact: true }).click();
        await page.getByRole('button', { name: 'Confirm RD4-M' }).click();
        await expectAt(page, 'Ordering');
    });

    await test.step('3 specify', async () => {
        await signIn(page, 'manager');
        await scan(page, TAG);
        await section(page, 'Ordering');
        await page.getByRole('radio', { name: 'Tow', exact: true }).click();
        await pickCustomer(page, 'Customer', 'Nordhaul Fleet');
        await expect(panel(page, 'What stays out')).toContainText('servo spacer');
        await page.getByRole('button', { name: 'Take off Converter charge' }).click();
        // What needs it goes along, and says so.
        await expect(panel(page, 'What stays out')).toContainText('thrust bearing');
        await page.getByRole('button', { name: /^Could be added/ }).click();
        await page.getByRole('button', { name: 'Add Converter charge' }).click();
        await page.getByRole('button', { name: 'Release the build' }).click();
        await expect(page.getByText('Tell the customer first')).toBeVisible();
        for (const box of await panel(page, 'Price and hours').getByRole('checkbox').all()) await box.check();
        await page.getByRole('button', { name: 'Release the build' }).click();
        await expect(page.getByRole('heading', { level: 1 })).toContainText('VY-');
    });
    const serial = (await page.getByRole('heading', { level: 1 }).textContent())!;

    await test.step('4 teardown', async () => {
        await signIn(page, 'teardown');
        await scan(page, serial);
        await section(page, 'Teardown');
        for (const [gear, state] of [
            ['1', 'ok'],
            ['2', 'ok'],
            ['3', 'slips'],
            ['4', 'slips'],
        ] as const) {
            await page
                .getByRole('group', { name: `Gear ${gear}` })
                .getByRole('button', { name: state })
                .click();
            await expect(
                page.getByRole('group', { name: `Gear ${gear}` }).getByRole('button', { name: state }),
            ).toHaveAttribute('aria-pressed', 'true');
        }
        await expect(panel(page, 'Suspects').locator('ol > li').first()).toContainText('C3');
        await workThrough(page, {}, 'converter-out');
        await withoutNetwork(page, 3);
        await workThrough(page, { 'high-frictions': ['black', 'replace', 'the cause'] }, 'pump');
        await page.getByRole('button', { name: 'It will not go' }).click();
        await page.getByLabel('What jams?').fill('The puller slips off');
        await page.getByRole('button', { name: 'Write it down' }).click();
        await expect.poll(() => inHand(page)).toBe('pump-pressed/count'); // another way
        await workThrough(page, { 'high-frictions': ['black', 'replace', 'the cause'] });
        await expect(panel(page, 'Inspection')).toContainText('black, replace');
        await page.getByRole('button', { name: 'Teardown is complete' }).click();
        await expectAt(page, 'Assembly');
    });

    await test.step('5 assemble', async () => {
        await signIn(page, 'builder');
        await scan(page, serial);
        await section(page, 'Assembly');
        await page.getByRole('button', { name: 'Sign for the assembly' }).click();
        await expect(page.getByText('This build cannot be signed off')).toBeVisible();
        await withoutNetwork(page, 3);
        await workThrough(page, {}, 'pack-C1');
        await prove(page);
        await page.getByLabel(/^Reading/).fill('25 psi');
        await page.getByLabel('Gauge', { exact: true }).selectOption('F-01');
        await page.keyboard.press('Enter');
        await expect(page.getByText('this field takes a length')).toBeVisible();
        await workThrough(page);
        await signSubs(page);
        await expect(page.getByText('Everything is measured and inside its window.')).toBeVisible();
        await page.getByRole('button', { name: 'Sign for the assembly' }).click();
        await expectAt(page, 'Dyno');
    });

    await test.step('6 dyno: a flaring unit fails, is opened, measured again and passes', async () => {
        await signIn(page, 'dyno');
        await scan(page, serial);
        await section(page, 'Dyno');
        rig('set', serial, 'slow-accumulator:C3:0.95');
        await page.getByRole('button', { name: 'Start the run in cell A' }).click();
        await expect(page.getByText(/running, [1-9]/)).toBeVisible({ timeout: 20_000 });
        await page.reload(); // the run goes on without the browser, and the live trace comes back
        await expect(panel(page, 'Against the limits')).toContainText('Shift delay', { timeout: 60_000 });
        await expect(panel(page, 'Suspects by this run').getByRole('listitem').first()).toContainText('C3');
        rig('clear', serial);
        await page.getByRole('radio', { name: 'Pass', exact: true }).click();
        await page.getByRole('button', { name: 'Pass the unit on' }).click();
        await expect(page.getByText('this run is no pass').first()).toBeVisible();
        await page.getByRole('radio', { name: 'Fail', exact: true }).click();
        await page.getByLabel('Element suspected').selectOption('C3');
        await page.getByLabel('Reason').fill('Runs up between second and third');
        await page.getByRole('button', { name: 'Fail it and send it back to the bench' }).click();
        await expectAt(page, 'Assembly');

        await signIn(page, 'builder');
        await scan(page, serial);
        await section(page, 'Assembly');
        await expect(panel(page, 'Sign-off')).toContainText('must be measured again after the test it failed');
        await workThrough(page); // the pack and its air check, and nothing else
        await expect(page.getByText('Everything is measured and inside its window.')).toBeVisible();
        await page.getByRole('button', { name: 'Sign for the assembly' }).click();
        await expectAt(page, 'Dyno');

        await signIn(page, 'dyno');
        await scan(page, serial);
        await section(page, 'Dyno');
        await page.getByRole('button', { name: 'Start the run in cell A' }).click();
        await expect(panel(page, 'Against the limits')).toContainText('all inside', { timeout: 60_000 });
        await page.getByRole('radio', { name: 'Pass', exact: true }).click();
        await page.getByRole('button', { name: 'Pass the unit on' }).click();
        await expectAt(page, 'Dispatch');
    });

    await test.step('7 ship', async () => {
        await section(page, 'Dispatch');
        await expect(panel(page, 'Delivery sheet')).toContainText('28.5 to 32 mm');
        await page.getByLabel('Carrier').fill('Own lorry');
        await page.getByRole('button', { name: 'Papers complete: ship it' }).click();
        await expect(page.getByText('This unit does not leave the house').first()).toBeVisible();
        await expect(page.getByRole('list', { name: 'Still open' })).toContainText('Set the level hot');
        await workThrough(page, {}, 'label');
        await page.getByLabel('Scan the unit label').fill('VY-26-9999');
        await page.keyboard.press('Enter');
        await expect(page.getByText('"VY-26-9999" is not the label of this unit.')).toBeVisible();
        await workThrough(page);
        await expect(page.getByRole('list', { name: 'Still open' })).toHaveCount(0);
        await page.getByRole('button', { name: 'Papers complete: ship it' }).click();
        await expect(page.getByText('With the customer')).toBeVisible();
        await page.getByRole('link', { name: 'open to print' }).click();
        await expect(page.getByRole('img', { name: `Barcode ${serial}` })).toBeVisible();
    });

    await test.step('8 return', async () => {
        await signIn(page, 'returns');
        await scan(page, serial);
        await section(page, 'Returns');
        await page.getByLabel("Complaint, in the owner's words").fill('Slips in reverse and first');
        await page.getByLabel('Fitted on').fill('2026-01-10');
        await page.getByLabel('Failed on').fill('2026-01-05');
        await page.getByRole('button', { name: 'Open a return' }).click();
        await expect(page.getByText('cannot have failed before it was installed').first()).toBeVisible();
        await page.getByLabel('Failed on').fill('2026-02-20');
        await page.getByRole('button', { name: 'Open a return' }).click();
        await inHand(page);
        await withoutNetwork(page, 2);
        await workThrough(page);
        const evidence = panel(page, 'Evidence');
        for (const [question, value] of [
            ['Which plates are burnt', 'low and reverse packs'],
            ['Vehicle codes', 'overheat'],
            ['Planet pinions', 'bright'],
            ['Cooler and lines', 'new or flushed'],
            ['Fluid when it came in', 'right'],
        ] as const) {
            const button = evidence.getByRole('group', { name: question }).getByRole('button', { name: value });
            await button.click();
            await expect(button).toHaveAttribute('aria-pressed', 'true');
        }
        await expect(evidence).toContainText('From the record: The installer sent no converter depth.');
        await expect(panel(page, 'Whose fault is it').getByRole('listitem').first()).toContainText('Abuse');
        await page.getByLabel('High clutch pack now').fill('.062');
        await page.keyboard.press('Enter');
        await expect(panel(page, 'Then and now')).toContainText('0.062 in');
        await page.getByRole('radiogroup', { name: 'Cause' }).getByRole('radio', { name: 'Abuse' }).click();
        await page.getByRole('button', { name: 'Give the verdict' }).click();
        await expect(page.getByText('Verdict: Abuse')).toBeVisible();
        await page.getByRole('button', { name: 'Open the second build' }).click();
        await expectAt(page, 'Ordering');
        await expect(page.getByText('generation 2')).toBeVisible();
        await section(page, 'History');
        await expect(page.getByRole('cell', { name: 'return decided' })).toBeVisible();
    });
    expect(errors).toEqual([]);
});
