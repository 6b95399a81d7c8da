import { after, before, test } from 'node:test';
import assert from 'node:assert/strict';
import { readFileSync, writeFileSync, mkdtempSync } from 'node:fs';
import { join } from 'node:path';
import { tmpdir } from 'node:os';
import {
    assertAccessible,
    assertNoSidewaysScroll,
    base,
    close,
    controlPort,
    root,
    signIn,
    varDirectory,
} from './support.mjs';

const ftpPort = process.env.CELLARIUM_STANDIN_FTP_PORT;
const described = JSON.parse(readFileSync(join(root, 'demo/world.json'), 'utf8'));
const kelpie = described.accounts.find((account) => account.login === 'kelpie');
const token = JSON.parse(readFileSync(join(varDirectory, 'standin/world.json'), 'utf8')).operator_token;

let page;

before(async () => { page = await signIn(); });
after(close);

async function faults(login, values) {
    const answer = await fetch(`http://127.0.0.1:${controlPort}/operator/faults/${login}`, {
        method: 'PUT',
        headers: { Authorization: `Bearer ${token}` },
        body: JSON.stringify(values),
    });
    assert.equal(answer.status, 200);
}

test('a letter is pasted, read, corrected and tried once; nothing typed is lost', async () => {
    await page.goto(`${base}/accounts`);
    await page.getByRole('link', { name: 'Add an account' }).click();
    await page
        .getByLabel('Paste the text')
        .fill(
            `Welcome\n\nControl panel\nUser: panel-1\nPassword: not-this\n\n` +
                `FTP access\nServer: ftp://FTP.TERNMAST.example/\n` +
                `User name:\n  kelpie-second\nPassword: \u201cOar Lock 9\u201d\nDirectory: /public_html\n`,
        );
    await page.getByRole('button', { name: 'Read the letter' }).click();
    assert.equal(await page.locator('#host').inputValue(), 'ftp.ternmast.example');
    assert.equal(await page.locator('#login').inputValue(), 'kelpie-second');
    assert.equal(await page.locator('#password').inputValue(), 'Oar Lock 9');
    assert.equal(await page.locator('#password').getAttribute('type'), 'password');
    assert.deepEqual(
        await page.locator('.letter mark').evaluateAll(marks => marks.map(mark => mark.firstChild.textContent)),
        ['ftp://FTP.TERNMAST.example/', 'kelpie-second', '\u201cOar Lock 9\u201d', '/public_html'],
    );
    await page.getByText('Quotes around it taken off').waitFor();
    await assertAccessible(page);
    await page.getByRole('button', { name: 'Add the account' }).click();
    await page.getByText('Choose whose account it is').waitFor();
    assert.equal(await page.locator('#password').inputValue(), 'Oar Lock 9');
    await page.getByLabel('Client', { exact: true }).selectOption({ label: 'Kelpie Boatyard' });
    await page.getByLabel('Port', { exact: true }).fill(ftpPort);
    await page.locator('#protocol').selectOption('ftps');
    await page.getByRole('button', { name: 'Try once without saving' }).click();
    await page.getByRole('heading', { name: /It does not connect/ }).waitFor();
    await page.locator('#tried em').getByText('Login or password is not right').waitFor();
    await assertAccessible(page);
    await page.locator('#login').fill(kelpie.login);
    await page.locator('#password').fill(kelpie.password);
    await page.getByRole('button', { name: 'Add the account' }).click();
    await page.getByText('is known already').waitFor();
});

test('the ladder is climbed rung by rung, says why it breaks, and what it proposes mends it', async () => {
    await page.goto(`${base}/accounts?q=kelpie`);
    await page.getByRole('link', { name: 'Kelpie Boatyard' }).click();
    await page.getByRole('link', { name: 'Settings' }).click();
    await page.locator('#protocol').selectOption('ftp');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await page.getByText('the password is typed in again', { exact: false }).first().waitFor();
    await page.locator('#password').fill(kelpie.password);
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await page.getByText('Saved.').waitFor();
    // Slow enough for the page to be there while it is climbed, on whatever machine.
    await faults('kelpie', { demand_tls: true, delay_ms: 4000 });
    await page.getByRole('button', { name: /^Connect/ }).click();
    // Where the page comes later than the answer, it shows how the climb ended.
    const ended = page.getByText('the server takes no sign-in without encryption', { exact: false });
    await page.getByText('Trying the next check').or(ended).first().waitFor();
    await faults('kelpie', { demand_tls: true });
    await ended.first().waitFor();
    await assertAccessible(page);
    await page.getByRole('button', { name: 'Change the protocol' }).click();
    await page.getByText(/all \d+ checks hold/).waitFor();
    await faults('kelpie', {});
});

test('the document root is found with its reasons and proven', async () => {
    await page.getByRole('link', { name: 'kelpieboatyard.example', exact: true }).click();
    await page.getByRole('link', { name: 'Settings' }).click();
    await page.getByRole('button', { name: 'Look for it' }).click();
    await page.getByText('hosts often call it public_html').waitFor();
    await assertAccessible(page);
    await page.getByRole('button', { name: 'Prove it: /public_html' }).click();
    await page.getByText(/A token put into \/public_html answered/).waitFor();
});

test('a list is looked at, its columns put right, and imported', async () => {
    const file = join(mkdtempSync(join(tmpdir(), 'cellarium-')), 'list.csv');
    writeFileSync(
        file,
        'whom;FTP server;User;Password;Domain\n' +
            'Tansy Mill;ftp.tansy.example;tansy;Mill-Wheel-4;tansymill.example\n' +
            'Umber Kiln;ftp.umber.example;umber;Kiln-Fire-5;umberkiln.example\n',
    );
    await page.goto(`${base}/accounts/import`);
    await page.getByLabel('File').setInputFiles(file);
    await page.getByRole('button', { name: 'Preview the list' }).click();
    await page.getByText('2 refused', { exact: true }).waitFor();
    await page.getByText('The client is missing.').first().waitFor();
    await page.getByLabel('whom').selectOption('client');
    await page.getByRole('button', { name: 'Look again with these' }).click();
    await page.getByText('2 new', { exact: true }).waitFor();
    await assertAccessible(page);
    assert.ok(!(await page.content()).includes('Mill-Wheel-4'));
    await page.getByRole('button', { name: 'Import 2 rows' }).click();
    await page.getByText('Imported: 2 new, 0 changed, 0 the same.').waitFor();
});

test('accounts are found while typing, sorted, kept as a view, and reached again by keyboard', async () => {
    await page.goto(`${base}/accounts`);
    await page.locator('#q').pressSequentially('umber');
    await page.waitForFunction(() => document.querySelectorAll('#accounts tbody tr').length === 1);
    assert.equal((await page.locator('#fit').textContent()).trim(), '1 of 18');
    await page.getByLabel('Name of the view').fill('Kilns');
    await page.getByRole('button', { name: 'Save this view' }).click();
    await page.getByRole('link', { name: 'Kilns' }).waitFor();
    await page.goto(`${base}/accounts`);
    await page.getByRole('link', { name: 'Host and login' }).click();
    await page.locator('th[aria-sort="ascending"]').getByText('Host and login').waitFor();
    await page.getByRole('link', { name: 'Kilns' }).click();
    assert.equal(await page.locator('#accounts tbody tr').count(), 1);
    await page.getByRole('link', { name: 'Umber Kiln' }).click();
    await page.goto(`${base}/record`);
    await page.keyboard.press('/');
    await page.getByRole('button', { name: /connect again to Umber Kiln/ }).waitFor();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await page.waitForURL(/\/accounts\/\d+$/);
    await page.getByText('ftp.umber.example').first().waitFor();
    await page.getByRole('button', { name: /^Connect/ }).click();
    await page.getByText('ftp.umber.example has no address').waitFor();
    await page.goto(base);
    await page.getByText('ftp.umber.example has no address', { exact: false }).waitFor();
    await assertNoSidewaysScroll(page);
    assert.deepEqual(page.troubles.filter((words) => !words.includes('422')), []);
});
