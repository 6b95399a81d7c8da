// A page that says what did not work leads back to where one was; what it says is the same for whoever asks.
(() => {
    const link = document.querySelector('[data-back]');
    const from = document.referrer === '' ? null : new URL(document.referrer);
    if (link && from?.origin === location.origin && from.href !== location.href) {
        link.href = from.href;
        link.textContent = 'Back to where you were';
    }
})();
