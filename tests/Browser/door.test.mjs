// What the web server before the pages refuses, asked over a plain socket: no body is ever sent here.
import { readFileSync } from 'node:fs';
import { get } from 'node:http';
import { connect } from 'node:net';
import { after, test } from 'node:test';
import assert from 'node:assert/strict';
import { base, close, people, signIn, varDirectory } from './support.mjs';

after(close);

/** The status and headers that come back for a request of which only the head is sent; null where it waits. */
function headOnly(head, patience = 5000) {
    const { hostname, port } = new URL(base);
    return new Promise((resolve, reject) => {
        let said = '';
        const socket = connect(+port, hostname, () => socket.write(`${head}\r\nHost: ${hostname}:${port}\r\n\r\n`));
        socket.setTimeout(patience, () => { socket.destroy(); resolve(null); });
        socket.on('data', (data) => {
            said += data;
            if (said.includes('\r\n\r\n')) {
                socket.destroy();
                resolve(said);
            }
        });
        socket.on('error', reject);
    });
}

const large = 'Content-Type: multipart/form-data; boundary=b\r\nContent-Length: 300000000';

test('a body is refused before any of it is read where nobody is signed in', async () => {
    for (const [line, status] of [
        ['POST /packages', 303],
        ['POST /accounts/import', 303],
        ['PUT /no/such/page', 303],
        ['GET /accounts', 303],
        ['POST /sign-in', 413],
        ['POST /hand-over', 413],
        ['POST /packages?x=/sign-in', 303],
    ]) {
        assert.match(
            (await headOnly(`${line} HTTP/1.1\r\n${large}`)) ?? 'it waits for the body',
            new RegExp(`^HTTP/1.1 ${status}`),
            line,
        );
    }
    assert.match(
        (await headOnly('POST /packages HTTP/1.1\r\nTransfer-Encoding: chunked')) ?? 'it waits for the body',
        /^HTTP\/1.1 303/,
    );
    assert.match(
        (await headOnly(`POST /packages HTTP/1.1\r\nCookie: cellarium=made-up\r\n${large}`)) ??
            'it waits for the body',
        /^HTTP\/1.1 303/,
    );
});

test('what is larger than anything may be is refused unread, and nobody asks the question from outside', async () => {
    assert.match(await headOnly('POST /packages HTTP/1.1\r\nContent-Length: 900000000'), /^HTTP\/1.1 413/);
    assert.match(await headOnly('GET /signed-in HTTP/1.1'), /^HTTP\/1.1 404/);
    assert.match(await headOnly('GET /index.php HTTP/1.1'), /^HTTP\/1.1 404/);
});

test('of the one who is signed in the body is read', async () => {
    const page = await signIn();
    const cookies = (await page.context().cookies()).map(({ name, value }) => `${name}=${value}`).join('; ');
    assert.equal(await headOnly(`POST /packages HTTP/1.1\r\nCookie: ${cookies}\r\n${large}`, 1500), null);
});

test('nor of one who is signed in and may not send it', async () => {
    const page = await signIn(undefined, people.clients);
    const cookies = (await page.context().cookies()).map(({ name, value }) => `${name}=${value}`).join('; ');
    for (const address of ['/packages', '/no/such/page']) {
        const answer = await headOnly(`POST ${address} HTTP/1.1\r\nCookie: ${cookies}\r\n${large}`);
        assert.match(answer ?? 'it waits for the body', /^HTTP\/1.1 (?:303|413)/, address);
    }
});

/** The cookies of the sign-in page, asked from an address of this machine with headers as a proxy sends them. */
function cookiesFrom(localAddress, headers) {
    return new Promise((resolve, reject) =>
        get(`${base}/sign-in`, { localAddress, headers }, (answer) => {
            answer.resume();
            resolve(answer.headers['set-cookie']);
        }).on('error', reject),
    );
}

test('cookies are for TLS only where a proxy we trust says so, and nobody else is heard', async () => {
    const tls = { 'X-Forwarded-Proto': 'https', 'X-Forwarded-For': '192.0.2.77' };
    const trusted = await cookiesFrom('127.0.0.3', tls);
    const untrusted = await cookiesFrom('127.0.0.2', tls);
    assert.ok(trusted.some(cookie => /^__Host-cellarium=.*; secure; httponly; samesite=lax$/i.test(cookie)), trusted);
    assert.ok(trusted.every(cookie => /; secure/i.test(cookie)), trusted);
    assert.ok(untrusted.some(cookie => /^cellarium=.*; httponly; samesite=lax$/i.test(cookie)), untrusted);
    assert.ok(untrusted.every(cookie => !/; secure/i.test(cookie)), untrusted);
});

test('a path of a client’s file reaches the application, however it ends', async () => {
    const page = await signIn();
    const names = ['index.php', 'shop/index.php5', 'a.phtml', '.env', '.git/config', 'style.css', 'x.js', 'INDEX.PHP',
        'router.php', 'index.php/more', 'mark.svg', 'a b.php', 'end.'];
    for (const place of ['/sites/1/edit-file/', '/sites/1/look-file/', '/accounts/1/edit-file/', '/sites/1/files/']) {
        for (const name of names) {
            const answer = await page.request.get(`${base}${place}${encodeURI(name)}`, { maxRedirects: 0 });
            assert.ok(answer.headers()['content-security-policy'], `${place}${name} was answered by the application`);
            assert.notEqual(answer.status(), 500, `${place}${name}`);
        }
    }
    for (const script of ['/index.php', '/index.php/sign-in', '/router.php']) {
        const answer = await page.request.get(`${base}${script}`);
        assert.equal(answer.status(), 404, script);
        assert.equal(answer.headers()['content-security-policy'], undefined, `${script} is run for nobody`);
    }
});

test('a process of the pages that dies is replaced, and what is asked after that is answered', async () => {
    const page = await signIn();
    const pages = Number(readFileSync(`${varDirectory}/run/php-fpm.pid`, 'utf8'));
    const children = readFileSync(`/proc/${pages}/task/${pages}/children`, 'utf8').trim().split(' ');
    assert.ok(children.length >= 12, `${children.length} processes`);
    for (const child of children) process.kill(Number(child), 'SIGKILL');
    for (let tries = 0; ; tries++) {
        const answer = await page.request.get(`${base}/accounts`).catch(() => null);
        if (answer?.status() === 200) break;
        assert.ok(tries < 200, 'none answers any more');
        await new Promise((resolve) => setTimeout(resolve, 100));
    }
    const after = readFileSync(`/proc/${pages}/task/${pages}/children`, 'utf8').trim().split(' ');
    assert.equal(after.filter((one) => children.includes(one)).length, 0);
    assert.equal(after.length, children.length);
});

test('a redirect that repeats a long address, and what comes without a page before it, are answered', async () => {
    const page = await signIn();
    const long = 'x'.repeat(3000);
    for (const address of [`/sites/1/files/${long}?last=1`, `/accounts?q=${long}`, `/sites/1/edit-file/${long}`]) {
        const answer = await page.request.get(base + address, { maxRedirects: 0 });
        assert.notEqual(answer.status(), 502, address.slice(0, 40));
    }
    const token = await page.locator('input[name=_token]').first().getAttribute('value');
    const form = { _token: token, because: '' };
    const answer = await page.request.post(`${base}/backups/1/pin`, { form, maxRedirects: 0 });
    assert.doesNotMatch(answer.headers().location ?? '', /signed-in/);
});

test('what is to be said on the next page is not taken by a part that is asked for beside it', async () => {
    const page = await signIn();
    await page.goto(`${base}/sites/1/files`);
    const form = { _token: await page.locator('input[name="_token"]').first().inputValue(), at: '/htdocs' };
    const said = () => page.getByText('Nothing was chosen. Tick one or more files first.');
    for (const headers of [{ 'HX-Request': 'true' }, { 'Sec-Fetch-Dest': 'image' }]) {
        await page.request.post(`${base}/sites/1/file-downloads`, { form, maxRedirects: 0 });
        await page.request.get(`${base}/today`, { headers });
        await page.request.get(`${base}/`, { headers });
        await page.goto(`${base}/accounts`);
        await said().waitFor();
        await page.goto(`${base}/accounts`);
        assert.equal(await said().count(), 0, 'it is said once');
    }
});
