import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { expect, it, vi } from 'vitest';

it('asks again under the same key until it is known what became of it, then under a new one', async () => {
    const keys: (string | null)[] = [];
    const answers = [
        () => Promise.reject(new TypeError('the network is gone')),
        () => Promise.resolve(new Response('{"detail":"It is being done."}', { status: 409 })),
        () => Promise.resolve(new Response('<h1>Bad gateway</h1>', { status: 502 })),
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
    for (let n = 1; n <= 6; n++) {
        act(() => result.current.run());
        await waitFor(() => expect(keys).toHaveLength(n));
        await waitFor(() => expect(result.current.busy).toBe(false));
    }
    expect(keys[0]).toMatch(/^[0-9a-f]{32}$/);
    expect(keys.slice(1, 4)).toEqual([keys[0], keys[0], keys[0]]);
    expect(new Set(keys.slice(3)).size).toBe(3);
});
