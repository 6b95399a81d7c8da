// The text editor of the files page, bundled by bin/bundle-editor into public/vendor/editor.js.
import { EditorView, basicSetup } from 'codemirror';
import { EditorState, Compartment } from '@codemirror/state';
import { keymap } from '@codemirror/view';
import { indentWithTab } from '@codemirror/commands';
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import { search, openSearchPanel } from '@codemirror/search';
import { tags } from '@lezer/highlight';
import { css } from '@codemirror/lang-css';
import { html } from '@codemirror/lang-html';
import { javascript } from '@codemirror/lang-javascript';
import { json } from '@codemirror/lang-json';
import { markdown } from '@codemirror/lang-markdown';
import { php } from '@codemirror/lang-php';
import { xml } from '@codemirror/lang-xml';

const LANGUAGES = {
    css: () => css(),
    htm: () => html(),
    html: () => html(),
    xhtml: () => html(),
    js: () => javascript(),
    mjs: () => javascript(),
    json: () => json(),
    webmanifest: () => json(),
    md: () => markdown(),
    php: () => php(),
    phtml: () => php(),
    svg: () => xml(),
    xml: () => xml(),
};

// Colours come from the page's own variables, so that they follow its scheme.
const look = EditorView.theme({
    '&': { color: 'var(--ink)', backgroundColor: 'var(--sheet)', height: '100%', fontSize: '14px' },
    '.cm-scroller': { fontFamily: "'JetBrains Mono', monospace", lineHeight: '1.5' },
    '.cm-content': { caretColor: 'var(--ink)' },
    '.cm-cursor, .cm-dropCursor': { borderLeftColor: 'var(--ink)' },
    '.cm-gutters': { backgroundColor: 'var(--page)', color: 'var(--soft)', borderRight: '1px solid var(--rule)' },
    '.cm-activeLine, .cm-activeLineGutter': { backgroundColor: 'var(--stripe)' },
    '&.cm-focused .cm-selectionBackground, .cm-selectionBackground, ::selection': {
        backgroundColor: 'var(--kept-bg) !important',
    },
    '.cm-searchMatch': { backgroundColor: 'var(--soon-bg)' },
    '.cm-panels': { backgroundColor: 'var(--page)', color: 'var(--ink)' },
    '.cm-panel.cm-search input, .cm-panel.cm-search button': { fontSize: '13px', color: 'var(--ink)' },
    '.cm-tooltip': { backgroundColor: 'var(--sheet)', color: 'var(--ink)', border: '1px solid var(--rule)' },
    '.cm-tooltip-autocomplete ul li[aria-selected]': { backgroundColor: 'var(--proven)', color: 'var(--on-main)' },
    '.cm-button': { backgroundImage: 'none', backgroundColor: 'var(--sheet)', border: '1px solid var(--rule)' },
    '.cm-textfield': { backgroundColor: 'var(--sheet)', border: '1px solid var(--rule)' },
});
const colours = HighlightStyle.define([
    { tag: [tags.keyword, tags.tagName, tags.heading], color: 'var(--proven)', fontWeight: '700' },
    { tag: [tags.string, tags.attributeValue], color: 'var(--soon)' },
    { tag: [tags.attributeName, tags.propertyName], color: 'var(--kept)' },
    { tag: [tags.number, tags.bool, tags.null, tags.atom], color: 'var(--now)' },
    { tag: [tags.comment, tags.meta], color: 'var(--soft)', fontStyle: 'italic' },
    { tag: tags.invalid, color: 'var(--now)', textDecoration: 'underline' },
]);

/**
 * Puts an editor in the place of a text field, which keeps what is typed. It lives in a shadow tree: its styles are
 * made by script there, which the page's policy has nothing against.
 */
function mount(field, { extension, onChange }) {
    const host = document.createElement('div');
    host.className = 'editor';
    field.after(host);
    field.hidden = true;
    const root = host.attachShadow({ mode: 'open' });
    const place = document.createElement('div');
    root.append(place);
    const sheet = new CSSStyleSheet();
    sheet.replaceSync(':host { display: block } div:first-child { height: 100% }');
    root.adoptedStyleSheets = [sheet];
    const wrap = new Compartment();
    const view = new EditorView({
        parent: place,
        root,
        state: EditorState.create({
            doc: field.value,
            extensions: [
                basicSetup,
                search({ top: true }),
                keymap.of([indentWithTab]),
                wrap.of(EditorView.lineWrapping),
                look,
                syntaxHighlighting(colours),
                LANGUAGES[extension]?.() ?? [],
                EditorView.contentAttributes.of({ 'aria-label': field.labels[0]?.textContent.trim() ?? 'Text' }),
                EditorView.updateListener.of((update) => {
                    if (update.docChanged) {
                        field.value = update.state.doc.toString();
                        onChange();
                    }
                }),
            ],
        }),
    });

    return {
        find: () => openSearchPanel(view),
        focus: () => view.focus(),
        toLine: (number) => {
            const line = view.state.doc.line(Math.min(Math.max(1, number), view.state.doc.lines));
            view.dispatch({ selection: { anchor: line.from }, scrollIntoView: true });
            view.focus();
        },
    };
}

window.CellariumEditor = { mount };
