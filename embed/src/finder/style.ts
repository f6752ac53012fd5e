import { sharedStyle } from "../style";

export const finderStyle = `${sharedStyle}
label { display: block; margin-bottom: .25rem; }
.box { position: relative; }
#input { padding-inline-end: 2.5rem; }
.box::after {
  content: ""; position: absolute; inset-inline-end: .9rem; top: .95rem; width: .7rem; height: .7rem;
  border: 2px solid var(--quiet); border-radius: 50%; pointer-events: none;
}
.box::before {
  content: ""; position: absolute; inset-inline-end: .68rem; top: 1.62rem; width: .45rem;
  height: 2px; background: var(--quiet); rotate: 45deg; pointer-events: none;
}
.box:has([aria-busy])::before { display: none; }
.box:has([aria-busy])::after {
  border-color: var(--accent) transparent var(--accent) transparent; animation: turn .9s linear infinite;
}
@keyframes turn { to { rotate: 360deg; } }
@media (prefers-reduced-motion: reduce) { .box:has([aria-busy])::after { animation: none; } }
.popup {
  position: absolute; z-index: 10; inset-inline: 0; top: calc(100% + 4px); overflow: hidden;
  background: var(--paper); border: 1px solid var(--line); border-radius: 8px;
  box-shadow: 0 8px 24px rgb(23 49 59 / .18);
}
ul { margin: 0; padding: 4px; list-style: none; max-height: min(22rem, 60vh); overflow-y: auto; }
.note {
  margin: 0; padding: .5rem .9rem; border-bottom: 1px solid var(--tint); color: var(--quiet);
  font-size: .875em; overflow-wrap: anywhere;
}
li {
  display: flex; align-items: center; gap: .6rem; min-height: 2.75rem; padding: .35rem .6rem;
  border-radius: 5px; cursor: pointer;
}
li[aria-selected=true] { background: var(--tint); box-shadow: inset 3px 0 0 var(--accent); }
.label { flex: 1; min-width: 0; overflow-wrap: anywhere; }
mark { background: var(--mark); color: inherit; border-radius: 2px; }
.count { flex: none; color: var(--quiet); font-size: .875em; }
.opens { flex: none; color: var(--accent); font-weight: 700; }
.back, .more, .take { color: var(--accent); font-weight: 600; }
.back { border-bottom: 1px solid var(--tint); border-radius: 5px 5px 0 0; }
.problem { margin: .3rem 0 0; color: var(--wrong); font-weight: 600; font-size: .9em; }
[aria-invalid] { border-color: var(--wrong); border-width: 2px; }
.footer { display: flex; flex-wrap: wrap; gap: 0 1rem; justify-content: space-between; align-items: center; }
.status { margin: .3rem 0 0; min-height: 1.45em; flex: 1 1 14rem; color: var(--ink); }
.status.quiet { color: var(--quiet); font-size: .875em; }
.by-hand {
  background: none; border: 0; padding: .35rem 0; min-height: 2rem; color: var(--accent);
  text-decoration: underline; text-underline-offset: 2px; border-radius: 4px;
}
:host([filled]) .by-hand { display: none; }
:host([filled]) .status:empty { min-height: 0; margin: 0; }
`;
