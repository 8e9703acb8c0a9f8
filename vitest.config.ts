import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

export default defineConfig({
    resolve: { alias: { '@': fileURLToPath(new URL('./resources/js', import.meta.url)) } },
    test: {
        include: ['resources/js/**/*.test.{ts,tsx}'],
        environment: 'happy-dom',
        setupFiles: ['resources/js/testing/setup.ts'],
        testTimeout: 60_000,
        environmentOptions: { happyDOM: { url: 'http://vantrel.example/' } },
    },
});
