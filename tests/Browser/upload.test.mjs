// Packages in pieces: the client is tus-js-client, the server's side ours.
import { after, test } from 'node:test';
import assert from 'node:assert/strict';
import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { randomBytes } from 'node:crypto';
import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { tmpdir } from 'node:os';
import { assertAccessible, base, close, signIn } from './support.mjs';

after(close);

/** A tar of three pieces, so that there is something to go on with. */
function largePackage(name) {
    const directory = mkdtempSync(join(tmpdir(), 'upload-'));
    mkdirSync(join(directory, 'site'));
    writeFileSync(join(directory, 'site/index.html'), '<!doctype html><title>Quay</title><img src="film.bin">');
    writeFileSync(join(directory, 'site/film.bin'), randomBytes(20_000_000));
    execFileSync('tar', ['-C', directory, '-cf', join(directory, name), 'site']);
    return join(directory, name);
}

/** What was sent of it, by the server's word. */
const patches = (page) => {
    const seen = [];
    page.on('response', (response) => {
        if (response.request().method() === 'PATCH' && response.status() === 204) {
            seen.push(+response.headers()['upload-offset']);
        }
    });
    return seen;
};

test('a lost connection and a closed browser are gone on from, and the end is verified by the server', async () => {
    const file = largePackage('quay-film-1.0.tar');
    let page = await signIn();
    await page.goto(`${base}/packages`);
    let count = 0;
    await page.route('**/uploads/*', (route) => {
        // The second piece is lost on its way, and then all that follows.
        return route.request().method() === 'PATCH' && ++count > 1 ? route.abort('connectionreset') : route.continue();
    });
    const first = patches(page);
    await page.getByLabel('Archive').setInputFiles(file);
    await page.getByText('The connection is lost').waitFor();
    assert.equal(first.length, 1);
    await assertAccessible(page);
    const kept = await page.context().storageState();
    await page.context().close();

    page = await signIn();
    await page.context().addCookies(kept.cookies);
    await page.goto(`${base}/packages`);
    await page.evaluate(
        items => items.forEach(({ name, value }) => localStorage.setItem(name, value)),
        kept.origins[0].localStorage,
    );
    const second = patches(page);
    await page.getByLabel('Archive').setInputFiles(file);
    await page.getByText('quay-film 1.0 is received and verified').waitFor();
    // Nothing that was there was sent again.
    assert.ok(second[0] > first[0], `${second} after ${first}`);
    assert.equal(second.length, 2);
    await page.getByRole('heading', { name: 'quay-film 1.0' }).waitFor();
});

test('a folder is sent as it lies, with names of any script', async () => {
    const directory = mkdtempSync(join(tmpdir(), 'folder-'));
    const long = 'a-name-that-is-longer-than-the-hundred-bytes-that-an-old-archive-has-for-it-'.repeat(2);
    mkdirSync(join(directory, 'sea wall/größe', long), { recursive: true });
    writeFileSync(
        join(directory, 'sea wall/index.html'),
        `<!doctype html><title>Wall</title><a href="gr%C3%B6%C3%9Fe/${long}/page.html">x</a>`,
    );
    writeFileSync(join(directory, 'sea wall/größe', long, 'page.html'), '<!doctype html><title>Page</title>');
    const page = await signIn();
    await page.goto(`${base}/packages`);
    await page.getByLabel('or a folder').setInputFiles(join(directory, 'sea wall'));
    await page.getByText('sea wall is received and verified').waitFor();
    await page.getByText('Every reference within it leads where it says').waitFor();
});

test('what is no package is said, and what is stopped is gone', async () => {
    const directory = mkdtempSync(join(tmpdir(), 'letter-'));
    writeFileSync(join(directory, 'letter.zip'), 'Dear Rowan');
    const page = await signIn();
    await page.goto(`${base}/packages`);
    await page.getByLabel('Archive').setInputFiles(join(directory, 'letter.zip'));
    await page.getByText('This is not a zip, tar, tar.gz or tar.xz archive').waitFor();

    await page.route(
        '**/uploads/*',
        route => (route.request().method() === 'PATCH' ? route.abort() : route.continue()),
    );
    await page.getByLabel('Archive').setInputFiles(join(directory, 'letter.zip'));
    const gone = page.waitForResponse(response => response.request().method() === 'DELETE');
    await page.getByText('The connection is lost').waitFor();
    await page.getByRole('button', { name: 'Stop and discard' }).click();
    assert.equal((await gone).status(), 204);
    await page.getByLabel('Archive').waitFor();
});

test('what is dropped on the page of a site is on its way there', async () => {
    const directory = mkdtempSync(join(tmpdir(), 'dropped-'));
    mkdirSync(join(directory, 'reef/img'), { recursive: true });
    writeFileSync(join(directory, 'reef/index.html'), `<!doctype html><title>Reef</title><p>${directory}`);
    execFileSync('tar', ['-C', directory, '-cf', join(directory, 'reef-2.tar'), 'reef']);
    const page = await signIn();
    await page.goto(`${base}/?as=table&words=burnetinn.example`);
    await page.locator('a[href^="/sites/"]', { hasText: 'burnetinn.example' }).first().click();
    await page.getByRole('heading', { name: 'Upload a package' }).waitFor();
    const data = await page.evaluateHandle(async (bytes) => {
        const transfer = new DataTransfer();
        transfer.items.add(new File([Uint8Array.from(atob(bytes), (sign) => sign.charCodeAt(0))], 'reef-2.tar'));
        return transfer;
    }, readFileSync(join(directory, 'reef-2.tar')).toString('base64'));
    await page.dispatchEvent('form.upload', 'drop', { dataTransfer: data });
    await page.getByText('reef 2 is received and verified').waitFor();
    await page.getByRole('link', { name: 'To burnetinn.example' }).waitFor();
});
