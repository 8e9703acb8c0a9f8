import { expect } from '@playwright/test';
import { PASSKEYED, PASSWORD, signIn } from './people';
import { test } from './told';

test('a teacher makes a passkey, and signs in with it instead of a password and after one', async ({ browser }) => {
    // Browsers make passkeys for names, and this machine's is localhost. The device is Chromium's own authenticator.
    const host = new URL(process.env['VANTREL_URL'] ?? '').port;
    const context = await browser.newContext({ baseURL: `http://localhost:${host}` });
    const page = await context.newPage();
    const devices = await context.newCDPSession(page);
    await devices.send('WebAuthn.enable');
    const { authenticatorId } = await devices.send('WebAuthn.addVirtualAuthenticator', {
        options: {
            protocol: 'ctap2',
            transport: 'internal',
            hasResidentKey: true,
            hasUserVerification: true,
            isUserVerified: true,
        },
    });
    const signedIn = () => expect(page.getByRole('heading', { level: 1, name: 'Sections' })).toBeVisible();
    const out = async () => {
        // Nothing is under way that could bring the cookie back.
        await page.goto('about:blank');
        await page.context().clearCookies();
        await page.goto('/');
        await expect(page.getByRole('button', { name: 'Sign in', exact: true })).toBeVisible();
    };
    await signIn(page, PASSKEYED, PASSWORD);
    await signedIn();
    await page.goto('/account');
    await page.getByLabel('A name for it').fill('Staff room laptop');
    await page.getByRole('button', { name: 'Add a passkey' }).click();
    await page.getByRole('button', { name: 'I have written them down' }).click();
    await expect(page.getByText('Staff room laptop')).toBeVisible();
    await expect(page.getByText('It is on. 10 recovery codes are left.')).toBeVisible();
    await out();

    await page.getByRole('button', { name: 'For staff: use a passkey' }).click();
    await signedIn();
    await out();

    await signIn(page, PASSKEYED, PASSWORD);
    await expect(page.getByRole('heading', { level: 1, name: 'Your second factor' })).toBeVisible();
    // A device that does not know who is there signs nothing that is taken.
    await devices.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: false });
    await page.getByRole('button', { name: 'Use your passkey' }).click();
    await expect(page.getByText('No passkey was shown')).toBeVisible();
    await devices.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: true });
    await page.getByRole('button', { name: 'Use your passkey' }).click();
    await signedIn();

    await page.goto('/account');
    await page.getByRole('button', { name: 'Remove: Staff room laptop' }).click();
    await page.getByRole('button', { name: 'Remove it' }).click();
    await expect(page.getByText('Staff room laptop')).toHaveCount(0);
    await out();
    await page.getByRole('button', { name: 'For staff: use a passkey' }).click();
    await expect(page.getByText('That passkey is not known here.')).toBeVisible();
    await context.close();
});
