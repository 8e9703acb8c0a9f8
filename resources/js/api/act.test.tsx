import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { expect, it, vi } from 'vitest';

it('asks again under the same key after a lost answer, and under a new one after any answer', async () => {
    const keys: (string | null)[] = [];
    const answers = [
        () => Promise.reject(new TypeError('the network is gone')),
        () => Promise.resolve(new Response('{"detail":"No."}', { status: 422 })),
        () => Promise.resolve(new Response('{}', { headers: { 'Content-Type': 'application/json' } })),
        () => Promise.resolve(new Response('{}', { headers: { 'Content-Type': 'application/json' } })),
    ];
    vi.stubGlobal('fetch', (request: Request) => {
        keys.push(request.headers.get('Idempotency-Key'));
        return (answers.shift() ?? (() => Promise.reject(new TypeError())))();
    });
    const { api, data } = await import('./client');
    const { useAct } = await import('./act');
    const within = ({ children }: { children: ReactNode }) => (
        <QueryClientProvider client={new QueryClient()}>{children}</QueryClientProvider>
    );
    const { result } = renderHook(
        () => useAct(() => data(api.POST('/api/ledger/{entry}/undo', { params: { path: { entry: 'E' } }, body: {} }))),
        { wrapper: within },
    );
    for (let n = 1; n <= 4; n++) {
        act(() => result.current.run());
        await waitFor(() => expect(keys).toHaveLength(n));
        await waitFor(() => expect(result.current.busy).toBe(false));
    }
    expect(keys[0]).toMatch(/^[0-9a-f]{32}$/);
    expect(keys[1]).toBe(keys[0]);
    expect(new Set(keys.slice(1)).size).toBe(3);
});
