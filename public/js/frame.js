// The frame of every page: the slash key, the finder's arrows, what folds, buttons that act once, notices, downloads.
const finder = () => document.getElementById('find');
const typing = element =>
    element instanceof HTMLElement &&
    (element.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(element.tagName));

let goToFirst = false;
const answersWhatIsTyped = () => document.querySelector('#found .found')?.dataset.words === finder().value.trim();

// What was unfolded stays so when it is drawn anew.
const unfolded = new Set();
document.addEventListener('toggle', (event) => {
    event.target.matches?.('details[data-stays]')
        && unfolded[event.target.open ? 'add' : 'delete'](event.target.id);
}, true);
document.addEventListener('htmx:afterSettle', () => {
    unfolded.forEach((id) => { document.getElementById(id)?.setAttribute('open', ''); });
});

document.addEventListener('htmx:afterSwap', (event) => {
    if (event.target.id === 'found' && goToFirst && answersWhatIsTyped()) {
        goToFirst = false;
        event.target.querySelector('a')?.click();
    }
});

document.addEventListener('keydown', (event) => {
    goToFirst = goToFirst && event.target !== finder();
    if (
        event.key === '/' &&
        !event.ctrlKey &&
        !event.metaKey &&
        !event.altKey &&
        // Within the text editor, the event seems to come from the editor as a whole.
        !typing(event.composedPath()[0]) &&
        finder()
    ) {
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

window.addEventListener('pageshow', () =>
    document.querySelectorAll('[aria-busy]').forEach(button => button.removeAttribute('aria-busy')),
);

// What goes on in the background says so when it ends: in the title, and by a notice where one was asked for.
const offerNotice = () => document.querySelectorAll('[data-notify]').forEach((button) => {
    button.hidden = !('Notification' in window) || Notification.permission !== 'default';
});
document.addEventListener('click', event =>
    event.target.closest('[data-notify]') && Notification.requestPermission().then(offerNotice));
document.addEventListener('htmx:afterSettle', (event) => {
    offerNotice();
    const ended = event.detail.elt.dataset?.ended;
    if (ended && 'Notification' in window && Notification.permission === 'granted') {
        new Notification(ended, { tag: location.pathname });
    }
});
document.addEventListener('DOMContentLoaded', offerNotice);

// A download that was waited for begins by itself; the page stays.
const begin = () => document.querySelectorAll('[data-begins]').forEach((part) => {
    const address = part.dataset.begins;
    part.removeAttribute('data-begins');
    location.assign(address);
});
begin();
document.addEventListener('htmx:afterSettle', begin);
