import { sharedStyle } from "../style";

export const attachedStyle = `${sharedStyle}
:host { margin-block: .75rem; }
.message { margin: .3rem 0 0; }
.message:empty { display: none; }
.by-hand { margin-top: .5rem; padding: .5rem .75rem; border-inline-start: 3px solid var(--accent); background: var(--tint); }
.by-hand p { margin: 0; }
.by-hand-row { display: flex; flex-wrap: wrap; gap: 0 1rem; align-items: center; }
`;
