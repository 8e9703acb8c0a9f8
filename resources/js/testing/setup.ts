import { configure } from '@testing-library/dom';

// A busy machine is slow, not wrong: what has to appear is waited for longer than a second.
configure({ asyncUtilTimeout: 15_000 });
