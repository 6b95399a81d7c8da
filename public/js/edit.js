// The page of a text that is edited: the editor, the draft that is kept while it is typed, and who else is there.
(() => {
    'use strict';

    const PAUSE = 1500; // Milliseconds without a letter, after which what was typed is kept.
    const HERE = 15000; // So often the page says that somebody is still there.
    const form = document.querySelector('[data-editing]');
    if (!form) {
        return;
    }
    const field = form.querySelector('textarea');
    const state = document.querySelector('[data-draft-state]');
    const others = document.querySelector('[data-others]');
    const address = `/file-drafts/${form.dataset.editing}/keep`;
    let waiting = null;
    let isKept = true;

    const tell = (answer) => {
        others.hidden = answer.others.length === 0;
        others.replaceChildren(...answer.others.map((words) => {
            const line = document.createElement('p');
            line.textContent = words;

            return line;
        }));
    };

    const keep = async (withText) => {
        const body = new FormData();
        body.set('_token', form.elements._token.value);
        const text = field.value;
        withText && body.set('content', text);
        try {
            const answered = await fetch(address, { method: 'POST', body, headers: { Accept: 'application/json' } });
            if (!answered.ok) {
                throw new Error(String(answered.status));
            }
            const answer = await answered.json();
            tell(answer);
            if (withText && text === field.value) {
                isKept = true;
                state.textContent = answer.isDraft ? 'draft, kept encrypted here, not saved' : 'as on the server';
            }
        } catch {
            if (withText || !isKept) {
                isKept = false;
                state.textContent = 'not kept: Cellarium does not answer. It is tried again; leave this page open.';
            }
        }
    };

    const typed = () => {
        isKept = false;
        state.textContent = 'typing';
        clearTimeout(waiting);
        waiting = setTimeout(() => keep(true), PAUSE);
    };

    field.addEventListener('input', typed);
    setInterval(() => keep(!isKept), HERE);
    addEventListener('beforeunload', (event) => {
        isKept || event.preventDefault();
    });
    form.addEventListener('submit', () => {
        isKept = true;
        clearTimeout(waiting);
    });
    if (window.CellariumEditor) {
        const editor = window.CellariumEditor.mount(field, { extension: form.dataset.extension, onChange: typed });
        const find = form.querySelector('[data-find]');
        find.hidden = false;
        find.addEventListener('click', () => editor.find());
        editor.focus();
        const line = /^#L(\d+)$/.exec(location.hash);
        line && editor.toLine(Number(line[1]));
    }
})();
