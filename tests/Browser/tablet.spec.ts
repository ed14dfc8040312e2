import { expect, test, type Page } from '@playwright/test';
import { handsKnow, inHand, prove, withoutNetwork, workThrough } from './bench';
import { signIn } from './people';

test.use({ serviceWorkers: 'allow' });

/** The tablet has kept the program: the worker is in charge of this page. */
async function programKept(page: Page) {
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
    await page.reload();
    await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
}

test.afterEach(() => handsKnow('RD4'));

test('a tablet loaded anew without a network goes on where it was, and sends what it took', async ({ page }) => {
    await signIn(page, 'teardown', '/units/C-0217/teardown');
    await inHand(page);
    await programKept(page);
    const before = await inHand(page);

    await page.context().setOffline(true);
    await prove(page);
    const taken = await inHand(page);
    expect(taken).not.toBe(before);
    await page.reload();
    await expect(page.getByText('No network')).toBeVisible();
    expect(await inHand(page), 'what was taken is still laid over').toBe(taken);
    await expect(page.getByRole('img', { name: /^Section drawing .* In hand/ })).toBeVisible();
    await expect(page.getByText('1 entry waits for the network')).toBeVisible();
    await page.getByRole('button', { name: /Pell/ }).click();
    await expect(page.getByRole('menuitem', { name: 'Switch badge (needs the network)' })).toBeDisabled();
    await page.keyboard.press('Escape');

    await page.context().setOffline(false);
    await expect(page.getByText('No network')).toHaveCount(0, { timeout: 20_000 });
    await expect(page.getByText('waits for the network')).toHaveCount(0, { timeout: 20_000 });
    await page.reload();
    expect(await inHand(page), 'the server has it').toBe(taken);
    await withoutNetwork(page, 2);
});

test('the session that ran out while the network was gone asks for its PIN, then sends', async ({ page }) => {
    await signIn(page, 'teardown', '/units/C-0217/teardown');
    await inHand(page);
    await programKept(page);
    await page.context().setOffline(true);
    await prove(page);
    const taken = await inHand(page);
    await page.context().clearCookies();
    await page.context().setOffline(false);
    await expect(page.getByLabel('PIN', { exact: true })).toBeVisible({ timeout: 20_000 });
    await page.getByLabel('Badge').fill('102');
    await page.getByLabel('PIN', { exact: true }).fill('204685');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByText('waits for the network')).toHaveCount(0, { timeout: 20_000 });
    await expect.poll(() => inHand(page)).toBe(taken);
    await page.reload();
    expect(await inHand(page), 'the server has it').toBe(taken);
});

test('what the tablet keeps opens no door: nobody is in who was not', async ({ page }) => {
    await signIn(page, 'viewer');
    await programKept(page);
    await page.getByRole('button', { name: /Guest/ }).click();
    await page.getByRole('menuitem', { name: 'Switch badge' }).click();
    await expect(page.getByLabel('PIN', { exact: true })).toBeVisible();
    await page.context().setOffline(true);
    await page.reload();
    await expect(page.getByLabel('PIN', { exact: true })).toBeVisible();
    await expect(page.locator('#badge')).toHaveCount(0);
});

test('a soak runs on through a reload, with and without the network', async ({ page }) => {
    handsKnow('LP6');
    await signIn(page, 'builder', '/units/C-0235/assembly');
    expect(await inHand(page)).toBe('clean/done');
    await workThrough(page, {}, 'soak');
    expect(await inHand(page)).toMatch(/^soak\/timer/);
    await page.getByRole('button', { name: 'Right, next' }).click();
    const clock = page.getByRole('button', { name: /soaking.*: \d+:\d\d$/ });
    const left = async () => {
        const [, m, s] = /(\d+):(\d\d)$/.exec((await clock.textContent()) ?? '') ?? [];
        return Number(m) * 60 + Number(s);
    };
    const begun = await left();
    expect(begun).toBeGreaterThan(29 * 60);
    await programKept(page);
    await expect.poll(left).toBeLessThan(begun);
    const later = await left();
    await page.context().setOffline(true);
    await page.reload();
    await expect.poll(left).toBeLessThan(later);
    await page.context().setOffline(false);
    // What stands on the soak waits for it.
    await expect(page.getByRole('button', { name: /pack stacked and measured: waits/ }).first()).toBeDisabled();
});

test('a note is spoken with full hands, also without a network, and heard again', async ({ page, context }) => {
    await context.grantPermissions(['microphone']);
    await signIn(page, 'teardown', '/units/C-0218/teardown');
    await inHand(page);
    await context.setOffline(true);
    await page.getByRole('button', { name: 'Speak' }).click();
    await expect(page.getByText('listening, 1 of 120 s')).toBeVisible();
    await page.getByRole('button', { name: 'Keep what I said' }).click();
    await expect(page.getByText('1 entry waits for the network')).toBeVisible();
    await page.getByRole('button', { name: 'Speak' }).click();
    await page.getByRole('button', { name: 'Drop it' }).click();
    await expect(page.getByText('1 entry waits for the network')).toBeVisible();
    await context.setOffline(false);
    await expect(page.getByText('waits for the network')).toHaveCount(0, { timeout: 20_000 });
    await expect(page.getByText('Said by Pell Ardane')).toHaveCount(1);
    const played = await page.locator('audio').evaluate(
        (a: HTMLAudioElement) =>
            new Promise<string>((done) => {
                a.onloadeddata = () => done('heard');
                a.onerror = () => done(a.error?.message ?? 'error');
                a.load();
                void a.play();
            }),
    );
    expect(played).toBe('heard');
});

test('it can be installed: name, icons that are there, one scope', async ({ page, request }) => {
    await page.goto('/');
    const link = await page.locator('link[rel=manifest]').getAttribute('href');
    const manifest = await (await request.get(link ?? '')).json();
    expect(manifest).toMatchObject({ name: 'Vast Yard', start_url: '/', scope: '/', display: 'standalone' });
    for (const icon of manifest.icons) {
        const got = await request.get(icon.src);
        expect(got.headers()['content-type']).toBe(icon.type);
    }
});
