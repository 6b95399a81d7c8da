// What the pages need beside htmx: the slash key, the finder's arrows, buttons that act once, small toggles.
(() => {
    'use strict';

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

    // Puts the other reading of a letter into its field, and this one on the button.
    document.addEventListener('click', (event) => {
        const button = event.target.closest('[data-fill]');
        const field = button && document.getElementById(button.dataset.fill);
        if (field) {
            [field.value, button.dataset.value] = [button.dataset.value, field.value];
            if (field.type !== 'password') {
                button.textContent = `Use ${button.dataset.value} instead`;
            }
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

    window.addEventListener('pageshow', () =>
        document.querySelectorAll('[aria-busy]').forEach(button => button.removeAttribute('aria-busy')),
    );

    document.addEventListener('change', (event) => {
        const goto = event.target.dataset?.goto;
        if (goto && event.target.value) {
            location.assign(goto + encodeURIComponent(event.target.value));
        }
    });

    // A directory that is picked from the tree, a site or a destination is the same as one that is typed.
    document.addEventListener('click', (event) => {
        const pick = event.target.closest('[data-pick]');
        const field = pick && document.getElementById(pick.dataset.into);
        if (field) {
            field.value = pick.dataset.pick;
            field.dispatchEvent(new Event('input', { bubbles: true }));
            markPicked();
        }
    });

    const markPicked = () =>
        document
            .querySelectorAll('[data-pick]')
            .forEach(pick =>
                pick.classList.toggle(
                    'is-chosen',
                    pick.dataset.pick === document.getElementById(pick.dataset.into)?.value,
                ),
            );
    document.addEventListener('input', event => event.target.id === 'directory' && markPicked());
    document.addEventListener('htmx:afterSettle', markPicked);
    document.addEventListener('DOMContentLoaded', markPicked);

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

    // A directory of a plan that is open is folded by the same button: the rows below it go.
    document.addEventListener('htmx:beforeRequest', (event) => {
        const fold = event.detail.elt;
        if (fold.matches('[data-fold][aria-expanded="true"]')) {
            event.preventDefault();
            const row = fold.closest('tr');
            const inside = next => next?.dataset.in === row.dataset.path
                || next?.dataset.in?.startsWith(`${row.dataset.path}/`);
            while (inside(row.nextElementSibling)) {
                row.nextElementSibling.remove();
            }
            fold.setAttribute('aria-expanded', 'false');
        }
    });
    document.addEventListener('htmx:afterRequest', (event) => {
        if (event.detail.elt.matches('[data-fold]') && event.detail.successful) {
            event.detail.elt.setAttribute('aria-expanded', 'true');
        }
    });

    // A branch that is open is closed by the same button.
    document.addEventListener('htmx:beforeRequest', (event) => {
        const twig = event.detail.elt;
        if (twig.classList.contains('twig') && event.detail.target.children.length > 0) {
            event.preventDefault();
            event.detail.target.replaceChildren();
            twig.textContent = '+';
        }
    });
    document.addEventListener('htmx:afterRequest', (event) => {
        if (event.detail.elt.classList.contains('twig') && event.detail.successful) {
            event.detail.elt.textContent = '−';
        }
    });

    // Typing into what belongs to a choice makes the choice.
    document.addEventListener('input', event => {
        const choice = {
            password: 'input[name=password_kind][value=own]',
            closes: 'input[name=ends][value=time]',
            'kinds[]': 'input[name=mail][value=chosen]',
            reason: 'input[name=ends][value=never]',
        }[event.target.name];
        const radio = choice && event.target.closest('form')?.querySelector(choice);
        if (radio) {
            radio.checked = true;
        }
    });

    document.addEventListener('change', (event) => {
        if (event.target.dataset?.all) {
            event.target
                .closest('form')
                .querySelectorAll(`input[name="${event.target.dataset.all}[]"]`)
                .forEach(box => {
                    box.checked = event.target.checked;
                });
        }
    });

    // What stands behind the "#" of a link is sent to nobody but in this form, and does not stay in the address.
    const fromLink = document.querySelector('[data-from-link]');
    if (fromLink && location.hash.length > 1) {
        fromLink.value = location.hash.slice(1);
        fromLink.parentElement.hidden = true;
        history.replaceState(null, '', location.pathname);
        // What may be opened again needs no second click.
        fromLink.form.hasAttribute('data-send-from-link') && fromLink.form.requestSubmit();
    }

    // A download that was waited for begins by itself; the page stays.
    const begin = () => document.querySelectorAll('[data-begins]').forEach((part) => {
        const address = part.dataset.begins;
        part.removeAttribute('data-begins');
        location.assign(address);
    });
    begin();
    document.addEventListener('htmx:afterSettle', begin);

    // Two moments on a drawing over time: dragged, or moved by keys; what is sent is the form below.
    const momentAt = (handle, at) => {
        const { from, until, left, zone } = handle.ownerSVGElement.dataset;
        const width = handle.ownerSVGElement.viewBox.baseVal.width - 2 * left;
        const moment = Math.round(Math.min(until, Math.max(from, at)));
        const words = new Date(1000 * moment).toLocaleString('en-GB', {
            timeZone: zone,
            day: 'numeric',
            month: 'short',
            year: 'numeric',
            hour: '2-digit',
            minute: '2-digit',
        }).replace(',', '');
        handle.setAttribute('transform', `translate(${+left + (width * (moment - from)) / (until - from)} 0)`);
        handle.setAttribute('aria-valuenow', moment);
        handle.setAttribute('aria-valuetext', words);
        const form = handle.closest('.over-time').querySelector('.moments-form');
        form.elements[`${handle.dataset.moment}_at`].value = moment;
        form.querySelector(`[data-moment-words="${handle.dataset.moment}"]`).textContent = words;
    };
    // Within a drawing what a finger does is not the style sheet's to say: without this the page would be moved.
    document.addEventListener('touchstart', (event) => {
        event.target.closest?.('.moment') && event.preventDefault();
    }, { passive: false });
    document.addEventListener('pointerdown', (event) => {
        const handle = event.target.closest?.('.moment');
        if (!handle) {
            return;
        }
        event.preventDefault();
        handle.focus();
        handle.setPointerCapture(event.pointerId);
        const follow = ({ clientX }) => {
            const svg = handle.ownerSVGElement;
            const { from, until, left } = svg.dataset;
            const box = svg.getBoundingClientRect();
            const x = ((clientX - box.left) * svg.viewBox.baseVal.width) / box.width - left;
            momentAt(handle, +from + ((until - from) * x) / (svg.viewBox.baseVal.width - 2 * left));
        };
        const end = () => handle.removeEventListener('pointermove', follow);
        handle.addEventListener('pointermove', follow);
        handle.addEventListener('pointerup', end, { once: true });
        handle.addEventListener('pointercancel', end, { once: true });
    });
    document.addEventListener('keydown', (event) => {
        const handle = event.target.closest?.('.moment');
        const step = {
            ArrowLeft: -0.01,
            ArrowDown: -0.01,
            ArrowRight: 0.01,
            ArrowUp: 0.01,
            PageDown: -0.1,
            PageUp: 0.1,
            Home: -1,
            End: 1,
        }[event.key];
        if (handle && step !== undefined) {
            event.preventDefault();
            const { from, until } = handle.ownerSVGElement.dataset;
            momentAt(handle, +handle.getAttribute('aria-valuenow') + step * (until - from));
        }
    });

    // The reach map: a lane lights up with the rows it reaches, a row with the lanes that reach it.
    const light = (map, lanes, rows, words) => {
        map.classList.toggle('has-lit', lanes !== null);
        map.querySelectorAll('.is-lit').forEach((one) => one.classList.remove('is-lit'));
        lanes?.forEach((lane) => lane.classList.add('is-lit'));
        rows?.forEach((row) => row.classList.add('is-lit'));
        const read = map.parentElement.querySelector('.reach-read');
        read.textContent = words ?? read.dataset.rest;
        read.classList.toggle('is-on', words !== null);
    };
    const pointAt = (element) => {
        const map = element.closest('.reach');
        const lane = element.closest('a.lane');
        const row = element.closest('g.row');
        if (!map) {
            return;
        }
        if (lane) {
            light(
                map,
                [lane],
                [...map.querySelectorAll('g.row')].filter(
                    one => +one.dataset.row >= +lane.dataset.from && +one.dataset.row <= +lane.dataset.to,
                ),
                lane.dataset.words,
            );
        } else if (row) {
            const lanes = [...map.querySelectorAll('a.lane')].filter(
                one => +row.dataset.row >= +one.dataset.from && +row.dataset.row <= +one.dataset.to,
            );
            light(
                map,
                lanes,
                [row],
                `Reached by ${lanes.map(one => one.querySelector('.login').textContent).join(', ')}`,
            );
        }
    };
    document.addEventListener('mouseover', (event) => event.target instanceof Element && pointAt(event.target));
    document.addEventListener('focusin', (event) => event.target instanceof Element && pointAt(event.target));
    document.addEventListener('mouseout', (event) => {
        const map = event.target instanceof Element && event.target.closest('.reach');
        if (map && !map.contains(event.relatedTarget)) {
            light(map, null, null, null);
        }
    });
    document.addEventListener('focusout', (event) => {
        const map = event.target instanceof Element && event.target.closest('.reach');
        if (map && !map.contains(event.relatedTarget)) {
            light(map, null, null, null);
        }
    });
    // The drawing of references: a file that is pointed at shows its own arcs and what they lead to.
    const pickNode = (event) => {
        const node = event.target instanceof Element && event.target.closest('.references a.node');
        const svg = event.target instanceof Element && event.target.closest('.references svg');
        document.querySelectorAll('.references svg').forEach((one) => {
            one.classList.toggle('has-picked', Boolean(node) && one === svg);
            one.querySelectorAll('.is-picked').forEach((part) => part.classList.remove('is-picked'));
        });
        if (!node) {
            return;
        }
        const own = new Set([node.dataset.number]);
        svg.querySelectorAll('.arc').forEach((arc) => {
            if (arc.dataset.from === node.dataset.number || arc.dataset.to === node.dataset.number) {
                arc.classList.add('is-picked');
                own.add(arc.dataset.from).add(arc.dataset.to);
            }
        });
        svg.querySelectorAll('a.node').forEach((one) => {
            one.classList.toggle('is-picked', own.has(one.dataset.number));
        });
    };
    document.addEventListener('mouseover', pickNode);
    document.addEventListener('focusin', pickNode);
    document.addEventListener('click', (event) => {
        const node = event.target instanceof Element && event.target.closest('.references a.node[href]');
        if (node) {
            event.preventDefault();
            htmx.ajax('GET', node.getAttribute('href'), { target: '#references', swap: 'outerHTML' });
        }
        // htmx takes links of HTML only for links, not those of SVG.
        const fold = event.target instanceof Element && event.target.closest('a.fold');
        if (fold) {
            event.preventDefault();
            htmx.ajax('GET', fold.getAttribute('href'), { target: '#reach-map', swap: 'outerHTML' });
        }
    });
})();
