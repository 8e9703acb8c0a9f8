import { configure } from '@testing-library/dom';
import { afterEach } from 'vitest';

// A busy machine is slow, not wrong: what has to appear is waited for longer than a second.
configure({ asyncUtilTimeout: 15_000 });

// Each test has a window of its own, where it has one.
afterEach(() => {
    if ('sessionStorage' in globalThis) sessionStorage.clear();
});
