/// <reference types="vitest/config" />
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import laravel from 'laravel-vite-plugin';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

/**
 * What a tablet keeps of the program itself, so that a page loaded anew without a network comes up: every script and
 * font, the page all addresses share, and the section drawings seen here. What is written waits in the bench's own
 * store (resources/ui/bench/offline.ts), never here.
 */
const kept = VitePWA({
    strategies: 'generateSW',
    injectRegister: false,
    outDir: 'public/build',
    buildBase: '/build/',
    base: '/',
    scope: '/',
    manifest: {
        name: 'Vast Yard',
        short_name: 'Vast Yard',
        description: 'The remanufacturing shop, at every bench',
        start_url: '/',
        scope: '/',
        display: 'standalone',
        background_color: '#f4efe0',
        theme_color: '#17474d',
        icons: [
            { src: '/mark.svg', sizes: 'any', type: 'image/svg+xml' },
            { src: '/icons/mark-192.png', sizes: '192x192', type: 'image/png' },
            { src: '/icons/mark-512.png', sizes: '512x512', type: 'image/png' },
            { src: '/icons/mark-maskable-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
        ],
    },
    workbox: {
        inlineWorkboxRuntime: true,
        globPatterns: ['assets/*.{js,css,woff2}'],
        modifyURLPrefix: { 'assets/': '/build/assets/' },
        dontCacheBustURLsMatching: /^\/build\/assets\//,
        additionalManifestEntries: [{ url: '/', revision: String(Date.now()) }],
        skipWaiting: true,
        clientsClaim: true,
        cleanupOutdatedCaches: true,
        navigateFallback: null,
        runtimeCaching: [
            {
                urlPattern: ({ request, url }) => request.mode === 'navigate' && !url.pathname.startsWith('/api/'),
                handler: 'NetworkFirst',
                options: {
                    cacheName: 'pages',
                    networkTimeoutSeconds: 4,
                    precacheFallback: { fallbackURL: '/' },
                    // All addresses are one page; a server that is away while its door stands open is no page either.
                    plugins: [
                        {
                            cacheKeyWillBeUsed: () => Promise.resolve('/'),
                            fetchDidSucceed: ({ response }) =>
                                response.status < 500 ? Promise.resolve(response) : Promise.reject(new Error('away')),
                        },
                    ],
                },
            },
            {
                urlPattern: /\/api\/catalog\/families\/[^/]+\/section$/,
                handler: 'NetworkFirst',
                options: { cacheName: 'drawings', networkTimeoutSeconds: 4, expiration: { maxEntries: 40 } },
            },
        ],
    },
});

export default defineConfig(({ mode }) => ({
    plugins: [
        ...(mode === 'test' ? [] : [laravel({ input: ['resources/ui/main.tsx'], refresh: false }), kept]),
        react(),
        tailwindcss(),
    ],
    test: {
        testTimeout: 30_000,
        environment: 'jsdom',
        include: ['resources/ui/**/*.test.{ts,tsx}'],
    },
}));
