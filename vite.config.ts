/// <reference types="vitest/config" />
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import laravel from 'laravel-vite-plugin';
import { defineConfig } from 'vite';

export default defineConfig(({ mode }) => ({
    plugins: [
        ...(mode === 'test' ? [] : [laravel({ input: ['resources/ui/main.tsx'], refresh: false })]),
        react(),
        tailwindcss(),
    ],
    test: { environment: 'jsdom', include: ['resources/ui/**/*.test.{ts,tsx}'] },
}));
