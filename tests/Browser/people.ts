import { expect, type Page } from '@playwright/test';

const PINS: Record<string, [string, string]> = {
    manager: ['100', '482163'],
    receiver: ['101', '193742'],
    teardown: ['102', '204685'],
    builder: ['103', '315897'],
    dyno: ['104', '627014'],
    returns: ['105', '739528'],
    viewer: ['106', '841296'],
};

/** Takes the tablet over: whoever had it is signed out. */
export async function signIn(page: Page, role: string, path = '/') {
    const [badge, pin] = PINS[role]!;
    await page.goto('about:blank'); // an answer still on its way would set its cookie again
    await page.context().clearCookies();
    await page.goto(path);
    await page.getByLabel('Badge').fill(badge);
    await page.getByLabel('PIN', { exact: true }).fill(pin);
    await page.locator('form').getByRole('button', { name: 'Sign in' }).click();
    await expect(page.locator('#badge')).toContainText(role);
}

/** A scanner: types fast and ends with Enter. */
export async function scan(page: Page, code: string) {
    await page.getByRole('combobox', { name: /Scan line/ }).fill(code);
    await page.keyboard.press('Enter');
}

/** Chooses a customer by the beginning of the name. */
export async function pickCustomer(page: Page, label: string, name: string) {
    await page.getByLabel(label, { exact: true }).fill(name.slice(0, 4));
    await page.getByRole('option', { name: new RegExp(`^${name}`) }).click();
    await expect(page.getByLabel(label, { exact: true })).toHaveValue(new RegExp(`^${name}`));
}

/** The unit stands at this station now: its tab says so. */
export async function expectAt(page: Page, station: string) {
    await expect(page.getByRole('link', { name: new RegExp(`^${station} ?, the unit is here`) })).toBeVisible();
}
