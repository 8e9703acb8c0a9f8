/** How Debian's Chromium is started here: without a window, and without calling anyone. */
export const chromium = {
    executablePath: '/usr/bin/chromium-headless-shell',
    args: [
        '--headless',
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
    ],
};
