/** The editor of a formula: names and functions complete themselves, what is wrong is marked. */

import {
  type Completion, type CompletionContext, type CompletionResult, autocompletion, closeBrackets, completionKeymap,
} from "@codemirror/autocomplete";
import { defaultKeymap, history, historyKeymap } from "@codemirror/commands";
import { type Diagnostic, lintGutter, setDiagnostics } from "@codemirror/lint";
import { EditorState } from "@codemirror/state";
import { EditorView, keymap, tooltips } from "@codemirror/view";
import { useEffect, useRef } from "react";

import type { FormulaFunction } from "../../../api/schemas";

/** What a formula may speak of. */
export interface KnownName {
  name: string;
  label: string;
  isAddress: boolean;
}

interface Props {
  label: string;
  text: string;
  names: KnownName[];
  functions: FormulaFunction[];
  places: { detail: string; at?: number | null; length?: number | null }[];
  change: (text: string) => void;
}

export default function FormulaEditor(props: Props): React.ReactNode {
  const place = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const latest = useRef(props);
  latest.current = props;
  useEffect(() => {
    const host = place.current;
    if (!host) return;
    const made = new EditorView({
      parent: host,
      state: EditorState.create({ doc: latest.current.text, extensions: extensions(latest) }),
    });
    view.current = made;
    return () => made.destroy();
  }, []);
  const { text, places } = props;
  useEffect(() => {
    const made = view.current;
    if (made && made.state.doc.toString() !== text) {
      made.dispatch({ changes: { from: 0, to: made.state.doc.length, insert: text } });
    }
  }, [text]);
  useEffect(() => {
    const made = view.current;
    if (made) made.dispatch(setDiagnostics(made.state, places.map((one) => diagnostic(one, made.state.doc.toString()))));
  }, [places]);
  return <div ref={place} className="formula-editor" />;
}

function extensions(latest: React.RefObject<Props>) {
  return [
    history(),
    closeBrackets(),
    lintGutter(),
    // Not inside the settings, which would cut them off; inside the page's landmark.
    tooltips({ parent: document.getElementById("main") ?? document.body }),
    autocompletion({ override: [(context) => completions(context, latest.current)], icons: false }),
    keymap.of([...completionKeymap, ...historyKeymap, ...defaultKeymap]),
    EditorView.lineWrapping,
    EditorView.contentAttributes.of({ "aria-label": latest.current.label, spellcheck: "false" }),
    EditorView.updateListener.of((update) => {
      if (!update.docChanged) return;
      const text = update.state.doc.toString();
      if (text !== latest.current.text) latest.current.change(text);
    }),
  ];
}

function completions(context: CompletionContext, { names, functions }: Props): CompletionResult | null {
  const before = context.matchBefore(/'?[\p{L}_][\p{L}\p{N}_-]*/u);
  if (!before && !context.explicit) return null;
  const options: Completion[] = [
    // Found by its key and by its label: people think in labels.
    ...names.map(({ name, label }) => ({ label: `${name} ${label}`, displayLabel: name, detail: label, apply: name, boost: 2 })),
    ...functions.map((one) => ({ label: one.name, detail: one.usage.replace(one.name, ""), apply: applied(one), info: () => described(one) })),
  ];
  return { from: before?.from ?? context.pos, options, validFor: /^'?[\p{L}\p{N}_ -]*$/u };
}

/** A function with its brackets, and the place to type in between them. */
function applied(one: FormulaFunction) {
  return (view: EditorView, _completion: Completion, from: number, to: number): void => {
    const isEmpty = one.usage.endsWith("()");
    view.dispatch({ changes: { from, to, insert: `${one.name}()` }, selection: { anchor: from + one.name.length + (isEmpty ? 2 : 1) } });
  };
}

function described(one: FormulaFunction): Node {
  const whole = document.createElement("div");
  const says = document.createElement("p");
  says.textContent = one.says;
  whole.append(says);
  if (one.example) {
    const example = document.createElement("code");
    example.textContent = `${one.example.formula} → ${one.example.value}`;
    whole.append(example);
  }
  return whole;
}

/** The service counts characters; the editor counts as JavaScript does. */
function diagnostic({ detail, at, length }: Props["places"][number], text: string): Diagnostic {
  const signs = [...text];
  const from = at == null ? 0 : signs.slice(0, at).join("").length;
  const to = length == null ? text.length : from + signs.slice(at ?? 0, (at ?? 0) + length).join("").length;
  return { from: Math.min(from, text.length), to: Math.min(Math.max(to, from), text.length), severity: "error", message: detail };
}
