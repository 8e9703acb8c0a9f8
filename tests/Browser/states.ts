import { expect, type Page } from '@playwright/test';
import { COORDINATOR, onPage, openRow, PASSWORD, signIn, TEACHER } from './people';
import { unanswered } from './told';

/** One thing a person may have before them: a page, or a dialog, sheet or menu on it. A new view joins by one line. */
export interface State {
    name: string;
    /** Where it begins; the state before it goes on where this is left out. */
    at?: string;
    /** What leads there. */
    reach?: (page: Page) => Promise<unknown>;
    /** What closes it again, where it lies on a page: the focus must come back to what opened it. */
    close?: (page: Page) => Promise<unknown>;
}

const button = (name: string | RegExp) => (page: Page) => page.getByRole('button', { name }).first().click();
const key = (combo: string) => (page: Page) => page.keyboard.press(combo);
const escape = key('Escape');
const dialog = (name: string, reach: NonNullable<State['reach']>, at?: string): State => ({
    name,
    reach: async (page) => {
        await reach(page);
        await expect(page.getByRole('dialog')).toBeVisible();
    },
    close: escape,
    ...(at ? { at } : {}),
});
const menu = (name: string, trigger: string | RegExp, item?: string): State => ({
    name,
    reach: async (page) => {
        await button(trigger)(page);
        await expect(page.getByRole('menu')).toBeVisible();
        if (item) await page.getByRole('menuitem', { name: item }).click();
        if (item) await expect(page.getByRole('dialog')).toBeVisible();
    },
    close: escape,
});
const list = (name: RegExp) => async (page: Page) => {
    await openRow(page, name);
    await expect(page.getByRole('button', { name: /an answer/ }).first()).toBeVisible();
};
const sideBySide = (row: RegExp) => async (page: Page) => {
    await openRow(page, row);
    await expect(page.getByRole('heading', { level: 1, name: / and / })).toBeVisible();
};
const heron = async (page: Page) => {
    await openRow(page, /^3 Heron/);
    await expect(page.getByRole('heading', { level: 1, name: '3 Heron' })).toBeVisible();
};

/** Something for the Ledger, in a school whose sections no other test counts. */
const makeSection = async (page: Page) => {
    await button('Make a section')(page);
    await page.getByLabel('Name', { exact: true }).fill(`Audit ${Date.now()}`);
    await page.getByRole('dialog').getByRole('button', { name: /^Make/ }).click();
    await expect(page.getByRole('heading', { level: 1, name: /^Audit/ })).toBeVisible();
};

const AT_THE_DESK: State[] = [
    { name: 'desk', at: 'desk' },
    dialog('put off', button(/^Put off: /)),
    menu('school and year', /^School and year/),
    menu('own menu', /Halloran/),
    dialog('keys', key('?')),
    { name: 'command box', reach: key('/'), close: escape },
    { name: 'coverage', at: 'desk/coverage' },
    { name: 'coverage of a grade', reach: (page) => openRow(page, /^Grade 1/) },
    { name: 'intake', at: 'intake' },
    dialog('paste a list', button(/^Paste/)),
    { name: 'plan', at: 'intake', reach: list(/fall-list/) },
    { name: 'plan, a question', reach: key(']') },
    { name: 'plan, its sheet closed', reach: escape },
    dialog('columns of a list', key('c')),
    dialog('whose list', key('w')),
    dialog('weights', key('e')),
    dialog('discard a list', button('Discard list')),
    {
        name: 'sheet of a list',
        reach: async (page) => {
            await page.keyboard.press('s');
            await onPage(page, /as it was read$/);
        },
    },
    { name: 'menu of a row', reach: key('Enter'), close: escape },
    {
        name: 'menu of a column',
        reach: (page) => page.getByRole('columnheader').nth(3).getByRole('button').click(),
        close: escape,
    },
    { name: 'roll', at: 'roll' },
    dialog('select by a list', button(/^Select by a list/)),
    dialog('place students', async (page) => {
        await page.keyboard.press('x');
        await page.keyboard.press('m');
    }),
    dialog('change students', key('v')),
    { name: 'person', reach: (page) => openRow(page, /Achterberg/) },
    dialog('change a person', button(/^Change$/)),
    dialog('another card', button('Replace lost card…')),
    { name: 'roll, staff', at: 'roll?kind=staff' },
    { name: 'staff person', reach: (page) => openRow(page, /Okonjo/) },
    { name: 'roll, nobody', at: 'roll?q=qqqqqq' },
    { name: 'transfers', at: 'transfers' },
    { name: 'desk of all schools', at: '/s/all/desk' },
    { name: 'roll of all schools', at: '/s/all/roll' },
    dialog('send to another school', async (page) => {
        await page.keyboard.press('x');
        await page.keyboard.press('t');
    }),
    { name: 'look-alikes across schools', at: '/s/all/look-alikes?which=across' },
    { name: 'accounts of two schools', reach: sideBySide(/98 %/) },
];

const IN_SECTIONS: State[] = [
    { name: 'sections', at: 'sections' },
    dialog('new section', button(/^(New|Make a) section|^Make one/)),
    dialog('many sections', button(/many/)),
    dialog('rename sections', button(/Rename/)),
    { name: 'section', at: 'sections', reach: heron },
    { name: 'section, its code', reach: button('Show it here') },
    dialog('new code', button('New code')),
    dialog('terms of a code', button('Terms')),
    dialog('close a code', button('Close it')),
    dialog('hand the lead over', button(/^Make .* the lead$/)),
    dialog('poster', button('Make a poster')),
    dialog('roles', button('what each may do')),
    menu('section menu', 'More'),
    menu('section form', 'More', 'Change name'),
    menu('reserves', 'More', 'Make reserve'),
    menu('archive', 'More', 'Archive'),
    {
        name: 'as a student',
        reach: async (page) => {
            await button('More')(page);
            await page.getByRole('menuitem', { name: 'As a student sees it' }).click();
            await expect(page.getByText('You are looking, not signed in.')).toBeVisible();
        },
    },
    {
        name: 'wall',
        at: 'sections',
        reach: async (page) => {
            await heron(page);
            await page.getByRole('link', { name: 'On the wall' }).click();
            await expect(page.getByTestId('wall-code')).toBeVisible();
        },
    },
    {
        name: 'print room',
        at: 'print-room',
        reach: async (page) => {
            await expect(page.getByText('What stands on a card')).toBeVisible();
            await page.getByText('What stands on a card').click();
        },
    },
    {
        name: 'letters',
        at: 'print-room?part=letters',
        reach: (page) => expect(page.getByLabel('Letter', { exact: true })).toBeVisible(),
    },
    dialog('words of a letter', button('Edit the wording')),
    {
        name: 'codes and handouts',
        at: 'print-room?part=codes',
        reach: async (page) => {
            await page.getByLabel('What', { exact: true }).selectOption('handout');
            await expect(page.getByRole('group', { name: 'Languages' })).toBeVisible();
        },
    },
    {
        name: 'signed slips',
        at: 'print-room?part=slips',
        reach: (page) => expect(page.getByLabel('Code of a slip')).toBeVisible(),
    },
    {
        name: 'guardians who ask',
        at: 'guardians/requests',
        reach: (page) => expect(page.getByRole('heading', { level: 1, name: 'Guardian requests' })).toBeVisible(),
    },
    { name: 'guardians', at: 'guardians' },
    { name: 'a guardian and a child', reach: (page) => page.getByRole('row').nth(2).click() },
    dialog('invite guardians', button('Invite these…')),
    { name: 'look-alikes', at: 'look-alikes' },
    dialog('merge many', async (page) => {
        await button(/^Select the/)(page);
        await button('Merge those selected')(page);
    }),
    { name: 'accounts side by side', reach: sideBySide(/over 99\.9 %/) },
    { name: 'year turn', at: 'year-turn' },
    dialog('turn the year', button(/^Turn to/)),
    { name: 'mailroom', at: 'mailroom' },
    { name: 'message', reach: (page) => page.getByRole('row').nth(2).click() },
    { name: 'letters to many', at: 'mailroom/letters' },
    dialog('write to many', button('Write one')),
    {
        name: 'a letter looked at',
        at: 'mailroom/letters',
        reach: async (page) => {
            await button('Write one')(page);
            await page.getByLabel('What it is about', { exact: true }).fill('Trip');
            await page.getByLabel('Letter', { exact: true }).fill('Dear {{name}}');
            await button('Look at it')(page);
            await expect(page.getByRole('button', { name: /^Send/ })).toBeVisible();
        },
    },
    { name: 'notices of the school', at: 'mailroom/notices' },
    dialog('write a notice', button('Write one')),
    { name: 'ledger with nothing in it', at: 'ledger' },
    { name: 'section just made', at: '/s/upper/sections', reach: makeSection },
    { name: 'ledger', at: '/s/upper/ledger' },
    { name: 'entry', reach: (page) => openRow(page, /^Section Audit/) },
    dialog('undo', button('Undo all of this')),
    { name: 'settings', at: 'settings' },
    dialog('plan a year', button('Plan a year')),
    { name: 'nothing at this address', at: 'sections/01K3CNQ0000000000000000000' },
    { name: 'own account', at: '/account' },
];

const TEACHERS: State[] = [
    { name: 'own sections', at: 'sections' },
    { name: 'own section', reach: heron },
    {
        name: 'notices of a section',
        reach: async (page) => {
            await page.getByRole('link', { name: 'Notices, dates and work' }).click();
            await expect(page.getByRole('heading', { level: 2, name: 'Map of the harbor' })).toBeVisible();
        },
    },
    dialog('who has handed in', button('Who has handed it in…')),
    { name: 'own section again', at: 'sections', reach: heron },
    {
        name: 'invited by mail',
        reach: async (page) => {
            await page.getByRole('link', { name: 'Invited by mail' }).click();
            await expect(page.getByRole('heading', { level: 1, name: 'Invited by mail' })).toBeVisible();
        },
    },
    dialog('invite students', button(/^Invite students/)),
];

const STUDENTS: State[] = [
    { name: 'own page', at: '/' },
    { name: 'own account', at: '/account' },
];

/** Where somebody comes in who is not signed in. */
export const ENTRANCES = [
    '/',
    '/in',
    '/in/KDM4X7R',
    '/invited#no-such-link',
    '/forgotten',
    '/new-password#none',
    '/confirm#none',
    '/room#none',
    '/b#none',
    '/family',
    '/hears#none',
    '/come#none',
];

const NOBODY: State[] = [
    ...ENTRANCES.map((at) => ({ name: at, at })),
    { name: 'family without a letter', at: '/family', reach: button('I have no letter') },
];

/** Signs in, and waits until that has been answered. */
export const comesIn = (user: string, secret: string) => async (page: Page) => {
    await signIn(page, user, secret);
    await expect(page.getByRole('button', { name: 'Sign in', exact: true })).toHaveCount(0);
};

/** Who has them before them, and how they come in. */
export const STATES: { who: string; phone: boolean; enter: (page: Page) => Promise<unknown>; states: State[] }[] = [
    {
        who: 'coordinator at lists and people',
        phone: false,
        enter: comesIn(COORDINATOR, PASSWORD),
        states: AT_THE_DESK,
    },
    {
        who: 'coordinator at sections and the year',
        phone: false,
        enter: comesIn(COORDINATOR, PASSWORD),
        states: IN_SECTIONS,
    },
    { who: 'teacher', phone: false, enter: comesIn(TEACHER, PASSWORD), states: TEACHERS },
    {
        who: 'student',
        phone: true,
        enter: comesIn('wilhelmina.seabright', 'maple otter candy'),
        states: STUDENTS,
    },
    {
        who: 'guardian',
        phone: true,
        enter: comesIn('helene.marchetti@shoremail.example', PASSWORD),
        states: STUDENTS,
    },
    { who: 'nobody', phone: true, enter: (page) => page.goto('/'), states: NOBODY },
];

/** Goes to where the state begins, and on to it. */
export async function reach(page: Page, state: State): Promise<void> {
    if (state.at !== undefined) {
        await page.goto(state.at.startsWith('/') ? state.at : `/s/primary/${state.at}`);
        await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    }
    await settled(page);
    if (!state.reach) return;
    await state.reach(page);
    await settled(page);
}

/** Until what is on its way has come and is on the screen. */
export async function settled(page: Page): Promise<void> {
    await expect
        .poll(
            async () => {
                const before = unanswered(page);
                await drawn(page);
                const busy = await page.locator('[aria-busy=true]').count();
                return [...before, ...unanswered(page), ...(busy > 0 ? [`${busy} parts still busy`] : [])];
            },
            { intervals: [20, 50, 100] },
        )
        .toEqual([]);
}

/** Until the page has been laid out anew. */
export async function drawn(page: Page): Promise<void> {
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
}
