import { sharedStyle } from "../style";

export const formStyle = `${sharedStyle}
.title { font-size: 1.6rem; line-height: 1.2; margin: 0 0 .5rem; text-wrap: balance; }
.title:focus { outline: none; }
.intro { margin: 0 0 1.25rem; color: var(--quiet); max-width: 60ch; }
form, .body, .form-page, .section, .grid { display: grid; gap: 1.1rem; min-width: 0; }
.body { container-type: inline-size; }
.grid.two { grid-template-columns: 1fr 1fr; column-gap: 1.25rem; align-items: start; }
.grid.two > :is(.slot, .block, .long_text, .choices, .consent) { grid-column: 1 / -1; }
@container (max-width: 30rem) { .grid.two { grid-template-columns: 1fr; } }
.away { display: none !important; }
.page-title { font-size: 1.3rem; margin: 0; }
.page-title:focus { outline: none; }
.section-title { font-size: 1.1rem; margin: 0; }
details.section { border: 1px solid var(--line); border-radius: 10px; padding: .6rem 1rem; display: block; }
details.section > :not(summary) { margin-top: 1rem; }
details.section > summary { cursor: pointer; min-height: 2rem; align-content: center; font-weight: 600; border-radius: 4px; }
details.section > summary > .section-title { display: inline; }
.boxes { display: grid; gap: .2rem; }
.boxes label { display: flex; gap: .6rem; align-items: center; min-height: 2.5rem; font-weight: 400; }
.boxes input { flex: none; width: 1.35rem; height: 1.35rem; accent-color: var(--accent); margin: 0; }
.link-box { position: relative; }
.link-field { display: grid; gap: .25rem; justify-items: start; }
.link-field > .link-box { width: 100%; }
.phone-box { display: grid; grid-template-columns: 6.5rem 1fr; gap: .5rem; }
.phone-box > [hidden] { display: none; }
.phone-box > [hidden] + input { grid-column: 1 / -1; }
.phone-box .choices-list { inset-inline-end: auto; width: min(20rem, 80vw); }
.slot-map { display: grid; gap: .4rem; }
.slot-map[hidden] { display: none; }
.map-frame { height: 15rem; border: 1px solid var(--line); border-radius: 8px; overflow: hidden; background: #eef2ef; z-index: 0; isolation: isolate; }
@container (min-width: 44rem) { .map-beside { grid-template-columns: 1fr minmax(16rem, 40%); } .map-beside > :not(.slot-map, legend) { grid-column: 1; } .map-beside > .slot-map { grid-column: 2; grid-row: 1 / span 20; align-content: start; } .map-beside .map-frame { height: 20rem; } }
.choices-list {
  position: absolute; z-index: 10; inset-inline: 0; top: calc(2.75rem + 4px); margin: 0; padding: 4px; list-style: none;
  max-height: 16rem; overflow-y: auto; background: var(--paper); border: 1px solid var(--line); border-radius: 8px;
  box-shadow: 0 8px 24px rgb(23 49 59 / .18);
}
.choices-list li { padding: .55rem .6rem; border-radius: 5px; cursor: pointer; overflow-wrap: anywhere; }
.choices-list li:is([aria-selected=true], :hover) { background: var(--tint); }
.form-head { margin-bottom: .8rem; display: flex; flex-wrap: wrap; gap: .5rem 1.5rem; justify-content: space-between; align-items: start; }
.words { flex: 1 1 16rem; min-width: 0; }
.language { display: flex; align-items: center; gap: .5rem; font-size: .9em; }
.language label { font-weight: 400; color: var(--quiet); }
.progress { display: flex; align-items: center; gap: .8rem; color: var(--quiet); font-size: .9em; }
.progress:focus { outline: none; }
.progress progress { flex: 1; height: .5rem; accent-color: var(--accent); }
.actions { display: flex; flex-wrap: wrap; gap: .8rem; }
.back {
  min-height: 3rem; padding: .6rem 1.6rem; border: 1px solid var(--line); border-radius: 8px; background: none;
  color: var(--accent); font-weight: 600;
}
.marked[hidden], [hidden]:has(.marked) { display: grid !important; opacity: .65; }
.marked { outline: 2px dashed var(--accent); outline-offset: 6px; border-radius: 4px; }
.field { display: grid; gap: .25rem; min-width: 0; align-content: start; }
.with-unit { display: flex; align-items: center; gap: .6rem; }
.with-unit > :first-child { flex: 1 1 auto; min-width: 0; }
.unit { color: var(--quiet); }
.field.formula output { font-size: 1.1rem; min-height: 1.5em; }
.field.formula.open output::before { content: "–"; color: var(--quiet); }
.field.formula .with-unit > :first-child { flex: 0 1 auto; }
.block > * { margin: 0; }
.block.heading > :first-child { font-size: 1.2rem; }
.field.formula .label { font-weight: 600; }
.field.yes_no, .field.consent { grid-template-columns: auto 1fr; align-items: center; gap: .6rem; min-height: 2.75rem; }
.field:is(.yes_no, .consent) input { width: 1.35rem; height: 1.35rem; accent-color: var(--accent); margin: 0; }
.field:is(.yes_no, .consent) :is(.help, .problem) { grid-column: 2; }
.needed { font-weight: 400; color: var(--quiet); font-size: .875em; }
.help, .problem, .message { margin: 0; font-size: .9em; }
.help { color: var(--quiet); }
.problem { color: var(--wrong); font-weight: 600; }
.says-later > .problem[hidden] { display: block !important; visibility: hidden; }
.says-later > .problem[hidden]::before { content: "\\00a0"; }
[aria-invalid] { border-color: var(--wrong) !important; border-width: 2px !important; }
.slot {
  border: 1px solid var(--line); border-radius: 10px; padding: .4rem 1rem 1rem; margin: 0; min-width: 0;
  display: grid; gap: .8rem;
}
.slot legend { padding: 0 .4rem; font-size: 1.05rem; }
.parts { display: grid; grid-template-columns: repeat(auto-fit, minmax(min(13rem, 100%), 1fr)); gap: .8rem 1rem; }
.folded { display: none !important; }
.filled-lines { display: flex; flex-wrap: wrap; gap: .3rem 1.2rem; align-items: end; padding: .6rem .8rem; border-radius: 8px; background: var(--tint); }
.filled-lines[hidden], .near-list[hidden] { display: none; }
.lines { white-space: pre-line; font-style: normal; overflow-wrap: anywhere; flex: 1 1 12rem; min-width: 0; }
.lock { margin: 0; }
.more-parts .link { text-align: start; }
.locked :is(input, select, textarea) { background: var(--tint); color: inherit; }
.location { display: grid; gap: .4rem; justify-items: start; }
.location .help:empty { display: none; }
.secondary { min-height: 2.75rem; padding: .4rem 1rem; border: 1px solid var(--line); border-radius: 8px; background: var(--paper); color: var(--accent); font-weight: 600; }
.near-list { list-style: none; margin: 0; padding: 0; width: 100%; border: 1px solid var(--line); border-radius: 8px; overflow: hidden; }
.near-list button { display: flex; gap: 1rem; justify-content: space-between; width: 100%; min-height: 2.75rem; padding: .5rem .8rem; border: 0; background: none; text-align: start; }
.near-list li + li { border-top: 1px solid var(--line); }
.near-list button:is(:hover, :focus-visible) { background: var(--tint); }
.near-list .count { color: var(--quiet); white-space: nowrap; }
.by-hand { margin: .25rem 0 .75rem; padding: .5rem .75rem; border-inline-start: 3px solid currentColor; }
.by-hand p { margin: 0; }
.by-hand-row { display: flex; flex-wrap: wrap; gap: 0 1rem; align-items: center; }
.message-line { display: flex; flex-wrap: wrap; gap: 0 1rem; align-items: center; }
.message-line:not(:has(.message:not(:empty))) { display: none; }
.message { color: var(--accent); font-weight: 600; }
.kept { padding: .6rem .8rem; border-radius: 8px; background: var(--tint); font-size: .9em; }
.kept p { margin: 0 0 .3rem; }
.kept dl { display: grid; grid-template-columns: auto 1fr; gap: .1rem .8rem; margin: 0; }
.kept dt { color: var(--quiet); }
.kept dd { margin: 0; font-weight: 600; overflow-wrap: anywhere; min-width: 0; }
.kept[hidden] { display: none; }
.alert { display: none; padding: .8rem 1rem; border-radius: 8px; background: #fbeae6; color: var(--wrong); font-weight: 600; }
.alert.shown { display: block; }
.alert ul { margin: .4rem 0 0; padding-inline-start: 1.2rem; font-weight: 400; }
.alert a { color: inherit; }
.notice { padding: .8rem 1rem; border-radius: 8px; background: var(--tint); display: grid; gap: .6rem; }
.notice[hidden] { display: none; }
.notice p { margin: 0; }
.trap { position: absolute; inset-inline-start: -200vw; width: 1px; height: 1px; overflow: hidden; }
.alert.fine { background: var(--tint); color: var(--accent); }
.send {
  min-height: 3rem; padding: .6rem 1.6rem; border: 0; border-radius: 8px; background: var(--accent);
  color: #fff; font-weight: 600;
}
.send:hover { filter: brightness(.92); }
.send:disabled { opacity: .6; cursor: progress; }
.loading { color: var(--quiet); }
.thanks { padding: 2rem 0; }
.thanks code { font-size: .95em; }
@media (max-width: 480px) { .send, .back { flex: 1 1 auto; } .slot { padding-inline: .75rem; } }
`;
