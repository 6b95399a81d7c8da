// The library, a package with faults, what refers to what, mending, comparing: as a maintainer goes through them.
import { after, test } from 'node:test';
import assert from 'node:assert/strict';
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { tmpdir } from 'node:os';
import { assertAccessible, assertNoBrokenWord, assertNoSidewaysScroll, base, close, signIn } from './support.mjs';

after(close);

/** A site with faults of several kinds, unlike any other one. */
function faulty(name) {
    const directory = mkdtempSync(join(tmpdir(), 'faulty-'));
    mkdirSync(join(directory, 'site/img'), { recursive: true });
    const page = (title, text) => `<!doctype html>\n<html lang="en"><title>${title} ${directory}</title>\n${text}\n`;
    writeFileSync(
        join(directory, 'site/index.html'),
        page('Quay', '<img src="img/Harbour.JPG" alt="x">\n<a href="abuot.html">A</a> <a href="news.html">N</a>'),
    );
    writeFileSync(join(directory, 'site/about.html'), page('About the quay', '<img src="IMG/harbour.jpg" alt="x">'));
    writeFileSync(join(directory, 'site/news.html'), page('News of the quay', '<p>Prices coming soon</p>'));
    writeFileSync(join(directory, 'site/img/harbour.jpg'), 'x');
    writeFileSync(join(directory, 'site/index.html~'), 'x');
    execFileSync('tar', ['-C', directory, '-czf', join(directory, name), 'site']);
    return join(directory, name);
}

async function assertGood(page) {
    await assertAccessible(page);
    await assertNoSidewaysScroll(page);
    await assertNoBrokenWord(page);
}

test('faults are seen, looked at as a difference and mended; what is mended can go live', async () => {
    const page = await signIn();
    await page.goto(`${base}/packages`);
    await page.getByLabel('Archive').setInputFiles(faulty('mended-quay-1.0.tar.gz'));
    await page.getByRole('heading', { name: 'mended-quay 1.0' }).waitFor();
    await page.getByText('This package cannot go live as it is').waitFor();
    assert.deepEqual(await page.locator('.finding del').allTextContents(), [
        'IMG/harbour.jpg',
        'img/Harbour.JPG',
        'abuot.html',
    ]);
    await assertGood(page);

    await page.getByRole('link', { name: 'Mend all 3 that are safe' }).click();
    await page.getByText('2 places written anew, 1 file left out').waitFor();
    await assertGood(page);
    await page.getByRole('button', { name: 'Make 1.0 mended 1' }).click();
    await page.getByText('mended-quay 1.0 mended 1 is made').waitFor();
    await page.getByText('Made here from').waitFor();
    assert.equal(await page.getByText('This package cannot go live').count(), 0);

    await page.getByRole('link', { name: 'compare' }).first().click();
    await page.getByText('2 changed, 1 gone, 2 the same').waitFor();
    await page.getByRole('link', { name: 'about.html' }).click();
    await page.locator('#text .was').getByText('IMG/harbour.jpg').waitFor();
    await page.locator('#text .is').getByText('img/harbour.jpg').waitFor();
    await assertGood(page);
    assert.deepEqual(page.troubles, []);
});

test('what refers to what lights up by pointer and keyboard, and is a table for one file', async () => {
    const page = await signIn();
    await page.goto(`${base}/packages`);
    await page.getByLabel('Archive').setInputFiles(faulty('drawn-quay-1.0.tar.gz'));
    await page.getByRole('heading', { name: 'What refers to what' }).waitFor();
    const node = page.locator('.references a.node', { hasText: 'news.html' }).first();
    await node.hover();
    assert.equal(await page.locator('.references svg.has-picked .arc.is-picked').count(), 1);
    await page.mouse.move(5, 5);
    await page.waitForFunction(() => document.querySelector('.references svg.has-picked') === null);
    await node.focus();
    assert.equal(await page.locator('.references .node.is-picked').count(), 2);
    await page.keyboard.press('Enter');
    await page.getByRole('columnheader', { name: 'Referred to from' }).waitFor();
    await page.locator('.both-sides').getByRole('link', { name: 'index.html' }).click();
    await page.locator('.both-sides').getByText('abuot.html').waitFor();
    await assertAccessible(page);
    assert.deepEqual(page.troubles, []);
});

test('the library is searched, sorted and offers older versions to let go', async () => {
    const page = await signIn({ width: 390, height: 844 });
    await page.goto(`${base}/packages?q=thrift&sort=name`);
    await page.getByRole('link', { name: 'thrift-campion', exact: true }).waitFor();
    await assertGood(page);
    await page.getByLabel('thrift-campion', { exact: true }).check();
    await page.getByRole('button', { name: 'Let older versions go' }).click();
    await page.getByText('is live on thriftcampion.example').waitFor();
    await page.getByText('is the way back of thriftcampion.example').waitFor();
    await assertGood(page);
    await page.goto(`${base}/package-types`);
    await assertGood(page);
    await page.getByRole('link', { name: 'Edit Quaylight theme' }).click();
    await page.getByLabel('Rules, as YAML').fill('id: [');
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByText('is not understood as YAML').waitFor();
    await assertGood(page);
});

test('an update is laid over the site that lags behind, before anything is planned', async () => {
    const page = await signIn();
    await page.goto(`${base}/packages?q=quaylight`);
    await page.getByRole('link', { name: 'quaylight', exact: true }).click();
    const installed = page.getByRole('region', { name: 'Installed' });
    await installed.getByText('an older version is installed there').waitFor();
    await installed.getByRole('link', { name: 'teaselmill.example' }).click();

    await page.getByRole('button', { name: 'Ask which PHP it runs' }).click();
    await page.getByText(/teaselmill\.example runs PHP \d+\.\d+\.\d+ with \d+ extensions/).waitFor();
    await assertGood(page);

    await page.getByRole('link', { name: '2.5 in the library' }).click();
    const tree = page.getByRole('region', { name: 'The tree afterwards' });
    assert.match(await tree.getByRole('row', { name: 'setup.php' }).innerText(), /set aside 30 days/);
    assert.match(await tree.getByRole('row', { name: 'themes/shore/page.php' }).innerText(), /kept/);
    await assertGood(page);

    await page.getByRole('link', { name: 'To teaselmill.example' }).click();
    await page.getByRole('button', { name: 'Make the plan' }).click();
    await page.getByRole('button', { name: 'Back up, then replace' }).waitFor();
    await page.getByText('PHP 8.1 or newer, with mbstring').waitFor();
    await assertGood(page);
});
