import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { App } from './App';
import { isProblem } from './api/client';
import './styles.css';

const client = new QueryClient({
    defaultOptions: {
        queries: {
            staleTime: 10_000,
            // A load without a network fails with its sentence, or with what the tablet keeps; it never waits unseen.
            networkMode: 'always',
            refetchOnReconnect: true,
            refetchOnWindowFocus: true,
            retry: (n, e) => n < 3 && !(isProblem(e) && e.status >= 400 && e.status < 500),
        },
    },
});

const root = document.getElementById('yard');
if (!root) throw new Error('The page has no place for the application.');
createRoot(root).render(
    <StrictMode>
        <QueryClientProvider client={client}>
            <BrowserRouter>
                <App />
            </BrowserRouter>
        </QueryClientProvider>
    </StrictMode>,
);

// The program itself is kept on the tablet; where that is refused (no secure address) it only needs the network.
if ('serviceWorker' in navigator) void navigator.serviceWorker.register('/sw.js').catch(() => undefined);
