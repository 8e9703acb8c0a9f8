import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeAll, expect, it, vi } from 'vitest';
import { api, data } from '@/api/client';
import { DeskPage } from '@/areas/desk/DeskPage';
import { LedgerPage } from '@/areas/ledger/LedgerPage';
import { LookAlikesPage } from '@/areas/look-alikes/LookAlikesPage';
import { MailroomPage } from '@/areas/mailroom/MailroomPage';
import { RollPage } from '@/areas/roll/RollPage';
import { SectionPage } from '@/areas/sections/SectionPage';
import { SectionsPage } from '@/areas/sections/SectionsPage';
import { SettingsPage } from '@/areas/settings/SettingsPage';
import { YearTurnPage } from '@/areas/year-turn/YearTurnPage';
import { Connection } from '@/shell/Connection';
import { beginLanguage } from '@/shell/language';
import type { School } from '@/shell/session';
import { EndedSession } from '@/shell/EndedSession';
import { Instead } from './Instead';
import { NoticeProvider } from './Notice';

beforeAll(beginLanguage);
afterEach(cleanup);

const school = { id: 'S1', code: 'primary', name: 'Lanternfield', coordinates: true, years: [], year: '', grades: [] };
const me = { id: 'P1', name: 'Ines Halloran', kind: 'staff', schools: [], must: '', room: '', ownPassword: true };

function within(part: React.ReactNode) {
    const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
    render(
        <QueryClientProvider client={queries}>
            <>
                <NoticeProvider>
                    <MemoryRouter>{part}</MemoryRouter>
                </NoticeProvider>
            </>
        </QueryClientProvider>,
    );
    return queries;
}

const of = school as unknown as School;

it.each([
    ['the Desk', <DeskPage school={of} />],
    ['the Ledger', <LedgerPage school={of} />],
    ['the look-alikes', <LookAlikesPage school={of} />],
    ['the Mailroom', <MailroomPage school={of} />],
    ['the Roll', <RollPage school={of} />],
    ['the section', <SectionPage school={of} />],
    ['the sections', <SectionsPage school={of} />],
    ['the settings', <SettingsPage school={of} />],
    ['the year turn', <YearTurnPage school={of} />],
])('says that %s is on its way, then that it did not come, and shows nothing as a fact', async (what, page) => {
    within(page);
    expect(screen.getByText(`Loading ${what}…`)).toBeTruthy();
    expect(await screen.findByText('That could not be loaded.')).toBeTruthy();
    expect(screen.getByText('The server does not answer. Check the network, then try again.')).toBeTruthy();
    expect(screen.queryByText(/0 found|Nobody|Nothing has|Nothing waits|Good\.|gone|No mail/)).toBeNull();
});

function Looked() {
    const asked = useQuery({ queryKey: ['desk'], queryFn: () => data(api.GET('/api/me')) });
    const [text, setText] = useState('');
    if (!asked.data) return <Instead of={asked} what="the account" gone="Nobody has it." />;
    return (
        <>
            <p>{asked.data.name} is here</p>
            <input aria-label="Note" value={text} onChange={(e) => setText(e.target.value)} />
        </>
    );
}

it('tries again where it is asked to, and says only of a 404 that something is not there', async () => {
    serverAnswers({ 'GET /api/me': new Refused(500, 'Something went wrong here.') });
    const queries = within(<Looked />);
    expect(await screen.findByText('Something went wrong here.')).toBeTruthy();
    serverAnswers({ 'GET /api/me': new Refused(404, 'No such account.') });
    fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
    expect(await screen.findByText('Nobody has it.')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Try again' })).toBeNull();
    serverAnswers({ 'GET /api/me': me });
    await queries.refetchQueries();
    expect(await screen.findByText('Ines Halloran is here')).toBeTruthy();
});

it('keeps what is on the screen when it cannot be asked for again, and says that it may be old', async () => {
    serverAnswers({ 'GET /api/me': me });
    const queries = within(
        <>
            <Connection />
            <Looked />
        </>,
    );
    await screen.findByText('Ines Halloran is here');
    expect(screen.queryByText('What you see may be old.')).toBeNull();
    serverAnswers({ 'GET /api/me': new Refused(500, 'Something went wrong here.') });
    await queries.refetchQueries();
    expect(await screen.findByText('What you see may be old.')).toBeTruthy();
    expect(screen.getByText('Ines Halloran is here')).toBeTruthy();
    serverAnswers({ 'GET /api/me': me });
    fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
    await waitFor(() => expect(screen.queryByText('What you see may be old.')).toBeNull());
});

it('lets staff sign in again on top of the page, and keeps what they have typed', async () => {
    serverAnswers({ 'GET /api/me': me, 'GET /api/entrance': { note: '', singleSignOn: '', secondFactor: false } });
    const queries = within(
        <>
            <EndedSession />
            <Looked />
        </>,
    );
    queries.setQueryData(['me'], me);
    await userEvent.type(await screen.findByLabelText('Note'), 'half a sentence');
    serverAnswers({ 'GET /api/me': new Refused(401, 'Sign in first.') });
    await queries.refetchQueries({ queryKey: ['desk'] });
    expect(await screen.findByText(/You are signed out, Ines Halloran/)).toBeTruthy();
    expect(screen.queryByText('I forgot my password')).toBeNull();
    serverAnswers({ 'GET /api/me': me, 'POST /api/sign-in': { me } });
    await userEvent.type(screen.getByLabelText('User name'), 'ines');
    await userEvent.type(screen.getByLabelText('Passphrase or password'), 'lantern harbor morning');
    await userEvent.click(screen.getByRole('button', { name: 'Sign in' }));
    await waitFor(() => expect(screen.queryByText(/You are signed out/)).toBeNull());
    expect(sentTo('POST /api/sign-in')).toEqual([{ user_name: 'ines', secret: 'lantern harbor morning' }]);
    expect(screen.getByLabelText<HTMLInputElement>('Note').value).toBe('half a sentence');
});

it('leaves the page of whoever else is signed out', async () => {
    serverAnswers({ 'GET /api/entrance': { note: '', singleSignOn: '', secondFactor: false } });
    const queries = within(<EndedSession />);
    queries.setQueryData(['me'], { ...me, kind: 'student' });
    serverAnswers({ 'GET /api/home': new Refused(401, 'Sign in first.') });
    await api.GET('/api/home').catch(() => undefined);
    expect(queries.getQueryData(['me'])).toBeNull();
    expect(screen.queryByText(/You are signed out/)).toBeNull();
    vi.restoreAllMocks();
});
