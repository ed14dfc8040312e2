import { defineConfig } from '@playwright/test';

// Debian's Chromium against the same nginx and php-fpm as `./yard start`; the instance is started by `./yard test browser`.
export default defineConfig({
    testDir: 'tests/Browser',
    fullyParallel: false,
    workers: 1,
    timeout: 600_000,
    retries: 0,
    reporter: 'list',
    outputDir: 'storage/browser-results',
    expect: { timeout: 30_000 },
    use: {
        baseURL: process.env.YARD_URL ?? 'http://127.0.0.1:8080',
        viewport: { width: 1280, height: 800 },
        actionTimeout: 30_000,
        screenshot: 'only-on-failure',
        // What is tested is the server's answer; the one spec about tablets without a network lets them work.
        serviceWorkers: 'block',
        launchOptions: {
            executablePath: '/usr/bin/chromium',
            args: [
                '--no-sandbox',
                '--disable-gpu',
                '--disable-quic',
                '--no-first-run',
                '--disable-background-networking',
                '--disable-component-update',
                '--disable-sync',
                // A microphone that hums, for notes that are spoken.
                '--use-fake-device-for-media-stream',
                '--use-fake-ui-for-media-stream',
            ],
        },
    },
});
