/** Colours and sizes that the elements share; a page may set the properties on the element. */

export const sharedStyle = `
:host {
  --ink: var(--anchorline-ink, #17313b);
  --quiet: var(--anchorline-quiet, #51666f);
  --line: var(--anchorline-line, #8fa3ab);
  --paper: var(--anchorline-paper, #ffffff);
  --tint: var(--anchorline-tint, #e8f1f1);
  --accent: var(--anchorline-accent, #0a6670);
  --wrong: var(--anchorline-wrong, #a3260f);
  --mark: var(--anchorline-mark, #f7e3b4);
  display: block; color: var(--ink); font: inherit; line-height: 1.45;
}
* { box-sizing: border-box; }
[hidden] { display: none !important; }
label, legend { font-weight: 600; }
input, select, textarea, button { font: inherit; color: inherit; }
input:not([type=checkbox]), select, textarea {
  width: 100%; min-height: 2.75rem; padding: .5rem .7rem; background: var(--paper);
  border: 1px solid var(--line); border-radius: 6px;
}
:is(input, select, textarea, button):focus-visible {
  outline: 3px solid var(--accent); outline-offset: 1px; border-color: var(--accent);
}
button { cursor: pointer; }
.link {
  background: none; border: 0; padding: .35rem 0; min-height: 2rem; color: var(--accent);
  text-decoration: underline; text-underline-offset: 2px; border-radius: 4px;
}
`;
