// Uploads in pieces (tus 1.0): a file or a folder is sent, goes on after a lost connection, a closed browser or a
// server that was started again, and each piece is proven by its hash. Without this script the form sends the file as
// it is.
import { words } from './logic/bytes.js';
import { asTar } from './logic/tar.js';

const PIECE = 8 * 1024 * 1024;
const base64 = (buffer) => btoa(String.fromCharCode(...new Uint8Array(buffer)));

const encoder = new TextEncoder();
const fingerprint = (files) => files
    .map(file => `${file.webkitRelativePath || file.name} ${file.size} ${file.lastModified}`)
    .join('\n');
const hashed = async (text) => base64(await crypto.subtle.digest('SHA-256', encoder.encode(text)));

const send = async (form, files, name) => {
    // By hand, names and folders come along in any case.
    const isSingle = files.length === 1 && !files[0].webkitRelativePath && form.dataset.into === undefined;
    const body = isSingle ? files[0] : asTar(files);
    const box = form.querySelector('.progress-box');
    const bar = box.querySelector('progress');
    const said = box.querySelector('.progress-words');
    const key = `cellarium ${await hashed(`${form.dataset.into ?? ''}\n${name}\n${fingerprint(files)}`)}`;
    let digest = '';
    let began = null;
    let from = 0;
    const say = (text) => { said.textContent = text; };
    const upload = new tus.Upload(body, {
        endpoint: '/uploads',
        chunkSize: PIECE,
        retryDelays: [0, 1000, 3000, 5000, 10000, 20000, 30000, 60000],
        // Kept, so that nothing is sent again when the server is broken off while it checks.
        removeFingerprintOnSuccess: false,
        metadata: {
            filename: name,
            site: form.querySelector('[name=site]')?.value ?? '',
            ...(form.dataset.into === undefined ? {} : { into: form.dataset.into }),
        },
        headers: { 'X-CSRF-TOKEN': form.querySelector('[name=_token]').value },
        fingerprint: async () => key,
        // Each piece is hashed as it is read, so that the server takes it whole or not at all.
        fileReader: {
            openFile: async () => ({
                size: body.size,
                slice: async (start, end) => {
                    const value = body.slice(start, Math.min(end, body.size));
                    digest = base64(await crypto.subtle.digest('SHA-256', await value.arrayBuffer()));
                    return { value, done: end >= body.size };
                },
                close: () => {},
            }),
        },
        onBeforeRequest: (request) => {
            if (request.getMethod() === 'PATCH') {
                request.setHeader('Upload-Checksum', `sha256 ${digest}`);
            }
        },
        onProgress: (sent, all) => {
            bar.max = all;
            bar.value = sent;
            if (began === null) {
                [began, from] = [performance.now(), sent];
            }
            const seconds = (performance.now() - began) / 1000;
            const speed = seconds > 1 ? (sent - from) / seconds : 0;
            const left = speed > 0 ? `, ${words(speed)} a second, ${Math.ceil((all - sent) / speed)} s left` : '';
            say(sent === all
                ? `All ${words(all)} are sent; the server checks them.`
                : `${words(sent)} of ${words(all)}${left}`);
        },
        onShouldRetry: (error) => {
            const status = error.originalResponse?.getStatus() ?? 0;
            say('The connection is lost; it goes on by itself once the server answers.');
            return status === 0 || status === 409 || status === 423 || status === 460 || status >= 500;
        },
        onError: (error) => {
            const status = error.originalResponse?.getStatus() ?? 0;
            const answer = error.originalResponse?.getBody() ?? '';
            box.classList.add('is-broken');
            say(status === 413
                ? 'It is larger than what is taken here. Nothing was uploaded.'
                : `It broke off: ${answer !== '' && answer.length < 200 ? answer : 'the server does not answer.'} `
                    + 'Choose the same again, and it goes on where it ended.');
            form.querySelector('.choices-of-files').hidden = false;
        },
        onSuccess: () => {
            location.assign(`${new URL(upload.url, location.href).pathname}/finish`);
        },
    });
    form.querySelector('.choices-of-files').hidden = true;
    box.hidden = false;
    box.classList.remove('is-broken');
    box.querySelector('.progress-name').textContent = name;
    box.querySelector('.stop').onclick = async () => {
        await upload.abort(true).catch(() => {});
        box.hidden = true;
        form.querySelector('.choices-of-files').hidden = false;
    };
    const before = await upload.findPreviousUploads();
    if (before.length > 0) {
        say('Going on where it ended.');
        upload.resumeFromPreviousUpload(before[0]);
    }
    upload.start();
};

const take = (form, list) => {
    const isByHand = form.dataset.into !== undefined;
    const files = [...list].filter(file => isByHand || file.size > 0 || file.webkitRelativePath);
    if (files.length === 0) {
        return;
    }
    const folder = files[0].webkitRelativePath.split('/')[0];
    const many = files.length === 1 ? files[0].name : `${files.length} files`;
    send(form, files, folder && !isByHand ? `${folder}.tar` : many);
};
// What is dropped may be a file or a folder; of a folder all below it is read.
const below = async (entry, path) => {
    if (entry.isFile) {
        const file = await new Promise((done, fail) => entry.file(done, fail));
        Object.defineProperty(file, 'webkitRelativePath', { value: path === '' ? '' : path + file.name });
        return [file];
    }
    const reader = entry.createReader();
    const found = [];
    for (;;) {
        const some = await new Promise((done, fail) => reader.readEntries(done, fail));
        if (some.length === 0) {
            return found;
        }
        for (const one of some) {
            found.push(...await below(one, `${path}${entry.name}/`));
        }
    }
};

const dropped = async (form, event) => {
    const most = form.dataset.into === undefined ? 1 : Infinity;
    const plain = [...event.dataTransfer.files];
    const entries = [...event.dataTransfer.items].map(item => item.webkitGetAsEntry?.()).filter(Boolean);
    const files = entries.length > 0 ? [] : plain.slice(0, most);
    for (const entry of entries.slice(0, most)) {
        files.push(...await below(entry, ''));
    }
    take(form, files);
};

document.querySelectorAll('form.upload').forEach((form) => {
    // Files by hand may be dropped anywhere on the list of the folder they are for.
    const places = form.dataset.into === undefined ? [form] : [form, document.querySelector('.files-two')];
    form.classList.add('in-pieces');
    form.querySelector('#folder').addEventListener('change', event => take(form, event.target.files));
    form.querySelector('#package').addEventListener('change', event => take(form, event.target.files));
    form.addEventListener('submit', (event) => {
        const files = form.querySelector('#package').files;
        if (files.length > 0) {
            event.preventDefault();
            event.stopImmediatePropagation();
            take(form, files);
        }
    }, true);
    places.filter(Boolean).forEach((place) => {
        place.addEventListener('dragover', (event) => {
            event.preventDefault();
            place.classList.add('is-over');
        });
        place.addEventListener('dragleave', () => place.classList.remove('is-over'));
        place.addEventListener('drop', (event) => {
            event.preventDefault();
            place.classList.remove('is-over');
            form.closest('details')?.setAttribute('open', '');
            dropped(form, event);
        });
    });
});
