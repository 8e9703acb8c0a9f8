import '@fontsource/atkinson-hyperlegible-next/400.css';
import '@fontsource/atkinson-hyperlegible-next/600.css';
import '@fontsource/atkinson-hyperlegible-mono/400.css';
import '@fontsource/atkinson-hyperlegible-mono/600.css';
import '@fontsource/source-serif-4/600.css';
import './app.css';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { ApiError } from '@/api/client';
import { App } from '@/shell/App';
import { beginLanguage } from '@/shell/language';
import { NoticeProvider } from '@/ui/Notice';

const queries = new QueryClient({
    defaultOptions: {
        queries: {
            staleTime: 5_000,
            // What the server has refused it refuses again; what it never got is worth another try.
            retry: (count, error) => !(error instanceof ApiError) && count < 2,
        },
    },
});

const root = document.getElementById('app');
if (root) {
    // Words first: no page shows one language and then another.
    void beginLanguage().then(() =>
        createRoot(root).render(
            <StrictMode>
                <QueryClientProvider client={queries}>
                    <BrowserRouter>
                        <NoticeProvider>
                            <App />
                        </NoticeProvider>
                    </BrowserRouter>
                </QueryClientProvider>
            </StrictMode>,
        ),
    );
}
