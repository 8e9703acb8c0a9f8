import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter, Route, Routes, useLocation } from 'react-router';
import { afterEach, beforeAll } from 'vitest';
import { beginLanguage } from '@/shell/language';
import { NoticeProvider } from '@/ui/Notice';

beforeAll(beginLanguage);
afterEach(cleanup);

function Where() {
    const { pathname, search } = useLocation();
    return <output data-testid="where">{pathname + search}</output>;
}

/** Shows a part of the interface at an address, with all it lives in; `at` with what another page handed over. */
export function show(part: ReactNode, at: string | { pathname: string; state: unknown } = '/', path = '*') {
    const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
    return render(
        <QueryClientProvider client={queries}>
            <NoticeProvider>
                <MemoryRouter initialEntries={[at]}>
                    <Routes>
                        <Route path={path} element={part} />
                        {path !== '*' && <Route path="*" element={null} />}
                    </Routes>
                    <Where />
                </MemoryRouter>
            </NoticeProvider>
        </QueryClientProvider>,
    );
}
