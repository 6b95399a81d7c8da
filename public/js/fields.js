// Fields and the buttons beside them: shown and copied, filled, picked, chosen.
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
