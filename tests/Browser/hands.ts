import { expect, type Locator, type Page } from '@playwright/test';

const PICTURE = {
    name: 'a.png',
    mimeType: 'image/png',
    buffer: Buffer.from(
        'iVBORw0KGgoAAAANSUhEUgAAACAAAAAgCAIAAAD8GO2jAAAAKklEQVR4nGNIKGigKWIYtWDUglELRi0Y' +
            'tWDUglELRi0YtWDUglELhooFAGmbQEzvPTd0AAAAAElFTkSuQmCC',
        'base64',
    ),
};

/** How somebody at the bench answers: with a finger, or with nothing but keys. */
type Hands = {
    fill: (field: Locator, text: string) => Promise<void>;
    press: (button: Locator) => Promise<void>;
    pick: (select: Locator, value: string) => Promise<void>;
    /** Sends what is in hand. */
    next: (page: Page) => Promise<void>;
    picture: (page: Page) => Promise<void>;
};

const finger: Hands = {
    fill: (field, text) => field.fill(text),
    press: (button) => button.click(),
    pick: async (select, value) => {
        await select.selectOption(value);
    },
    next: (page) => page.getByRole('button', { name: 'Right, next' }).click(),
    picture: (page) => page.locator('[data-proof] input[type=file]').setInputFiles(PICTURE),
};

/** Where the focus is, seen from something: on it, in its group of answers, or elsewhere. */
const focusAt = (of: Locator) =>
    of.evaluate((e) => {
        const at = document.activeElement;
        if (e === at) return 'here';
        return e.closest('[role=radiogroup]')?.contains(at) ? 'group' : 'away';
    });

/** Tab by tab there: a little on, back, and at last all the way round. */
async function reach(of: Locator): Promise<void> {
    const keys = of.page().keyboard;
    await expect(of).toBeVisible();
    for (const [key, most] of [
        ['Tab', 25],
        ['Shift+Tab', 60],
        ['Tab', 400],
    ] as const) {
        for (let n = 0; n < most; n++) {
            const at = await focusAt(of);
            if (at === 'here') return;
            await keys.press(at === 'group' ? 'ArrowRight' : key);
        }
    }
    throw new Error('No key leads there.');
}

const keys: Hands = {
    fill: async (field, text) => {
        await reach(field);
        await field.page().keyboard.press('Control+A');
        await field.page().keyboard.type(text);
    },
    press: async (button) => {
        await reach(button);
        await button.page().keyboard.press('Space');
    },
    pick: async (select, value) => {
        await reach(select);
        const option = select.locator(`option[value="${value}"]`);
        await select.page().keyboard.type((await option.textContent()) ?? '');
        await expect(select).toHaveValue(value);
    },
    next: (page) => page.keyboard.press('PageDown'),
    picture: async (page) => {
        const chooser = page.waitForEvent('filechooser');
        await page.keyboard.press('PageDown');
        await (await chooser).setFiles(PICTURE);
    },
};

let hands = finger;

/** From here on no pointer is used. */
export function useKeysAlone(on: boolean): void {
    hands = on ? keys : finger;
}

export const fill = (field: Locator, text: string) => hands.fill(field, text);
export const press = (button: Locator) => hands.press(button);
export const pick = (select: Locator, value: string) => hands.pick(select, value);
export const next = (page: Page) => hands.next(page);
export const picture = (page: Page) => hands.picture(page);
