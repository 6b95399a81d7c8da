// What the pages need beside htmx: the slash key, the finder's arrows, buttons that act once, small toggles.
(() => {
    'use strict';

    const finder = () => document.getElementById('find');
    const typing = (element) => element instanceof HTMLElement && (element.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(element.tagName));

    let goToFirst = false;
    const answersWhatIsTyped = () => document.querySelector('#found .found')?.dataset.words === finder().value.trim();

    document.addEventListener('htmx:afterSwap', (event) => {
        if (event.target.id === 'found' && goToFirst && answersWhatIsTyped()) {
            goToFirst = false;
            event.target.querySelector('a')?.click();
        }
    });

    document.addEventListener('keydown', (event) => {
        goToFirst = goToFirst && event.target !== finder();
        if (event.key === '/' && !event.ctrlKey && !event.metaKey && !event.altKey && !typing(event.target) && finder()) {
            event.preventDefault();
            finder().focus();
            finder().select();
        }
        const found = document.getElementById('found');
        if (!found || !document.querySelector('.finder')?.contains(event.target)) {
            return;
        }
        const links = [...found.querySelectorAll('a')];
        const at = links.indexOf(document.activeElement);
        if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
            event.preventDefault();
            const next = event.key === 'ArrowDown' ? at + 1 : at - 1;
            (next < 0 ? finder() : links[Math.min(next, links.length - 1)])?.focus();
        } else if (event.key === 'Enter' && event.target === finder()) {
            event.preventDefault();
            // What is shown may still belong to fewer letters than are typed; then the answer on its way is waited for.
            if (answersWhatIsTyped()) {
                found.querySelector('a')?.click();
            } else {
                goToFirst = true;
            }
        } else if (event.key === 'Escape') {
            found.replaceChildren();
            finder().value = '';
            finder().focus();
        }
    });

    document.addEventListener('click', (event) => {
        const toggle = event.target.closest('[data-toggle]');
        if (toggle) {
            const shown = document.getElementById(toggle.dataset.toggle);
            const other = document.getElementById(toggle.dataset.other);
            shown.hidden = !shown.hidden;
            if (other) {
                other.hidden = !shown.hidden;
            }
            toggle.setAttribute('aria-expanded', String(!shown.hidden));
        }
        if (!document.querySelector('.finder')?.contains(event.target)) {
            document.getElementById('found')?.replaceChildren();
        }
    });

    // Shows and hides a typed password.
    document.addEventListener('click', (event) => {
        const button = event.target.closest('[data-reveal]');
        const field = button && document.getElementById(button.dataset.reveal);
        if (field) {
            const shown = field.type === 'password';
            field.type = shown ? 'text' : 'password';
            button.textContent = shown ? 'Hide' : 'Show';
            button.setAttribute('aria-pressed', String(shown));
        }
    });

    // Copies what a button stands for and says so on the button.
    document.addEventListener('click', async (event) => {
        const button = event.target.closest('[data-copy]');
        if (!button) {
            return;
        }
        const words = button.textContent;
        try {
            await navigator.clipboard.writeText(button.dataset.copy);
            button.textContent = 'copied';
        } catch {
            button.textContent = 'select it and copy by hand';
        }
        setTimeout(() => { button.textContent = words; }, 2000);
    });

    // A second click on a button that is already at work does nothing.
    document.addEventListener('submit', (event) => {
        const button = event.target.querySelector('[data-once]');
        if (!button) {
            return;
        }
        if (button.getAttribute('aria-busy') === 'true') {
            event.preventDefault();
            return;
        }
        button.setAttribute('aria-busy', 'true');
    });

    window.addEventListener('pageshow', () => document.querySelectorAll('[aria-busy]').forEach((button) => button.removeAttribute('aria-busy')));

    document.addEventListener('change', (event) => {
        const goto = event.target.dataset?.goto;
        if (goto && event.target.value) {
            location.assign(goto + encodeURIComponent(event.target.value));
        }
    });

    document.addEventListener('htmx:configRequest', (event) => {
        if (event.detail.elt.id === 'directory') {
            event.detail.parameters.directory = event.detail.elt.value;
        }
    });
})();
