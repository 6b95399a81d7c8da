import { after, before, test } from 'node:test';
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { assertAccessible, assertNoSidewaysScroll, base, close, controlPort, open, root, signIn } from './support.mjs';

const described = JSON.parse(readFileSync(join(root, 'demo/world.json'), 'utf8'));
const lantern = described.accounts.find((account) => account.login === 'lantern');

let page;

before(async () => { page = await signIn(); });
after(close);

async function openAccount(words) {
    await page.goto(`${base}/accounts?q=${words}`);
    await page.locator('td a[href^="/accounts/"]').first().click();
    await page.getByRole('heading', { name: /^Reach/ }).waitFor();
}

test('the form says what a directory would reach while it is chosen, and would rather have less', async () => {
    await openAccount('bellwether');
    await page.getByRole('link', { name: 'New FTP user' }).click();
    await page.getByText('Choose from the tree').click();
    await page.getByRole('button', { name: 'www, choose /www' }).click();
    assert.equal(await page.locator('#directory').inputValue(), '/www');
    await page.getByText('Another client’s site: tidebellringers.example').waitFor();
    await page.getByRole('button', { name: 'Look into /www', exact: true }).click();
    await page
        .getByRole('button', { name: 'Look into /www/archive.bellwetherclockworks.example', exact: true })
        .click();
    await page.getByRole('button', { name: /choose \/www\/archive.bellwetherclockworks.example\/uploads/ }).waitFor();
    await assertAccessible(page);
    await page.locator('#foresight').getByRole('button', { name: '/www/repairs.bellwetherclockworks.example' }).click();
    await page
        .locator('#foresight .is-whole')
        .getByText('repairs.bellwetherclockworks.example', { exact: true })
        .waitFor();
    await page.locator('#foresight .is-none').nth(2).waitFor();
    await page.locator('#directory').fill('/www/tpyo');
    await page.locator('#foresight').getByText('It is not there').waitFor();
    await page.locator('#directory').fill('/www/repairs.bellwetherclockworks.example');
    await page.locator('#foresight .is-whole').waitFor();
});

test('a typed password is judged while it is typed, and typing chooses what it belongs to', async () => {
    await page.locator('#password').fill('Bellwether2026!');
    await page.getByText(/\d\d bits: (weak|not enough|guessed)/).waitFor();
    assert.ok(await page.getByLabel('typed:').isChecked());
    await page.locator('#password').fill('vK7-mubel-Tarn-40q');
    await page.getByText(/\d\d bits: strong/).waitFor();
    assert.ok(!page.url().includes('mubel'));
    await page.locator('#name').fill('repairs-desk');
    await page.getByText('repairs-desk@bellwetherclockworks.example').waitFor();
    await page.locator('#megabytes').fill('40');
    await page.getByRole('button', { name: 'Create and prove' }).click();
    await page.getByText('Space: 40 MB, as asked for, the host says').waitFor();
});

test('a link shows the settings a single time and tells who opened it', async () => {
    const user = page.url();
    await page.getByRole('button', { name: 'Make a link that works once' }).click();
    const link = await page.locator('#link').textContent();
    const guest = await open({ width: 390, height: 844 });
    await guest.goto(link);
    await guest.getByText('They are shown a single time').waitFor();
    await assertAccessible(guest);
    await guest.getByLabel(/Your name/).fill('Mona Sandpiper');
    await guest.getByRole('button', { name: 'Show them now' }).click();
    assert.equal(await guest.locator('#handed-password').textContent(), 'vK7-mubel-Tarn-40q');
    await assertAccessible(guest);
    await assertNoSidewaysScroll(guest);
    assert.ok(!guest.url().includes('#'), 'the address keeps nothing of it');
    await guest.goto(base);
    await guest.goto(link);
    await guest.getByLabel(/Your name/).fill('somebody else');
    await guest.getByRole('button', { name: 'Show them now' }).click();
    await guest.getByText('opened already, was withdrawn, or its time is over').waitFor();
    await guest.context().close();
    await page.goto(user);
    await page.getByText(/opened .* by Mona Sandpiper, from 127\.0\.0\.1/).waitFor();
});

test('the map lights up a lane with its rows, by pointer and by keyboard, and a row with its lanes', async () => {
    await openAccount('bellwether');
    const lit = () =>
        page
            .locator('.reach .row.is-lit')
            .evaluateAll(rows => rows.map(row => row.querySelector('.place')?.textContent.trim()));
    await page.locator('.reach a.lane', { hasText: 'repairs-desk' }).locator('.bar').hover();
    await page.getByText(/repairs-desk@bellwetherclockworks\.example, open: lands in \/www\/repairs/).waitFor();
    assert.match((await lit())[0], /^repairs\.bellwether/);
    await page.mouse.move(2, 2); // Focus scrolls, and what then lies under the pointer would be pointed at.
    await page.locator('.reach a.lane', { hasText: 'dial-room' }).focus();
    await page.locator('.reach-read', { hasText: 'dial-room@bellwetherclockworks.example' }).waitFor();
    assert.match((await lit())[0], /^archive\.bellwether/);
    await page.locator('.reach .row .place', { hasText: /^www\s*$/ }).hover();
    await page.getByText('Reached by bellwether, bell-and-clock').waitFor();
    await page.keyboard.press('Tab');
    await assertAccessible(page);
});

test('closed users are on the map on request, and the facts are a table too', async () => {
    await openAccount('gannet');
    assert.equal(await page.locator('.reach a.lane').count(), 1);
    await page.getByRole('link', { name: 'Show 1 closed' }).click();
    await page.locator('.reach a.lane', { hasText: 'tours-crew' }).waitFor();
    await page.getByText('The same as a table').click();
    await page.getByRole('cell', { name: 'full account' }).waitFor();
});

test('by hand: the sheet is followed at the provider, then proven', async () => {
    await page.goto(base);
    await page.getByRole('link', { name: /^See what to do/ }).click();
    await page.getByRole('heading', { name: 'Create choir-hymns@lanternstreetchoir.example' }).waitFor();
    await assertAccessible(page);
    await page.getByRole('button', { name: 'It is done: prove it' }).click();
    await page.getByText('it was not done at the provider yet, or typed differently there').waitFor();
    const field = name =>
        page.locator('.is-copy dt', { hasText: name }).locator('xpath=following-sibling::dd[1]/code').textContent();
    const answer = await fetch(`http://127.0.0.1:${controlPort}/v1/ftp-users`, {
        method: 'POST',
        headers: { Authorization: `Bearer ${lantern.token}` },
        body: JSON.stringify({
            name: await field(/^Name$/),
            password: await field('Password'),
            directory: await field('Directory'),
            space_limit: 200_000_000,
        }),
    });
    assert.equal(answer.status, 201);
    await page.getByRole('button', { name: 'It is done: prove it' }).click();
    await page.getByText('Removed it again').waitFor();
    assert.equal(await page.locator('#sheet-password').count(), 0);
});

test('a host that jails nobody is caught, and the user never counts as open', async () => {
    await page.goto(base);
    await page.locator('.concern', { hasText: 'FTP user reaches more or other than meant' }).getByRole('link').click();
    await page.getByText('proof does not hold').waitFor();
    await page.locator('.steps .is-broken', { hasText: 'Going up led out' }).waitFor();
    await page.getByRole('button', { name: 'Close', exact: true }).click();
    await page.getByText('menu@burnetinn.example is closed; its sign-in is refused').waitFor();
});

test('many are changed at once after a look at what would be done, each with its proof', async () => {
    await page.goto(`${base}/reach`);
    assert.match(await page.locator('.matrix tbody tr').first().textContent(), /bell-and-clock/);
    await page.getByRole('link', { name: /^never closes/ }).click();
    assert.equal(await page.locator('.matrix tbody tr').count(), 2);
    await page.getByRole('link', { name: 'As a list to act on' }).click();
    for (const login of ['till@samphiresmokehouse.example', 'dial-room@bellwetherclockworks.example']) {
        await page.getByLabel(login, { exact: true }).check();
    }
    await page.getByRole('button', { name: 'Close', exact: true }).click();
    await page.getByText('what would be done; nothing has been changed yet').waitFor();
    await assertAccessible(page);
    await page.getByRole('button', { name: 'Close these 2' }).click();
    await page.getByText('done, each with its proof').waitFor();
    assert.equal(await page.getByText('sign-in refused (530)').count(), 2);
    assert.deepEqual(page.troubles, []);
});
