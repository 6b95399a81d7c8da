import { after, before, test } from 'node:test';
import assert from 'node:assert/strict';
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { assertAccessible, base, close, controlPort, root, signIn, varDirectory, webPort } from './support.mjs';

const documentRoot = join(varDirectory, 'standin/homes/pilgrim/public_html');
const world = () => JSON.parse(readFileSync(join(varDirectory, 'standin/world.json'), 'utf8'));

function held(directory, below = '') {
    return readdirSync(join(directory, below)).sort().flatMap((name) => {
        const path = join(below, name);
        return statSync(join(directory, path)).isDirectory()
            ? held(directory, path)
            : [`${path} ${createHash('sha256').update(readFileSync(join(directory, path))).digest('hex')}`];
    });
}

async function fault(values) {
    const answer = await fetch(`http://127.0.0.1:${controlPort}/operator/faults/pilgrim`, {
        method: 'PUT', headers: { Authorization: `Bearer ${world().operator_token}` }, body: JSON.stringify(values),
    });
    assert.equal(answer.status, 200);
}

let page;
let account;
let before_;

before(async () => {
    before_ = held(documentRoot);
    page = await signIn();
});
after(close);

test('the account is opened from Today, connects, and its document root is proven', async () => {
    assert.deepEqual(before_.map((line) => line.split(' ')[0]), ['default.htm']);
    await page.keyboard.press('/');
    await page.keyboard.type('pilgrim');
    await page.keyboard.press('Enter');
    await page.waitForURL(/\/sites\/\d+$/);
    await page.getByText('Nothing was deployed to it from here').waitFor();
    await assertAccessible(page);
    await page.locator('.trail a').first().click();
    await page.waitForURL(/\/accounts\/\d+$/);
    await page.getByRole('button', { name: /Connect/ }).click();
    // A ladder that held is one line, which opens.
    await page.getByText(/all \d+ checks hold/).click();
    await page.getByText('Listed the directory of the login: 3 names').waitFor();
    await page.getByText('/public_html is there, for pilgrimstones.example').waitFor();
    await page.getByRole('button', { name: 'Connect again' }).waitFor();
    await page.getByRole('link', { name: 'pilgrimstones.example', exact: true }).first().click();
    await page.getByRole('button', { name: 'Prove the document root' }).click();
    await page.getByText(/A token put into \/public_html answered at http:\/\/pilgrimstones\.example/).waitFor();
    assert.deepEqual(held(documentRoot), before_, 'the token is gone again');
    await assertAccessible(page);
});

test('an FTP user for the job is created and its reach proven; a failed form loses nothing', async () => {
    account = page.url();
    await page.getByRole('link', { name: 'New FTP user' }).click();
    await page.locator('#name').fill('Not A Login');
    await page.getByText('This host takes a to z').waitFor();
    await page.locator('#purpose').fill('the new site');
    await page.getByLabel('when its job ends').check();
    await page.getByRole('button', { name: 'Create and prove' }).click();
    await page.getByText('All that was typed is still here').waitFor();
    assert.equal(await page.locator('#name').inputValue(), 'Not A Login');
    assert.equal(await page.locator('#purpose').inputValue(), 'the new site');
    assert.ok(await page.getByLabel('when its job ends').isChecked());
    await page.locator('#name').fill('stones-job');
    await page.getByText('stones-job@pilgrimstones.example').waitFor();
    await page.getByRole('button', { name: 'Create and prove' }).click();
    await page.getByText('Removed it again').waitFor();
    await page.getByText('Could not climb above it').waitFor();
    await page.getByText('Landed in /public_html: 1 of 1 names agree, and a marker put there is seen').waitFor();
    assert.deepEqual(held(documentRoot), before_, 'probe and marker are gone again');
    await assertAccessible(page);
});

test('its settings are handed over once and never shown again', async () => {
    const user = page.url();
    await page.getByRole('button', { name: 'Show them here' }).click();
    const password = await page.locator('#handed-password').textContent();
    assert.match(password, /^[2-9a-zA-Z]{4}(-[2-9a-zA-Z]{4}){3}$/);
    await assertAccessible(page);
    await page.goto(user);
    assert.ok(!(await page.content()).includes(password));
    assert.equal(await page.getByRole('button', { name: 'Show them here' }).count(), 0);
    await page.goto(account);
});

test('the package is brought, planned, carried out and proven while the page is watched', async () => {
    await page.getByRole('link', { name: 'Deploy', exact: true }).click();
    await page.getByLabel('Archive').setInputFiles(join(root, 'demo/packages/pilgrim-stones-1.0.zip'));
    await page.getByText('pilgrim-stones 1.0 is received and verified').waitFor();
    await page.getByText(/Show \d+ note/).click();
    await page.getByText('Everything lay inside the folder pilgrim-stones-1.0').waitFor();
    await assertAccessible(page);
    await page.getByRole('link', { name: 'To pilgrimstones.example' }).click();
    assert.match(
        await page.getByLabel('Sign in as').locator('option:checked').textContent(),
        /stones-job@pilgrimstones\.example/,
    );
    await page.getByRole('button', { name: 'Make the plan' }).click();
    await page.getByRole('heading', { name: /What will change/ }).waitFor();
    const rows = await page.locator('table.plan tbody tr').allTextContents();
    assert.ok(rows.some((row) => /default\.htm.*set aside 30 days.*the placeholder of the host/s.test(row)));
    assert.ok(rows.some((row) => /index\.html.*added, last of all/s.test(row)));
    assert.ok(rows.every((row) => !row.includes('pilgrim-stones-1.0/')), 'the wrapper is lifted');
    assert.deepEqual(held(documentRoot), before_, 'a plan changes nothing');
    if (process.env.CELLARIUM_SHOTS) {
        await page.screenshot({ path: `${process.env.CELLARIUM_SHOTS}/plan.png` });
    }
    await assertAccessible(page);

    await fault({ delay_ms: 120 });
    await page.getByRole('button', { name: 'Back up, then replace' }).click();
    await page.getByRole('heading', { name: /Now/ }).waitFor();
    await page.locator('#now small', { hasText: 'sending' }).waitFor();
    await page.locator('.files-going li').first().waitFor();
    if (process.env.CELLARIUM_SHOTS) {
        await page.screenshot({ path: `${process.env.CELLARIUM_SHOTS}/run.png` });
    }
    await assertAccessible(page);
    await page.getByRole('heading', { name: /What changed/ }).waitFor({ timeout: 120000 });
    await fault({});
    assert.equal(await page.locator('.track .is-done').count(), 6);
    await page.getByText(/closed \d\d:\d\d:\d\d, sign-in refused/).waitFor();
    if (process.env.CELLARIUM_SHOTS) {
        await page.screenshot({ path: `${process.env.CELLARIUM_SHOTS}/proven.png` });
    }
    await assertAccessible(page);
});

test('the live page shows the new site and the FTP user is closed', async () => {
    const [popup] = await Promise.all([
        page.waitForEvent('popup'),
        page.locator('#run').getByRole('link', { name: 'pilgrimstones.example', exact: true }).click(),
    ]);
    await popup.getByRole('heading', { name: 'Pilgrim Stones Hostel' }).waitFor();
    assert.match(await popup.textContent('body'), /Twenty-two beds/);
    await popup.close();
    const user = world()
        .accounts.find(account => account.name === 'pilgrim')
        .users.find(one => one.login.startsWith('stones-job'));
    assert.equal(user.open, false);
});

test('one step back leaves the state before, byte for byte', async () => {
    await page.getByRole('button', { name: 'Undo this deployment' }).click();
    await page.getByRole('heading', { name: /What will change/ }).waitFor();
    await page.getByRole('button', { name: 'Back up, then replace' }).click();
    await page.getByRole('heading', { name: /What changed/ }).waitFor({ timeout: 120000 });
    assert.deepEqual(held(documentRoot), before_);
});

test('all of it is in the record', async () => {
    await page.goto(`${base}/record?q=Pilgrim`);
    const text = await page.textContent('table');
    for (const words of [
        'Connected to ftp.ternmast.example',
        'A token put into /public_html',
        'FTP user stones-job@pilgrimstones.example created; landing in /public_html and proven',
        'Settings of stones-job',
        'Backup of pilgrimstones.example taken',
        'live and proven',
        'its sign-in is refused',
        'Undo of pilgrim-stones 1.0',
    ]) {
        assert.ok(text.includes(words), words);
    }
    // A form that is refused is answered 422, which Chromium writes down.
    assert.deepEqual(page.troubles.filter((words) => !words.includes('422')), []);
});
