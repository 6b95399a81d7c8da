// The files page: keys, names that are typed to be found, rights as digits and as ticks, several files at once.
import { bits, isMode, letsEveryoneWrite, withBits } from './logic/modes.js';

const FIND_WITHIN = 900; // Milliseconds between letters of one name.
const KEYS = {
    F2: '#called',
    F3: '[data-act="edit"]',
    F4: '#mode',
    F6: '[data-act="move"]',
    F7: '[data-act="folder"]',
    F8: '[data-act="rights"]',
    F9: '[data-act="visitors"]',
    F10: '[data-act="zip"]',
    Insert: '[data-act="upload"]',
    Delete: '[data-act="aside"]',
    '.': '[data-act="hidden"]',
    '*': '[data-act="find"]',
    '!': '[data-act="check"]',
};
let typed = '';
let typedAt = 0;

const rows = () => [...document.querySelectorAll('[data-rows] tbody tr[data-name]')];
const link = row => row?.querySelector('[data-open]');
const current = () => document.activeElement?.closest('[data-rows] tr[data-name]');
const typing = element => element instanceof HTMLElement
    && /^(INPUT|TEXTAREA|SELECT)$/.test(element.tagName) && element.type !== 'checkbox';
const go = row => link(row)?.focus();

const tick = (row) => {
    const box = row?.querySelector('input[type=checkbox]');
    if (box) {
        box.checked = !box.checked;
        count();
    }
};

const count = () => {
    const ticked = document.querySelectorAll('[data-rows] input[name="names[]"]:checked').length;
    document.querySelectorAll('[data-needs]').forEach((act) => {
        act.toggleAttribute('data-off', ticked === 0);
        if ('disabled' in act) {
            act.disabled = ticked === 0;
        }
    });
    const words = document.querySelector('[data-count]');
    if (words) {
        words.dataset.none ??= words.textContent;
        words.textContent = ticked === 0 ? words.dataset.none : `${ticked} chosen:`;
    }
};

const find = (letter) => {
    const now = performance.now();
    typed = now - typedAt > FIND_WITHIN ? letter : typed + letter;
    typedAt = now;
    const wanted = typed.toLowerCase();
    go(rows().find(row => row.dataset.name.toLowerCase().startsWith(wanted)));
};

const act = (selector) => {
    const target = document.querySelector(selector);
    if (!target || target.hasAttribute('data-off')) {
        return;
    }
    if (target.tagName === 'DETAILS') {
        target.open = true;
        target.querySelector('input:not([type=hidden])')?.focus();
    } else if (target.tagName === 'INPUT') {
        target.focus();
        target.select();
    } else {
        target.click();
    }
};

document.addEventListener('keydown', (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || typing(event.target)
        || !document.querySelector('[data-files]')) {
        return;
    }
    const all = rows();
    const at = all.indexOf(current());
    const moves = {
        ArrowDown: Math.min(at + 1, all.length - 1),
        ArrowUp: Math.max(at - 1, 0),
        Home: 0,
        End: all.length - 1,
    };
    if (event.key in moves) {
        event.preventDefault();
        go(all[moves[event.key]]);
    } else if (event.key === ' ' && at >= 0) {
        event.preventDefault();
        tick(all[at]);
    } else if (event.key === 'Backspace' || (event.key === 'ArrowLeft' && at >= 0)) {
        event.preventDefault();
        document.querySelector('[data-up]')?.click();
    } else if (event.key === 'ArrowRight' && at >= 0) {
        event.preventDefault();
        (all[at].querySelector('[data-side]') ?? link(all[at])).click();
    } else if (event.key in KEYS) {
        event.preventDefault();
        act(KEYS[event.key]);
    } else if (event.key === '?') {
        document.querySelector('[data-keys]')?.showModal();
    } else if (event.key.length === 1 && event.key !== '/' && /\S/.test(event.key)) {
        find(event.key);
    }
});

document.addEventListener('change', (event) => {
    const box = event.target;
    if (box.matches('[data-all]')) {
        rows().forEach((row) => {
            row.querySelector('input[type=checkbox]').checked = box.checked;
        });
    }
    if (box.closest('[data-rows]')) {
        count();
    }
    const form = box.closest('[data-rights]');
    if (form && box.dataset.bit) {
        const field = form.querySelector('[data-digits]');
        const sum = [...form.querySelectorAll('[data-bit]')]
            .reduce((all, one) => all + (one.checked ? Number(one.dataset.bit) : 0), 0);
        field.value = withBits(field.value, sum);
        warn(form);
    }
});

// What everyone on the server may change is told before it is set.
const warn = (form) => {
    const word = form?.querySelector('[data-for-everyone]');
    word && (word.hidden = ![...form.querySelectorAll('[name=files], [name=directories]')]
        .some(field => letsEveryoneWrite(field.value)));
};

document.addEventListener('input', (event) => {
    if (event.target.matches('[data-digits]') && isMode(event.target.value)) {
        const mode = bits(event.target.value);
        event.target.form.querySelectorAll('[data-bit]').forEach((one) => {
            one.checked = (mode & Number(one.dataset.bit)) !== 0;
        });
    }
    event.target.matches('[name=files], [name=directories]')
        && warn(event.target.closest('[data-rights], .drop-body'));
});

document.addEventListener('click', (event) => {
    event.target.closest('[data-show-keys]') && document.querySelector('[data-keys]')?.showModal();
    event.target.closest('[data-close-keys]') && document.querySelector('[data-keys]')?.close();
});

// Which row is looked at moves with the page beside it, without the table being drawn anew.
document.addEventListener('htmx:afterSwap', (event) => {
    if (event.target.id === 'chosen' || document.getElementById('chosen')?.contains(event.target)) {
        const name = document.querySelector('#chosen [data-chosen]')?.dataset.chosen;
        rows().forEach(row => row.classList.toggle('is-chosen', row.dataset.name === name));
    }
    count();
});
count();
