/**
 * `<anchorline-form>`: a whole form, to be filled by anybody.
 *
 * Attributes: `form` (its key), `access` (a browser key), `base` (the service's address), `draft`
 * (fill the draft), `dry-run` (submitting keeps nothing and shows what would be kept), `level` (of
 * the heading, 1 to 4).
 * Events, which bubble: `anchorline-filled`, `anchorline-submitted`, `anchorline-dry-run`.
 */

import { make, shadowOf } from "../dom";
import {
  type Connection,
  type FillAnswer,
  ServiceError,
  call,
  connectionOf,
  insistently,
  path,
} from "../service";
import { checkAttributes, isSetupError, warnOnce } from "../setup";
import { ENGLISH, type Words, directionOf, wordsOf } from "../words";
import { FormBody } from "./body";
import type { FieldView } from "./field";
import { LanguageSwitch } from "./language-switch";
import { wantedLanguages } from "./languages";
import { type GivenInForm, asGiven } from "./given";
import { type FormLogic, type Worked, today, workOut } from "./logic";
import type { FormDocument } from "./model";
import { Sending, type Sent, filledForm } from "./sending";
import { markMissing, refused } from "./refusal";
import type { SlotView } from "./slot";
import { formStyle } from "./style";
import { thanksFor } from "./thanks";
import { bestLanguage, languagesOf, translated } from "./translated";
import { FormViews } from "./views";

const ATTRIBUTES = ["form", "access", "base", "draft", "dry-run", "level"];

/** What `anchorline-submitted` carries: the record that was made. */
export type SubmittedDetail = Sent;

/** What `anchorline-filled` carries. */
export interface FilledDetail {
  slot: string;
  label: string;
  answer: FillAnswer;
}

interface Loaded {
  document: FormDocument;
  logic: FormLogic;
  version: number | null;
}

export class FormElement extends HTMLElement {
  /** How to reach the service; set instead of `access` and `base` by a page that signs in. */
  connection: Connection | null = null;
  /** A form to show as it is, instead of asking for one: the one that is being made. */
  design: Loaded | null = null;
  private loaded: Loaded | null = null;
  private document: FormDocument | null = null;
  private language = "";
  private words: Words = ENGLISH;
  private views: FormViews | null = null;
  private body: FormBody | null = null;
  private marked = "";
  private worked: Worked | null = null;
  private readonly alert = make("div", { role: "alert", class: "alert" });
  private readonly goOn = make("button", { type: "submit", class: "send" });
  private readonly goBack = make("button", { type: "button", class: "back" });
  private readonly sending = new Sending();

  connectedCallback(): void {
    const root = shadowOf(this, formStyle);
    if (root.childNodes.length) return;
    checkAttributes(this, ATTRIBUTES);
    if (!this.key) warnOnce(this, "it needs “form”, the key of a form.");
    if (!this.connection && !this.hasAttribute("access")) {
      warnOnce(this, "it needs “access”, a browser key of the service.");
    }
    this.goBack.addEventListener("click", () => this.step(-1));
    void this.load();
  }

  /** Loads the form anew; what was typed is gone. */
  async load(): Promise<void> {
    const root = shadowOf(this, formStyle);
    if (!this.design) root.replaceChildren(make("p", { role: "status", class: "loading" }, this.words.say("loading")));
    this.views = null;
    try {
      const address = path`forms/${this.key}` + (this.hasAttribute("draft") ? "?draft=true" : "");
      this.loaded = this.design ?? (await insistently(() => call<Loaded>(connectionOf(this), address)));
      const languages = languagesOf(this.loaded.document);
      // A form in one language is read in it by everybody; of several, each reads the best.
      const best = languages.length > 1 ? bestLanguage(this.loaded.document, this.wanted) : (languages[0] ?? "en");
      await this.speak(this.language && languages.includes(this.language) ? this.language : best);
    } catch (error) {
      const again = make("button", { type: "button", class: "link" }, this.words.say("tryAgain"));
      again.addEventListener("click", () => void this.load());
      // How the page is set up concerns who built it; the others can only try again.
      const isSetup = error instanceof ServiceError && isSetupError(this, error);
      const detail = isSetup ? this.words.say("notSetUp") : error instanceof Error ? error.message : String(error);
      root.replaceChildren(
        make("div", { role: "alert", class: "alert shown" }, `${this.words.say("cannotBeShown")} ${detail} `, again),
      );
    }
  }

  /** Shows a form that is being made as it is now; what was typed into it stays. */
  revise(design: Loaded): void {
    this.design = design;
    if (!this.views || !this.loaded) return;
    const isSameStyle = design.document.style === this.loaded.document.style;
    this.loaded = design;
    if (isSameStyle) this.show();
    else void this.load();
  }

  /** Marks what is being edited, and shows it, on whichever page it stands. */
  mark(key: string): void {
    this.elementOf(this.marked)?.classList.remove("marked");
    this.marked = key;
    if (!key) return;
    this.body?.reveal(key);
    this.showSteps();
    this.elementOf(key)?.classList.add("marked");
    this.elementOf(key)?.scrollIntoView({ block: "nearest" });
  }

  private elementOf(key: string): Element | null | undefined {
    return this.shadowRoot?.querySelector(`[data-key="${CSS.escape(key)}"]`);
  }

  /** What is given in the fields now, as formulas have it. */
  get given(): GivenInForm {
    return asGiven(this.worked, this.views?.addresses() ?? {});
  }

  private get wanted(): string[] {
    return wantedLanguages(this.getAttribute("lang"), navigator.languages, document.documentElement.lang);
  }

  private get key(): string { return this.getAttribute("form") ?? ""; }
  /** Speaks a language of the form; what was typed stays. */
  private async speak(language: string): Promise<void> {
    const typed = this.views?.values() ?? {};
    this.language = language;
    this.words = await wordsOf(language);
    this.views = null;
    this.body = null;
    this.show();
    for (const [key, value] of Object.entries(typed)) {
      const field = this.fieldOf(key);
      if (field && value !== null) field.value = value;
    }
    this.workOut();
  }

  private fieldOf(key: string): FieldView | undefined {
    return this.views?.fields.get(key);
  }

  private show(): void {
    if (!this.loaded) return;
    const document = translated(this.loaded.document, this.language);
    this.document = document;
    const isNew = !this.views;
    this.views ??= new FormViews(this.slotContext(), this.level);
    this.body ??= new FormBody(this.words, this.level);
    const { views, body } = this;
    views.take(document);
    body.arrange(document, (item) => views.elementOf(item));
    if (isNew) this.frame();
    this.entitle(document);
    this.workOut();
    if (this.marked) this.elementOf(this.marked)?.classList.add("marked");
  }

  /** What stands around the fields. */
  private frame(): void {
    this.alert.replaceChildren();
    this.alert.classList.remove("shown");
    const form = make("form", { novalidate: true, "aria-labelledby": "title" });
    if (this.body) form.append(this.body.progress, this.body.element);
    form.append(this.alert, make("div", { class: "actions" }, this.goOn, this.goBack));
    this.goBack.textContent = this.words.say("back");
    form.addEventListener("submit", (event) => {
      event.preventDefault();
      if (this.body?.isLast ?? true) void this.submit();
      else this.step(1);
    });
    const languages = this.loaded ? languagesOf(this.loaded.document) : [];
    const choice = new LanguageSwitch(languages, this.language, this.words, (language) => void this.speak(language));
    const head = make("div", { class: "form-head" }, make("div", { class: "words" }), choice.element);
    const whole = make("div", { class: "form", lang: this.language, dir: directionOf(this.language) }, head, form);
    shadowOf(this, formStyle).replaceChildren(whole);
  }

  private entitle(document: FormDocument): void {
    const words = this.shadowRoot?.querySelector(".words");
    const intro = document.intro ? [make("p", { class: "intro" }, document.intro)] : [];
    words?.replaceChildren(this.heading({ id: "title" }, document.title), ...intro);
  }

  private slotContext(): ConstructorParameters<typeof SlotView>[1] {
    const several = this.loaded ? languagesOf(this.loaded.document).length > 1 : false;
    return {
      form: this.key,
      draft: this.hasAttribute("draft"),
      connection: connectionOf(this),
      languages: [...new Set(several ? [this.language, ...this.wanted] : this.wanted)].slice(0, 8),
      words: this.words,
      fields: new Map(),
      changed: () => this.workOut(),
      isWritten: () => JSON.stringify(this.loaded?.logic).includes('"call":"ADDRESS'),
      emit: (name, detail) => this.emit(name, detail),
    };
  }

  /** Shows what is to be shown, marks what is needed, and works formulas out. */
  private workOut(): void {
    const { document, loaded, views, body } = this;
    if (!document || !loaded || !views || !body) return;
    const given = { values: views.values(), slots: views.addresses(), today: today() };
    const worked = workOut(document, loaded.logic, given);
    this.worked = worked;
    views.show(worked);
    body.update(worked.shown);
    this.showSteps();
  }

  private showSteps(): void {
    const isLast = this.body?.isLast ?? true;
    this.goBack.hidden = this.body?.isFirst ?? true;
    const last = this.hasAttribute("dry-run") ? "trySending" : "send";
    this.goOn.textContent = this.words.say(isLast ? last : "next");
  }

  /** Goes on to the next step, if nothing that is needed is missing on this one, or back. */
  private step(by: 1 | -1): void {
    const { body } = this;
    if (!body) return;
    this.alert.classList.remove("shown");
    if (by === 1 && this.isMissing(body.current)) return;
    body.step(by);
    this.showSteps();
    body.focus();
  }

  /** Marks what is needed and not given; whether there is anything, which then has the focus. */
  private isMissing(keys: ReadonlySet<string>): boolean {
    const missing = this.views ? markMissing(this.views, keys, this.words) : [];
    if (missing.length) this.warn(this.words.say("attention", { count: missing.length }));
    missing[0]?.focus();
    return missing.length > 0;
  }

  private async submit(): Promise<void> {
    const { views } = this;
    if (this.goOn.disabled || !views) return;
    this.goOn.disabled = true;
    // What was picked last is what is sent: its answer may still be on its way.
    await Promise.all(views.slots.map((slot) => slot.settled()));
    for (const one of views.inOrder()) one.setProblem(null);
    const dryRun = this.hasAttribute("dry-run");
    try {
      const waiting = (): void => this.warn(this.words.say("sentAgain"));
      const body = filledForm(views, Boolean(this.document?.keeps_hidden), this.loaded?.version ?? null, this.language);
      const answer = await this.sending.send(this.key, connectionOf(this), body, dryRun, waiting);
      this.succeeded(answer, dryRun);
    } catch (error) {
      this.failed(error);
    } finally {
      this.goOn.disabled = false;
    }
  }

  private succeeded(answer: Sent, dryRun: boolean): void {
    if (dryRun) {
      this.warn(this.words.say("nothingWrong"));
      this.alert.classList.add("fine");
      this.emit("dry-run", answer);
      return;
    }
    const heading = this.heading({ tabindex: "-1" }, this.document?.thanks || this.words.say("thanks"));
    const said = { heading, language: this.language, words: this.words, again: () => void this.load() };
    shadowOf(this, formStyle).replaceChildren(thanksFor(answer, said));
    heading.focus();
    this.emit("submitted", answer);
  }

  private failed(error: unknown): void {
    const { views } = this;
    if (!views) return;
    const { sentence, first } = refused(error, views, this.words);
    this.warn(sentence);
    if (first) this.body?.reveal(views.itemOf(first));
    this.showSteps();
    (first ?? this.goOn).focus();
  }

  private get level(): number { return Number(this.getAttribute("level") ?? "1"); }

  private heading(attributes: Record<string, string>, text: string): HTMLElement {
    const name = (["h1", "h2", "h3", "h4"] as const)[this.level - 1] ?? "h1";
    return make(name, { class: "title", ...attributes }, text);
  }

  private warn(text: string): void {
    this.alert.classList.remove("fine");
    this.alert.classList.add("shown");
    this.alert.replaceChildren(text);
  }

  private emit(name: string, detail: unknown): void {
    this.dispatchEvent(
      new CustomEvent(`anchorline-${name}`, { detail, bubbles: true, composed: true }),
    );
  }
}
