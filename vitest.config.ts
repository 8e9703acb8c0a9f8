import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

export default defineConfig({
    resolve: { alias: { '@': fileURLToPath(new URL('./resources/js', import.meta.url)) } },
    test: {
        include: ['resources/js/**/*.test.{ts,tsx}'],
        environment: 'happy-dom',
        // Both cores of a small machine; by itself it would leave one idle.
        pool: 'threads',
        maxWorkers: 2,
        setupFiles: ['resources/js/testing/setup.ts'],
        testTimeout: 60_000,
        environmentOptions: { happyDOM: { url: 'http://vantrel.example/' } },
    },
});
