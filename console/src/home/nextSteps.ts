import type { Overview } from "../api/schemas";

interface Step {
  text: string;
  to?: string;
}

/** What an administrator should do next, the most urgent first. */
export function nextSteps(overview: Overview): Step[] {
  const steps: Step[] = [];
  if (!overview.editions.length) {
    steps.push({
      text: "Load reference data: until then nothing can be found, and people type addresses in by hand.",
      to: "/data",
    });
  }
  if (!overview.forms) {
    steps.push({ text: "Put the first form up; the guide for administrators says how.", to: "/forms" });
  }
  if (overview.drafts_waiting) {
    const count = overview.drafts_waiting;
    steps.push({
      text: `Try and publish ${count === 1 ? "the draft that differs" : `the ${count} drafts that differ`} from what people fill in.`,
      to: "/forms",
    });
  }
  for (const { subject, name, state } of overview.allowances) {
    const form = subject.startsWith("page ") ? subject.slice("page ".length) : null;
    const who = form === null ? `The key “${name}”` : `The ${name}`;
    const what = state === "used_up" ? "can fetch no more addresses for now, and people type by hand" : "has fetched nearly as many addresses as it may";
    const way = form === null ? "give it more, or see what it fetches" : "its form says how many it may fetch, under “Open to everybody”";
    steps.push({ text: `${who} ${what}: ${way}.`, to: form === null ? "/activity" : `/forms/${form}` });
  }
  if (overview.captured >= 20 && overview.picked < overview.captured / 2) {
    steps.push({
      text: "Most addresses are typed in by hand: see whether the countries of your records are loaded.",
      to: "/records",
    });
  }
  if (!steps.length) {
    steps.push(
      { text: "Everything is published. Try a form on the spot, with a trace of what goes where.", to: "/forms" },
      { text: "Read the latest records.", to: "/records" },
    );
  }
  return steps;
}
