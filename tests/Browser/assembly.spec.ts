import { expect, test, type Locator, type Page } from '@playwright/test';
import { handsKnow, inHand, prove, signSubs, workThrough } from './bench';
import { fill, next, pick, press, useKeysAlone } from './hands';
import { expectAt, signIn } from './people';

const KEYED = 'C-0245';
const TRANSAXLE = 'C-0241';

test.afterEach(() => {
    useKeysAlone(false);
    handsKnow('RD4');
});

const panel = (page: Page, name: string): Locator => page.getByRole('region', { name, exact: true });

test('a line of the order is taken from the lot in hand, and put back', async ({ page }) => {
    await signIn(page, 'builder', '/');
    const card = await page.request.get('/api/units?station=assembly');
    const tag = ((await card.json()) as { units: { coreTag: string }[] }).units[0]!.coreTag;
    await page.goto(`/units/${tag}/assembly`);
    const picks = panel(page, 'Parts of the order');
    const lines = picks.getByRole('listitem').filter({ hasText: 'On the shelf:' });
    const text = (await lines.first().textContent()) ?? '';
    const name = /× (.*?) [A-Z0-9-]+\d/.exec(text)?.[1] ?? '';
    const lot = /On the shelf: (\S+) \(/.exec(text)?.[1] ?? '';
    const line = picks.getByRole('listitem').filter({ hasText: name });
    await line.getByRole('button', { name: `Pick ${name}` }).click();
    await line.getByLabel('Scan the lot').fill('NO-SUCH-LOT');
    await page.keyboard.press('Enter');
    await expect(line.getByText('There is no lot "NO-SUCH-LOT" on the shelf.')).toBeVisible();
    await line.getByLabel('Scan the lot').fill(lot);
    await page.keyboard.press('Enter');
    await expect(line).toContainText(`from ${lot}`);
    await line.getByRole('button', { name: `Put back ${name}` }).click();
    await expect(line).not.toContainText(`from ${lot}`);
    const record = await page.request.get(`/api/units/${tag}/assembly/record.pdf`);
    expect((await record.body()).subarray(0, 5).toString()).toBe('%PDF-');
});

test('a gauge found bad names what it left in doubt, and a place shows what the bench reaches', async ({ page }) => {
    await signIn(page, 'manager', '/gauges');
    await page.getByRole('button', { name: /T-03/ }).click();
    await page.getByRole('button', { name: 'Write the check down' }).click();
    await expect(page.getByText('Say what the standard showed.')).toBeVisible();
    await page.getByRole('radio', { name: 'bad' }).click();
    await page.getByRole('button', { name: 'Write the check down' }).click();
    await expect(page.getByText('Say what is wrong with it.')).toBeVisible();
    await page.getByLabel('Note').fill('The pointer is bent.');
    await page.getByRole('button', { name: 'Write the check down' }).click();
    await expect(page.getByText('found bad')).toBeVisible();
    await expect(panel(page, 'In doubt')).toContainText('since it was last good');
    const due = `${new Date().getFullYear() + 1}-06-30`;
    await page.getByRole('radio', { name: 'good' }).click();
    await page.getByLabel(/^Due again/).fill(due);
    await page.getByRole('button', { name: 'Write the check down' }).click();
    await expect(page.getByText('found bad')).toHaveCount(0);
    await page.goto('/processes');
    await page.getByLabel('Family').selectOption('RD4');
    await page.getByLabel('Place').selectOption('pack/C1');
    await expect(page.getByText(/^Cpk: /)).toBeVisible();
    await expect(page.getByRole('img', { name: 'Forward clutch pack build by build' })).toBeVisible();
});

test('a whole unit goes together with nothing but keys', async ({ page }) => {
    test.setTimeout(600_000);
    handsKnow('GV5');
    await signIn(page, 'teardown', `/units/${KEYED}/teardown`);
    await workThrough(page);
    await page.getByLabel(/No cause was found/).check();
    await page.getByRole('button', { name: 'Teardown is complete' }).click();
    await expectAt(page, 'Assembly');
    await signIn(page, 'builder', `/units/${KEYED}/assembly`);
    useKeysAlone(true);
    const sign = page.getByRole('button', { name: 'Sign for the assembly' });

    await test.step('the soak runs on through a reload; a dry pack goes in by name only', async () => {
        await workThrough(page, {}, 'soak');
        await next(page);
        const running = page.getByRole('button', { name: /soaking in fresh fluid: \d+:\d\d/ });
        await expect(running).toBeVisible();
        await page.reload();
        await press(running);
        await next(page);
        await expect(page.getByText('Say why soaking is not waited for.')).toBeVisible();
        await fill(page.getByLabel(/^Not waited for/), 'They lay in fluid over night');
        await next(page);
        await expect(running).toHaveCount(0);
    });
    await test.step('a gauge past its date proves nothing', async () => {
        await workThrough(page, {}, 'rear-brake');
        while ((await inHand(page)) !== 'rear-brake/reading-pack-b2') await prove(page);
        const shown = (await page.locator('[data-proof]').textContent()) ?? '';
        await fill(page.getByLabel(/^Reading/), /Predicted ([\d.]+)/.exec(shown)?.[1] ?? '');
        await pick(page.getByLabel('Gauge', { exact: true }), 'F-02');
        await next(page);
        await expect(page.getByText('was past its calibration date').first()).toBeVisible();
    });
    await test.step('the sign-off is refused until all is right', async () => {
        await workThrough(page, {}, 'solenoids');
        await press(sign);
        await expect(page.getByText('This build cannot be signed off')).toBeVisible();
        await workThrough(page);
        await press(sign);
        await expect(page.getByText(/is not signed for/).first()).toBeVisible();
        await signSubs(page);
        await press(sign);
        await expectAt(page, 'Dyno');
    });
});

test('a transaxle: two steels mixed, a gun that leaks, a steel bolt in magnesium', async ({ page }) => {
    test.setTimeout(600_000);
    handsKnow('TX6');
    await signIn(page, 'teardown', `/units/${TRANSAXLE}/teardown`);
    await workThrough(page);
    await page.getByLabel(/No cause was found/).check();
    await page.getByRole('button', { name: 'Teardown is complete' }).click();
    await expectAt(page, 'Assembly');
    await signIn(page, 'builder', `/units/${TRANSAXLE}/assembly`);
    const until = async (proof: string) => {
        for (let at = await inHand(page); at !== proof; at = await inHand(page)) {
            expect(at, `${proof} comes before the end`).not.toBe('');
            await prove(page);
        }
    };

    await test.step('no one thickness of steel fits this depth', async () => {
        await until('pack-C1/fit-pack-c1');
        await fill(page.getByLabel('Groove depth'), '30.54');
        await next(page);
        const best = page.locator('[data-proof]').getByText(/^Best from the shelf/);
        await expect(best).toContainText('2 × TX-ST-069, 4 × TX-ST-084');
        await next(page);
        await expect.poll(() => inHand(page)).not.toBe('pack-C1/fit-pack-c1');
    });
    const firstOf = async (kind: string) => {
        for (let at = await inHand(page); !at.includes(`/${kind}-`); at = await inHand(page)) await prove(page);
        return inHand(page);
    };
    await test.step('a steel bolt does not go into the magnesium case', async () => {
        const before = await firstOf('metal');
        await press(page.getByRole('radio', { name: 'steel', exact: true }));
        await next(page);
        await expect(page.getByText('Steel in magnesium eats the hole').first()).toBeVisible();
        expect(await inHand(page)).toBe(before);
    });
    await test.step('what leaked was the gun: the second reading stands beside the first', async () => {
        const before = await firstOf('air');
        await fill(page.getByLabel(/^Reading/), '25');
        await pick(page.getByLabel('Gauge', { exact: true }), 'P-01');
        await next(page);
        await expect(page.getByText('the pressure loss of 25 psi lies outside 0 to 6.').first()).toBeVisible();
        expect(await inHand(page)).toBe(before);
        await prove(page);
    });
    await test.step('all of it goes together; what the customer has not answered bars the sign-off', async () => {
        await workThrough(page);
        await signSubs(page);
        await press(page.getByRole('button', { name: 'Sign for the assembly' }));
        await expect(page.getByText(/cannot be signed off: The customer has not answered yet/).first()).toBeVisible();
    });
});
