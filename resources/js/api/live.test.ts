import { expect, it } from 'vitest';
import { ApiError } from './client';
import { live } from './live';

it('asks again for what is there or did not come, and not for what the server does not have', () => {
    const every = live(3_000);
    const gone = new ApiError(404, 'Not found', 'It is not there.');
    expect(every({ state: { data: undefined, error: null } })).toBe(3_000);
    expect(every({ state: { data: { name: '3 Heron' }, error: gone } })).toBe(3_000);
    expect(every({ state: { data: undefined, error: new TypeError('no network') } })).toBe(3_000);
    expect(every({ state: { data: undefined, error: gone } })).toBe(false);
});
