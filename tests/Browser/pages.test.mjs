import { after, test } from 'node:test';
import assert from 'node:assert/strict';
import {
    assertAccessible,
    assertEachOnce,
    assertNoBrokenWord,
    assertNoSidewaysScroll,
    assertReadableInTheDark,
    base,
    close,
    open,
    signIn,
} from './support.mjs';

after(close);

const places = [
    '/',
    '/accounts',
    '/packages',
    '/deployments',
    '/backups',
    '/backups/sites',
    '/backups?site=1',
    '/sites/1/backup-rule',
    '/sites/1/over-time?days=365',
    '/sites/1/moments',
    '/record',
    '/sheets',
    '/sheets?client=1',
    '/deployments/new',
    '/?as=table',
    '/accounts/new',
    '/accounts/1/anew?to=2',
    '/accounts/import',
    '/accounts/export',
    '/reach',
    '/ftp-users',
    '/removals',
];

async function everyPage(page) {
    await page.goto(`${base}/accounts`);
    const account = await page.locator('td a[href^="/accounts/"]').first().getAttribute('href');
    assert.match(account, /^\/accounts\/\d+$/);
    await page.goto(`${base}/packages`);
    const packed = await page.locator('td a[href^="/packages/"]').first().getAttribute('href');
    await page.goto(`${base}/deployments`);
    const run = await page.locator('td a[href^="/deployments/"]').last().getAttribute('href');
    await page.goto(base + account);
    const site = await page.locator('td a[href^="/sites/"]').first().getAttribute('href');
    const client = await page.locator('.where a[href^="/clients/"]').getAttribute('href');
    await page.goto(`${base}/backups`);
    const backup = await page.locator('td a[href^="/backups/"]').first().getAttribute('href');
    await page.goto(`${base}/ftp-users`);
    const users = await page
        .locator('td a[href^="/ftp-users/"]')
        .evaluateAll(links => links.map(link => link.getAttribute('href')));
    const removals = [account, site, client].map(what => `/removals${what}`);
    const forms = [`${account}/edit`, `${account}/ftp-users/new`, `${site}/edit`];
    return [...places, account, packed, run, site, client, backup, ...forms, ...removals, ...users];
}

for (const [name, viewport] of [['wide', { width: 1280, height: 800 }], ['narrow', { width: 390, height: 844 }]]) {
    test(`every page, ${name}: axe-core finds nothing serious in either scheme, no word is broken`, async () => {
        const page = await signIn(viewport);
        for (const path of await everyPage(page)) {
            await page.goto(base + path);
            await assertAccessible(page);
            // Colours do not depend on the width.
            name === 'wide' && (await assertReadableInTheDark(page));
            await page.evaluate(() => document.querySelectorAll('details').forEach(part => (part.open = true)));
            await assertNoSidewaysScroll(page);
            await assertNoBrokenWord(page);
            await assertEachOnce(page);
        }
        assert.deepEqual(page.troubles, []);
    });
}

test('a page that says what did not work leads back to where one was', async () => {
    const page = await signIn();
    await page.goto(`${base}/accounts`);
    await page.evaluate(() => location.assign('/sites/999999'));
    await page.getByRole('link', { name: 'Back to where you were' }).click();
    await page.waitForURL(`${base}/accounts`);
    await page.close();
});

test('guests see the sign-in page only, and a wrong password is said plainly', async () => {
    const page = await open();
    await page.goto(`${base}/accounts`);
    assert.equal(new URL(page.url()).pathname, '/sign-in');
    await assertAccessible(page);
    await page.getByLabel('Address').fill('aldous@marramtide.example');
    await page.getByLabel('Password').fill('not it');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.getByText('do not belong together').waitFor();
    assert.equal(await page.getByLabel('Address').inputValue(), 'aldous@marramtide.example');
});

test('the shelves and the table tell the same sites', async () => {
    const page = await signIn();
    const jars = await page.locator('.jar .is-sr-only').allTextContents();
    await page.getByRole('link', { name: 'As a table' }).click();
    await page.locator('#shelf-rows').waitFor();
    const rows = await page.locator('#shelf-rows tr:not(.more) td:first-child').allTextContents();
    assert.equal(rows.length, 22);
    assert.deepEqual(jars.map((words) => words.split(':')[0]).sort(), rows.map((text) => text.trim()).sort());
    assert.ok((await page.locator('.concern').allTextContents()).some((text) => text.includes('FTP user still open')));
});

test('a backup on demand shows up by itself as read back', async () => {
    const page = await signIn();
    await page.getByRole('button', { name: 'Back up now: archive.bellwetherclockworks.example' }).click();
    await page.waitForURL(/\/backups\?site=/);
    await page.locator('tbody tr').first().getByText('read back').waitFor({ timeout: 90000 });
});

test('what did not work leads back to where one was', async () => {
    const page = await signIn();
    await page.goto(`${base}/accounts`);
    await page.evaluate(() => location.assign('/accounts/999999'));
    await page.getByRole('link', { name: 'Back to where you were' }).click();
    await page.waitForURL(`${base}/accounts`);
    // Whoever came from nowhere is led to Today.
    await page.goto(`${base}/accounts/999999`);
    await page.getByRole('link', { name: 'To Today' }).click();
    await page.getByRole('heading', { name: /Needs a hand/ }).waitFor();
});
