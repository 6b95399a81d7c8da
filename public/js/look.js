// Pictures, documents and sounds of the chosen file: how large a picture is, and documents drawn page by page.
const PAGES = 20; // So many pages of a document are drawn.
const DRAWN = 2; // Pixels of the drawing for each of the page, so that small print can be read.

const tell = (figure, words) => {
    figure.querySelector('[data-told]').textContent = words;
};

/** Once a worker has fetched it; asked again as long as the server has not answered. */
const fetched = async (figure) => {
    for (;;) {
        const answer = await fetch(figure.dataset.from, { headers: { Accept: 'application/json' } });
        if (answer.status !== 202 || !figure.isConnected) {
            return answer;
        }
        tell(figure, (await answer.json()).message);
        await new Promise(done => setTimeout(done, 1000));
    }
};

const failed = async (figure) => {
    if (figure.dataset.late !== undefined) {
        tell(figure, 'No browser shows this: it is not what its name says.');

        return;
    }
    let words = 'It could not be read. Look at the folder again.';
    try {
        const answer = await fetched(figure);
        if (answer.ok) {
            figure.dataset.late = '';
            tell(figure, '');
            const shown = figure.querySelector('img, audio, video');
            shown.src = figure.dataset.from;
            shown instanceof HTMLImageElement && measure(shown);

            return;
        }
        words = (await answer.json()).message;
    } catch {
        words = 'Cellarium does not answer. Try again.';
    }
    tell(figure, words);
};

function measure(picture) {
    const figure = picture.closest('[data-look]');
    const told = () => tell(figure, picture.naturalWidth > 0
        ? `${picture.naturalWidth} × ${picture.naturalHeight} pixels` : 'a drawing without a size of its own');
    if (picture.complete) {
        picture.naturalWidth > 0 || figure.dataset.look === 'image/svg+xml' ? told() : failed(figure);

        return;
    }
    picture.addEventListener('load', told);
    picture.addEventListener('error', () => failed(figure));
}

const draw = async (figure) => {
    tell(figure, 'being read');
    const pdf = await import('/vendor/pdfjs-6.5.438.min.js');
    pdf.GlobalWorkerOptions.workerSrc = '/vendor/pdfjs-6.5.438.worker.min.js';
    const pages = document.createElement('div');
    pages.className = 'look-pages';
    pages.tabIndex = 0;
    pages.setAttribute('role', 'group');
    pages.setAttribute('aria-label', 'Pages');
    figure.prepend(pages);
    const from = await fetched(figure);
    if (!from.ok) {
        tell(figure, (await from.json()).message);

        return;
    }
    const read = await pdf.getDocument({
        data: await from.arrayBuffer(),
        isEvalSupported: false,
        enableXfa: false,
        useWasm: false,
    }).promise;
    for (let number = 1; number <= Math.min(read.numPages, PAGES) && figure.isConnected; number++) {
        const page = await read.getPage(number);
        const width = Math.max(200, pages.clientWidth - 4);
        const viewport = page.getViewport({ scale: DRAWN * width / page.getViewport({ scale: 1 }).width });
        const canvas = document.createElement('canvas');
        canvas.width = viewport.width;
        canvas.height = viewport.height;
        canvas.setAttribute('role', 'img');
        canvas.setAttribute('aria-label', `page ${number}`);
        pages.append(canvas);
        await page.render({ canvasContext: canvas.getContext('2d'), canvas, viewport }).promise;
    }
    tell(figure, `${read.numPages} ${read.numPages === 1 ? 'page' : 'pages'}`
        + (read.numPages > PAGES ? `, the first ${PAGES} are shown` : ''));
};

const show = (button) => {
    const figure = button.closest('[data-look]');
    button.remove();
    if (figure.dataset.look === 'application/pdf') {
        draw(figure).catch(problem => tell(figure, `It is no document that can be shown: ${problem.message}`));

        return;
    }
    const picture = document.createElement('img');
    picture.alt = document.getElementById('chosen-name').textContent.trim();
    picture.src = figure.dataset.from;
    figure.prepend(picture);
    measure(picture);
};

document.addEventListener('click', (event) => {
    const button = event.target.closest('[data-show]');
    button && show(button);
});
document.addEventListener('error', (event) => {
    const figure = event.target.closest?.('audio, video') && event.target.closest('[data-look]');
    figure && failed(figure);
}, true);
document.addEventListener('htmx:afterSwap', () => {
    document.querySelectorAll('[data-look] > img').forEach(measure);
});
document.querySelectorAll('[data-look] > img').forEach(measure);
