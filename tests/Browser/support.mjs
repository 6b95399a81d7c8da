// What the browser tests share: one Chromium, a signed-in page, a look by axe-core.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import assert from 'node:assert/strict';
import { afterEach } from 'node:test';

const require = createRequire(process.env.CELLARIUM_NODE_MODULES + '/');
const { chromium } = require('playwright-core');
const axe = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

export const base = process.env.CELLARIUM_URL;
export const root = process.env.CELLARIUM_ROOT;
export const webPort = process.env.CELLARIUM_STANDIN_WEB_PORT;
export const controlPort = process.env.CELLARIUM_STANDIN_CONTROL_PORT;
export const varDirectory = process.env.CELLARIUM_VAR;

let browser;
let pages = [];

// What a page that was waited for says instead; older versions of Node.js do not tell how a test ended.
afterEach(async (context) => {
    for (const page of context.passed === false ? pages.filter(each => !each.isClosed()) : []) {
        const words = await page.locator('body').innerText({ timeout: 5000 }).catch(error => error.message);
        console.log(`At the end of "${context.name}", ${page.url()} says:\n${words.slice(0, 3000)}`);
    }
    pages = pages.filter(each => !each.isClosed());
});

export async function open(viewport = { width: 1280, height: 800 }) {
    browser ??= await chromium.launch({
        executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
        args: [
            '--no-sandbox',
            '--disable-gpu',
            '--disable-quic',
            '--no-first-run',
            '--disable-background-networking',
            '--disable-component-update',
            '--disable-sync',
        ],
    });
    const context = await browser.newContext({ viewport });
    const page = await context.newPage();
    page.setDefaultTimeout(+(process.env.PATIENCE ?? 600000));
    page.troubles = [];
    pages.push(page);
    page.on('pageerror', (error) => page.troubles.push(error.message));
    // That a page of a client runs nothing is as it should be; so is a question broken off by going elsewhere.
    const meant = /^Blocked script execution|^htmx:(?:sendAbort|afterRequest),/;
    page.on('console', (message) => message.type() === 'error' && !meant.test(message.text())
        && page.troubles.push(message.text()));
    page.on('request', (request) => {
        if (!request.url().startsWith(base) && !request.url().includes('.localhost:')) {
            page.troubles.push(`asked another host: ${request.url()}`);
        }
    });
    return page;
}

/** One of each role, as the demo world has them. */
export const people = {
    maintainer: ['aldous@marramtide.example', 'slow-tide-lantern', /Needs a hand/],
    helper: ['tideway@marramtide.example', 'quiet-harbour-oar', /Needs a hand/],
    clients: ['ostler@ostreabeds.example', 'low-water-basket', /Your sites/],
};

export async function signIn(viewport, [address, password, first] = people.maintainer) {
    const page = await open(viewport);
    await page.goto(`${base}/sign-in`);
    await page.getByLabel('Address').fill(address);
    await page.getByLabel('Password').fill(password);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.getByRole('heading', { name: first }).waitFor();
    return page;
}

export async function close() {
    await browser?.close();
    browser = undefined;
}

/** Fails on every fault that axe-core calls serious or critical. */
export async function assertAccessible(page) {
    await page.evaluate(axe);
    const { violations } = await page.evaluate(() => window.axe.run(document, { resultTypes: ['violations'] }));
    const grave = violations.filter(fault => ['serious', 'critical'].includes(fault.impact));
    assert.deepEqual(
        grave.map(
            fault =>
                `${fault.id}: ${fault.nodes
                    .map(node => `${node.html} ${node.any[0]?.message ?? ''}`)
                    .slice(0, 3)
                    .join(' | ')}`,
        ),
        [],
        page.url(),
    );
}

export async function assertNoSidewaysScroll(page) {
    const over = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    assert.ok(over <= 0, `${page.url()} is ${over} pixels too wide`);
}

/** Contrast again in the dark scheme, where every colour is another one. */
export async function assertReadableInTheDark(page) {
    await page.emulateMedia({ colorScheme: 'dark' });
    // A colour that still fades from one scheme to the other is none of the two.
    await page.evaluate(() => document.getAnimations().forEach(fading => fading.finish()));
    const { violations } = await page.evaluate(() => window.axe.run(document, { runOnly: ['color-contrast'] }));
    await page.emulateMedia({ colorScheme: 'light' });
    assert.deepEqual(
        violations.flatMap(fault => fault.nodes.map(node => `${node.html} ${node.any[0]?.message ?? ''}`)).slice(0, 5),
        [],
        `${page.url()} in the dark`,
    );
}

/** Each id is one element's, and text of one width shows every sign as itself: no "!=" drawn as one. */
export async function assertEachOnce(page) {
    const [ids, joined] = await page.evaluate(() => {
        const all = [...document.querySelectorAll('[id]')].map(one => one.id);
        const joining = [...document.querySelectorAll('code, pre, textarea, input, .breakable')].filter(
            one => getComputedStyle(one).fontVariantLigatures !== 'none',
        );
        return [all.filter((id, at) => all.indexOf(id) !== at), joining.map(one => one.outerHTML.slice(0, 80))];
    });
    assert.deepEqual(ids, [], `${page.url()} has an id twice`);
    assert.deepEqual(joined, [], `${page.url()} joins signs`);
}

/** No line ends within a word: domains and paths go on after a dot, a slash or an @. */
export async function assertNoBrokenWord(page) {
    const broken = await page.evaluate(() => {
        const found = [];
        const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
        while (texts.nextNode()) {
            const text = texts.currentNode;
            if (text.parentElement.closest('script, style, textarea, svg')) continue;
            for (const word of text.data.matchAll(/[\p{L}\p{N}]{2,}/gu)) {
                const range = document.createRange();
                range.setStart(text, word.index);
                range.setEnd(text, word.index + word[0].length);
                const tops = [...range.getClientRects()].map(box => box.top);
                if (Math.max(...tops) - Math.min(...tops) > 4) found.push(text.data.trim());
            }
        }
        return found;
    });
    assert.deepEqual(broken, [], `${page.url()} breaks within a word`);
}

/** Looks at a page again and again until something is there that a worker brings. */
export async function reloadUntil(page, locator, seconds = 90) {
    for (const end = Date.now() + seconds * 1000; !(await locator.isVisible());) {
        assert.ok(Date.now() < end, `${locator} did not come to ${page.url()}`);
        await page.reload();
    }
}

export const live = (path = '/') =>
    fetch(`http://127.0.0.1:${webPort}${path}`, { headers: { Host: 'pilgrimstones.example' } });
