// Files of a site: looked at by keyboard alone, changed, taken back, edited in place.
import { after, test } from 'node:test';
import assert from 'node:assert/strict';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
    assertAccessible,
    assertEachOnce,
    assertNoBrokenWord,
    assertNoSidewaysScroll,
    assertReadableInTheDark,
    base,
    close,
    signIn,
    varDirectory,
} from './support.mjs';

after(close);

async function assertGood(page) {
    await assertAccessible(page);
    await assertNoSidewaysScroll(page);
    await assertNoBrokenWord(page);
    await assertEachOnce(page);
}

async function files(viewport) {
    const page = await signIn(viewport);
    await page.getByLabel('Find a client, domain, login, package').fill('bellwetherclockworks.example');
    const found = page.locator('#found a[href^="/sites/"]')
        .filter({ has: page.getByText(/^bellwetherclockworks\.example/) })
        .first();
    await page.goto(base + await found.getAttribute('href'));
    await page.getByRole('link', { name: 'Files', exact: true }).waitFor();
    // The link leads to where they were last.
    await page.goto(`${page.url()}/files`);
    await page.getByRole('heading', { name: /Files/ }).waitFor();
    // What is clicked while the list is renewed is another element when the button goes up.
    await page.locator('#files:not([hx-get])').waitFor();
    return page;
}

const focused = page => page.evaluate(() => document.activeElement.textContent.trim());

test('a file is found, ticked, moved to a new folder and brought back by keys alone', async () => {
    const page = await files();
    await assertGood(page);
    await assertReadableInTheDark(page);
    await page.keyboard.press('F7');
    await page.keyboard.type('to print');
    await page.keyboard.press('Enter');
    await page.getByText(/New folder to print: done|done and confirmed by the server/).waitFor();
    await page.locator('main').focus();
    await page.keyboard.press('Home');
    await page.keyboard.type('robots');
    assert.equal(await focused(page), 'robots.txt');
    await page.keyboard.press('Space');
    await page.getByText('1 chosen:').waitFor();
    await page.keyboard.press('F6');
    await page.keyboard.type('to print');
    await page.getByRole('button', { name: 'Move', exact: true }).first().press('Enter');
    await page.getByRole('link', { name: 'Move robots.txt to /www/bellwetherclockworks.example/to print' }).waitFor();
    assert.equal(await page.locator('tr[data-name="robots.txt"]').count(), 0);
    await page.getByRole('link', { name: 'to print/' }).press('Enter');
    await page.locator('tr[data-name="robots.txt"]').waitFor();
    await page.locator('main').focus();
    await page.keyboard.press('Backspace');
    await page.getByRole('button', { name: 'Undo' }).press('Enter');
    await page.locator('tr[data-name="robots.txt"]').waitFor();
    await page.keyboard.press('?');
    await page.getByRole('heading', { name: 'Keys' }).waitFor();
    await page.close();
});

test('rights are digits and ticks at once, and what visitors get is asked', async () => {
    const page = await files();
    await page.locator('tr[data-name="index.html"] a[data-open]').click();
    const everyone = page.getByLabel('everyone: read');
    await everyone.uncheck();
    assert.equal(await page.locator('[data-digits]').inputValue(), '640');
    const word = page.locator('[data-rights] [data-for-everyone]');
    assert.equal(await word.isVisible(), false);
    await page.locator('[data-digits]').fill('777');
    await word.waitFor();
    await page.locator('[data-digits]').fill('600');
    await word.waitFor({ state: 'hidden' });
    assert.equal(await page.getByLabel('group: read').isChecked(), false);
    await page.getByRole('button', { name: 'Set', exact: true }).last().click();
    await page.getByRole('link', { name: 'Set the permissions of index.html to 600' }).waitFor();
    await page.getByRole('button', { name: 'Ask what visitors get' }).click();
    await page.getByText('is the smallest change that mends it').waitFor();
    await assertGood(page);
    await page.getByRole('button', { name: 'Mend to 644' }).click();
    await page.getByRole('link', { name: 'Set the permissions of index.html to 644' }).waitFor();
    await page.getByRole('button', { name: 'Ask what visitors get' }).click();
    await page.locator('tr[data-name="index.html"]').getByText('get it').waitFor();
    await page.close();
});

test('a text is edited, looked at, saved and undone, and a slash in it is a slash', async () => {
    const page = await files();
    await page.locator('tr[data-name="index.html"] a[data-open]').click();
    await page.getByRole('link', { name: 'Edit' }).click();
    const text = page.locator('.cm-content');
    await text.click();
    await page.keyboard.press('Control+End');
    await page.keyboard.insertText('<p>Closed on Mondays');
    await page.keyboard.press('Control+End');
    await page.keyboard.press('<');
    await page.keyboard.press('/');
    await page.keyboard.insertText('p>');
    await page.getByText('draft, kept encrypted here, not saved').waitFor();
    await assertAccessible(page);
    await assertNoSidewaysScroll(page);
    await page.reload();
    await page.locator('.cm-content').getByText('Closed on Mondays').waitFor();
    await page.getByRole('button', { name: 'Look at the difference, then save' }).click();
    await page.getByRole('cell', { name: 'Closed on Mondays' }).waitFor();
    await assertGood(page);
    await page.getByRole('button', { name: 'Save to the server' }).click();
    await page.getByText('Visitors get what was saved, to the byte').waitFor();
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByRole('link', { name: 'Undo: save index.html' }).waitFor();
    assert.deepEqual(page.troubles, []);
    await page.close();
});

test('files that are uploaded are compared first, and what is downloaded is whole', async () => {
    const page = await files();
    const filesPage = page.url();
    const data = await page.evaluateHandle(() => {
        const transfer = new DataTransfer();
        transfer.items.add(new File(['<p>The clock is mended.</p>'], 'news of today.html'));
        transfer.items.add(new File([''], 'empty.txt'));
        return transfer;
    });
    await page.dispatchEvent('.files-two', 'drop', { dataTransfer: data });
    await page.getByRole('heading', { name: /What will change/ }).waitFor();
    await page.getByRole('row', { name: /news of today\.html/ }).waitFor();
    await assertGood(page);
    await page.getByRole('button', { name: 'Back up, then replace' }).click();
    await page.getByRole('button', { name: /Undo/ }).first().waitFor();

    await page.goto(filesPage);
    await page.getByLabel('choose news of today.html').check();
    await page.locator('details[data-act="zip"] summary').click();
    const [download] = await Promise.all([
        page.waitForEvent('download'),
        page.getByRole('button', { name: 'Download as zip' }).click(),
    ]);
    assert.equal(download.suggestedFilename(), 'news of today.html.zip');
    const bytes = readFileSync(await download.path());
    assert.ok(bytes.includes('<p>The clock is mended.</p>'));
    assert.equal(bytes.readUInt32LE(bytes.length - 22), 0x06054b50, 'it has its end');
    const headers = { Range: 'bytes=20-' };
    const whole = await page.request.get(download.url());
    headers['If-Range'] = whole.headers().etag;
    const rest = await page.request.get(download.url(), { headers });
    assert.equal(rest.status(), 206);
    assert.deepEqual(await rest.body(), bytes.subarray(20), 'a download that was broken off goes on');
    headers['If-Range'] = '"another"';
    assert.equal((await page.request.get(download.url(), { headers })).status(), 200);
    await page.locator('details[data-act="zip"] summary').click();
    await page.getByLabel('choose empty.txt').check();
    await page.getByRole('button', { name: 'Set aside' }).first().click();
    await page.getByRole('link', { name: 'Set 2 files aside' }).waitFor();
    await page.close();
});

test('what stands in texts is found by keys alone, and each line leads to the editor', async () => {
    const page = await files();
    await page.locator('main').focus();
    await page.keyboard.press('*');
    await page.keyboard.type('*.html');
    await page.keyboard.press('Tab');
    await page.keyboard.type('long-case CLOCKS');
    await page.keyboard.press('Enter');
    await page.getByText('Looked through all of it').waitFor();
    await page.getByRole('heading', { name: /[1-9]\d* found/ }).waitFor();
    await assertGood(page);
    await assertReadableInTheDark(page);
    await page.getByRole('link', { name: /line \d+ of index\.html/ }).first().press('Enter');
    await page.locator('.cm-content').waitFor();
    await page.locator('.cm-activeLine').getByText('Long-case clocks').waitFor();
    await page.close();
});

test('pages that lead to a file are told before it is renamed, mended with it, and all is taken back', async () => {
    const page = await files();
    await page.locator('tr[data-name="workshop.html"] a[data-open]').click();
    await page.getByLabel('New name').fill('the workshop.html');
    await page.getByRole('button', { name: 'Rename' }).click();
    await page.getByRole('heading', { name: /pages would lead nowhere/ }).waitFor();
    await page.getByRole('cell', { name: 'the%20workshop.html', exact: true }).first().waitFor();
    await assertGood(page);
    await page.locator('summary', { hasText: 'Before and after in index.html' }).click();
    await page.getByRole('button', { name: /Start, and mend/ }).click();
    const change = await page.getByRole('link', { name: /^Rename workshop\.html to/ }).or(
        page.getByRole('heading', { name: /^Rename workshop\.html to .* done/ }),
    ).first();
    await change.waitFor();
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByText('Undo: rename workshop.html').first().waitFor();
    await page.close();
});

test('pictures and documents are looked at in place, and nothing in them runs', async () => {
    const home = join(varDirectory, 'standin/homes/bellwether/www/bellwetherclockworks.example/to look at');
    mkdirSync(home, { recursive: true });
    writeFileSync(join(home, 'evil.svg'), '<svg xmlns="http://www.w3.org/2000/svg" width="60" height="40">'
        + '<script>parent.document.title = "taken over"</script><rect width="60" height="40"/></svg>');
    writeFileSync(join(home, 'list.pdf'), document());
    writeFileSync(join(home, 'broken.png'), 'no picture');
    const page = await files();
    await page.goto(`${page.url().split('?')[0]}/to%20look%20at?look=1`);
    await page.locator('tr[data-name="evil.svg"] a[data-open]').click();
    await page.getByText('60 × 40 pixels').waitFor();
    assert.ok(!(await page.title()).includes('taken over'));
    await page.locator('tr[data-name="list.pdf"] a[data-open]').click();
    await page.getByRole('button', { name: /Look at it/ }).click();
    await page.getByText('1 page', { exact: true }).waitFor();
    await page.getByRole('img', { name: 'page 1' }).waitFor();
    await assertGood(page);
    assert.deepEqual(page.troubles, []);
    await page.locator('tr[data-name="broken.png"] a[data-open]').click();
    await page.getByText('No browser shows this').waitFor();
    await page.close();
});

test('a page that tries to leave its frame stays in it, and asks nobody else for anything', async () => {
    const out = 'http://escape.example';
    const home = join(varDirectory, 'standin/homes/bellwether/www/bellwetherclockworks.example');
    writeFileSync(join(home, 'trap.html'), `<!doctype html>
<html><head><base target="_top"><meta http-equiv="refresh" content="0;url=${out}/refresh">
<link rel="stylesheet" href="${out}/sheet.css"><link rel="prefetch" href="${out}/prefetch">
<script>top.location = '${out}/script'</script></head>
<body onload="top.location = '${out}/onload'"><h1>A trap</h1>
<p><a id="top" href="${out}/top">to the top</a> <a id="self" target="_self" href="${out}/self">within</a>
<a id="new" target="_blank" href="${out}/new">a new one</a> <a id="js" href="javascript:top.close()">close</a></p>
<form action="${out}/form" target="_top"><button id="send">send</button></form>
<img src="${out}/pixel.png" alt=""><iframe src="${out}/frame"></iframe><object data="${out}/object"></object>
<svg><script>top.location = '${out}/svg'</script></svg></body></html>
`);
    const page = await files();
    const escaped = [];
    page.context().on('page', popup => escaped.push(`a window ${popup.url()}`));
    await page.context().route(`${out}/**`, (route) => {
        escaped.push(route.request().url());
        return route.abort();
    });
    await page.goto(`${page.url().split('?')[0]}?look=1`);
    await page.locator('tr[data-name="trap.html"] a[data-open]').click();
    await page.getByRole('link', { name: 'Edit' }).click();
    await page.locator('.cm-content').click();
    await page.keyboard.press('Control+End');
    await page.keyboard.insertText('<!-- once more -->');
    await page.getByText('draft, kept encrypted here, not saved').waitFor();
    await page.getByRole('button', { name: 'Look at the difference, then save' }).click();
    await page.getByRole('button', { name: 'Save to the server' }).click();
    await page.getByText('As visitors get it now').waitFor();
    const there = page.url();
    await page.locator('.as-visitors iframe').scrollIntoViewIfNeeded();
    const frame = page.frameLocator('.as-visitors iframe');
    await frame.getByRole('heading', { name: 'A trap' }).waitFor();
    for (const link of ['#top', '#self', '#new', '#js', '#send']) {
        // Where one of them has led the frame away, there is nothing to press any more.
        await frame.locator(link).click({ timeout: 5000 }).catch(() => {});
    }
    assert.equal(page.url(), there);
    assert.deepEqual(escaped, []);
    await page.close();
});

test('a folder for private downloads, versions beside each other, and the rights of the whole site', async () => {
    const page = await files();
    const filesPage = page.url().split('?')[0];
    await page.getByText('New folder', { exact: true }).click();
    await page.locator('#new-folder').fill('drawings');
    await page.getByLabel('for private downloads').check();
    await page.getByRole('button', { name: 'Make it' }).click();
    await page.getByText('Nobody guesses this address').waitFor();
    await assertGood(page);
    await page.getByRole('button', { name: 'Close it: set aside' }).click();
    await page.getByRole('button', { name: /^Start/ }).first().click();
    await page.getByText(/1 of 1 done|done and confirmed/).first().waitFor();

    await page.goto(`${filesPage}?chosen=prices.html`);
    await page.getByRole('link', { name: /compare with that of/ }).first().click();
    await page.getByRole('heading', { name: /prices\.html now, and on/ }).waitFor();
    await assertGood(page);

    await page.goto(filesPage);
    await page.getByRole('button', { name: 'Check permissions' }).click();
    await page.getByRole('heading', { name: /^Permissions/ }).waitFor();
    await page.getByText(/as\s+they\s+should\s+be/).waitFor();
    await assertGood(page);
    await page.close();
});

test('on a narrow screen everything is there', async () => {
    const page = await files({ width: 390, height: 844 });
    await page.locator('tr[data-name="index.html"] a[data-open]').click();
    await page.getByRole('link', { name: 'Edit' }).waitFor();
    await assertGood(page);
    assert.ok(page.url().startsWith(base));
    await page.close();
});

// The smallest document of one page (ISO 32000-1, 7.5).
function document() {
    const drawing = 'BT /F1 24 Tf 40 100 Td (Price list) Tj ET';
    const objects = [
        '<< /Type /Catalog /Pages 2 0 R >>',
        '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
        '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 300 200] /Contents 4 0 R '
            + '/Resources << /Font << /F1 5 0 R >> >> >>',
        `<< /Length ${drawing.length} >>\nstream\n${drawing}\nendstream`,
        '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
    ];
    let text = '%PDF-1.4\n';
    const places = objects.map((object, number) => {
        const place = text.length;
        text += `${number + 1} 0 obj\n${object}\nendobj\n`;
        return place;
    });
    const table = places.map(place => `${String(place).padStart(10, '0')} 00000 n \n`).join('');
    return `${text}xref\n0 6\n0000000000 65535 f \n${table}trailer << /Size 6 /Root 1 0 R >>\n`
        + `startxref\n${text.length}\n%%EOF`;
}
