import { expect, type Page } from '@playwright/test';

const PINS: Record<string, [string, string]> = {
    manager: ['100', '4821'],
    receiver: ['101', '1937'],
    teardown: ['102', '2046'],
    builder: ['103', '3158'],
    dyno: ['104', '6270'],
    returns: ['105', '7395'],
    viewer: ['106', '8412'],
};

/** Takes the tablet over: whoever had it is signed out. */
export async function signIn(page: Page, role: string, path = '/') {
    const [badge, pin] = PINS[role]!;
    await page.context().clearCookies();
    await page.goto(path);
    await page.getByLabel('Badge').fill(badge);
    await page.getByLabel('PIN').fill(pin);
    await page.locator('form').getByRole('button', { name: 'Sign in' }).click();
    await expect(page.locator('#badge')).toContainText(role);
}

/** A scanner: types fast and ends with Enter. */
export async function scan(page: Page, code: string) {
    await page.getByRole('combobox', { name: /Scan line/ }).fill(code);
    await page.keyboard.press('Enter');
}

/** The unit stands at this station now: its tab says so. */
export async function expectAt(page: Page, station: string) {
    await expect(page.getByRole('link', { name: new RegExp(`^${station} ?, the unit is here`) })).toBeVisible();
}
