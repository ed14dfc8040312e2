// Page audit: performance and layout shift of the views people open most, the median of five runs each.
// Usage: node tools/checks/pages.mjs ADDRESS BADGE PIN PATH...
import { chromium } from '../../node_modules/@playwright/test/index.mjs';
import lighthouse from 'lighthouse';

const [address, badge, pin, ...paths] = process.argv.slice(2);
const RUNS = 5;
const port = 18399;
const browser = await chromium.launchPersistentContext('', {
    executablePath: '/usr/bin/chromium',
    args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--disable-background-networking',
        `--remote-debugging-port=${port}`,
    ],
});
const page = await browser.newPage();
await page.goto(address);
await page.getByLabel('Badge').fill(badge);
await page.getByLabel('PIN').fill(pin);
await page.keyboard.press('Enter');
await page.getByRole('navigation').first().waitFor();

const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
for (const path of paths) {
    const scores = [];
    const shifts = [];
    for (let run = 0; run < RUNS; run++) {
        const { lhr } = await lighthouse(address + path, {
            port,
            onlyCategories: ['performance'],
            disableStorageReset: true,
            formFactor: 'desktop',
            screenEmulation: { mobile: false, width: 1280, height: 800, deviceScaleFactor: 1, disabled: false },
            throttlingMethod: 'simulate',
            throttling: { rttMs: 40, throughputKbps: 10240, cpuSlowdownMultiplier: 1 },
            logLevel: 'error',
        });
        scores.push(100 * (lhr.categories.performance.score ?? 0));
        shifts.push(lhr.audits['cumulative-layout-shift'].numericValue ?? 1);
    }
    console.log(
        `${path.padEnd(36)} performance ${median(scores).toFixed(0)}  layout shift ${median(shifts).toFixed(3)}`,
    );
}
await browser.close();
