// One person of each role: what they do, what they see, and that each of their pages can be read.
import { createHmac } from 'node:crypto';
import { after, test } from 'node:test';
import assert from 'node:assert/strict';
import {
    assertAccessible,
    assertNoBrokenWord,
    assertNoSidewaysScroll,
    assertReadableInTheDark,
    base,
    close,
    open,
    people,
    signIn,
} from './support.mjs';

after(close);

/** What an authenticator app shows for a key (RFC 6238), `steps` half minutes from now. */
function code(key, steps = 0) {
    const bits = [...key]
        .map(letter => 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'.indexOf(letter).toString(2).padStart(5, '0'))
        .join('');
    const secret = Buffer.from(bits.match(/.{8}/g).map(byte => parseInt(byte, 2)));
    const step = Buffer.alloc(8);
    step.writeBigUInt64BE(BigInt(Math.floor(Date.now() / 30000) + steps));
    const mac = createHmac('sha1', secret).update(step).digest();
    const number = mac.readUInt32BE(mac[19] & 15) & 0x7fffffff;
    return String(number % 1000000).padStart(6, '0');
}

test('somebody is invited, chooses a password, sets up a second factor and signs in with it', async () => {
    const maintainer = await signIn();
    await maintainer.getByRole('link', { name: 'People', exact: true }).click();
    await maintainer.getByRole('link', { name: 'Invite somebody' }).click();
    await maintainer.getByLabel('Name').fill('Linnet Groyne');
    await maintainer.getByLabel('E-mail address').fill('groyne@marramtide.example');
    await maintainer.getByLabel(/helper daily work/).check();
    await maintainer.getByRole('button', { name: 'Make the link' }).click();
    const link = await maintainer.locator('#link').textContent();
    assert.match(link, /\/welcome#[\w-]{43}$/);

    const page = await open();
    await page.goto(link);
    assert.equal(new URL(page.url()).hash, '', 'the code does not stay in the address');
    await page.getByLabel('Password', { exact: true }).fill('gulls over slack water');
    await page.getByLabel('The same once more').fill('gulls over slack water');
    await assertAccessible(page);
    await page.getByRole('button', { name: 'Save the password' }).click();
    await page.getByText('Your password is set, Linnet Groyne').waitFor();
    const enter = async () => {
        await page.getByLabel('Address').fill('groyne@marramtide.example');
        await page.getByLabel('Password').fill('gulls over slack water');
        await page.getByRole('button', { name: 'Sign in' }).click();
    };
    await enter();
    await page.getByRole('link', { name: 'L. Groyne' }).click();
    await page.getByRole('link', { name: 'Set it up' }).click();
    await page.locator('.qr canvas').waitFor();
    await assertAccessible(page);
    const key = (await page.locator('code').first().textContent()).replaceAll(' ', '');
    await page.getByLabel('Code', { exact: true }).fill(code(key));
    await page.getByRole('button', { name: 'Turn it on' }).click();
    const recovery = await page.locator('.codes code').allTextContents();
    assert.equal(new Set(recovery).size, 10);
    await page.getByRole('link', { name: 'I have noted them down' }).click();
    await page.getByText('10 recovery codes are left').waitFor();

    await page.getByRole('button', { name: 'Sign out' }).click();
    await enter();
    await page.getByRole('heading', { name: 'Second factor' }).waitFor();
    await assertAccessible(page);
    await page.getByLabel('Code', { exact: true }).fill(code(key, 1));
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.getByRole('heading', { name: /Needs a hand/ }).waitFor();
    await page.getByRole('button', { name: 'Sign out' }).click();
    await enter();
    await page.getByLabel('Code', { exact: true }).fill(recovery[0].toUpperCase());
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.getByRole('heading', { name: /Needs a hand/ }).waitFor();

    await maintainer.goto(`${base}/people`);
    await maintainer.getByRole('link', { name: 'Linnet Groyne' }).click();
    await maintainer.getByText('on, 9 recovery codes left').waitFor();
    await maintainer.getByRole('button', { name: 'Close Linnet Groyne' }).click();
    await maintainer.getByText('Linnet Groyne is closed and signed out everywhere').waitFor();
    await page.goto(`${base}/accounts`);
    await page.getByLabel('Password').waitFor();
    assert.deepEqual([...maintainer.troubles, ...page.troubles], []);
});

test('what a client’s person asks is answered, and the answer stands on their page', async () => {
    const client = await signIn(undefined, people.clients);
    await client.getByLabel('a change').check();
    await client.getByLabel('Site', { exact: true }).selectOption('ostreabeds.example');
    await client.getByLabel('What it is about').fill('The beds open in May this year.');
    await client.getByRole('button', { name: 'Ask the agency' }).click();
    await client.getByText('The agency has it').waitFor();

    const helper = await signIn(undefined, people.helper);
    await helper.goto(`${base}/requests`);
    await helper.locator('tr', { hasText: 'open in May' }).getByRole('link', { name: /Answer/ }).click();
    await helper.getByLabel(/Your answer/).fill('It says May now.');
    await helper.getByRole('button', { name: 'Answer' }).click();
    await helper.getByText('finds your answer').waitFor();

    await client.reload();
    await client.locator('.reply', { hasText: 'It says May now.' }).waitFor();
    assert.deepEqual([...client.troubles, ...helper.troubles], []);
});

test('a client’s person carries a backup home', async () => {
    const page = await signIn(undefined, people.clients);
    await page.getByRole('link', { name: 'Backups' }).click();
    const [download] = await Promise.all([
        page.waitForEvent('download'),
        page.getByRole('link', { name: /Download as zip/ }).first().click(),
    ]);
    assert.match(download.suggestedFilename(), /ostreabeds\.example-[\d-]+\.zip$/);
});

test('times, hours and colours are as somebody chose them', async () => {
    const page = await signIn(undefined, people.helper);
    await page.goto(`${base}/me`);
    await page.getByLabel('Time zone').selectOption('Pacific/Auckland');
    await page.getByLabel(/12 hours/).check();
    await page.getByLabel('dark').check();
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByText('Your settings are saved').waitFor();
    const paper = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor);
    assert.equal(await paper(), 'rgb(23, 28, 30)');
    await page.goto(`${base}/backups`);
    assert.match(await page.locator('td.when').first().textContent(), /\d:\d\d [ap]m/);
    await page.goto(`${base}/me`);
    await page.getByLabel('light').check();
    await page.getByLabel(/24 hours/).check();
    await page.getByLabel('Time zone').selectOption('');
    await page.emulateMedia({ colorScheme: 'dark' });
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByText('Your settings are saved').waitFor();
    assert.equal(await paper(), 'rgb(246, 243, 236)', 'their own choice goes before the device’s');
});

const pagesOf = {
    maintainer: ['/people', '/people/new', '/people/3', '/people?closed=1', '/me', '/me/second-factor', '/requests',
        '/requests/1', '/requests/2', '/record', '/sign-in/again'],
    helper: ['/', '/accounts', '/accounts/5', '/sites/10', '/ftp-users', '/packages', '/me', '/people'],
    clients: ['/', '/sites/10', '/backups', '/record', '/me', '/accounts'],
};

test('the pages of each role: axe-core finds nothing serious, and no word is broken, narrow or wide', async () => {
    for (const [role, paths] of Object.entries(pagesOf)) {
        const page = await signIn(undefined, people[role]);
        for (const path of paths) {
            await page.setViewportSize({ width: 1280, height: 800 });
            await page.goto(base + path);
            await assertAccessible(page);
            // The others see parts of the same pages.
            role === 'maintainer' && (await assertReadableInTheDark(page));
            await page.evaluate(() => document.querySelectorAll('details').forEach(part => (part.open = true)));
            await assertNoBrokenWord(page);
            await page.setViewportSize({ width: 390, height: 844 });
            await assertNoSidewaysScroll(page);
            await assertNoBrokenWord(page);
        }
    }
});
