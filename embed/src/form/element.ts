/**
 * `<anchorline-form>`: a whole form, to be filled by anybody.
 *
 * Attributes: `form` (its key), `access` (a browser key), `base` (the service's address), `draft` (fill the draft),
 * `dry-run` (submitting keeps nothing), `record` (the id of one that is filled again), `level` (of the heading, 1 to 4).
 * Events, which bubble: `anchorline-filled`, `anchorline-submitted`, `anchorline-dry-run`.
 */

import { shadowOf } from "../dom";
import { mayCount } from "../capture-count";
import { type Connection, ServiceError, call, connectionOf, insistently, path } from "../service";
import { checkAttributes, isSetupError, warnOnce } from "../setup";
import { ENGLISH, type Words, wordsOf } from "../words";
import { FormBody } from "./body";
import type { ControlPlace } from "./controls";
import { type SlotContext, contextOf } from "./slot/context";
import { keptFocus } from "./focus";
import { FormFrame, type Marked } from "./frame";
import { type GivenInForm, asGiven } from "./given";
import { Guard } from "./guard";
import { LanguageSwitch } from "./language-switch";
import { wantedLanguages } from "./languages";
import { type Loaded, type Worked, today, workOut } from "./logic";
import type { FormDocument } from "./model";
import { EditedRecord } from "./record";
import { refused, markMissing } from "./refusal";
import { Remembered } from "./remembered";
import { Sending, type Sent, filledForm } from "./sending";
import { unlessStopped } from "./stopped";
import { formStyle } from "./style";
import { cannotBeShown, closed, loading, thanksFor } from "./instead";
import { bestLanguage, languagesOf, translated } from "./translated";
import { FormViews } from "./views";

const ATTRIBUTES = ["form", "access", "base", "draft", "dry-run", "record", "level", "count"];

export class FormElement extends HTMLElement {
  /** How to reach the service; set instead of `access` and `base` by a page that signs in. */
  connection: Connection | null = null;
  /** A form to show as it is, instead of asking for one: the one that is being made. */
  design: Loaded | null = null;
  /** Lets the person make a record of another form, where a link allows it. */
  makeRecord: ControlPlace["makeRecord"] = null;
  private loaded: Loaded | null = null;
  private document: FormDocument | null = null;
  private record: EditedRecord | null = null;
  private language = "";
  private words: Words = ENGLISH;
  private views: FormViews | null = null;
  private body: FormBody | null = null;
  private guard: Guard | null = null;
  private remembered: Remembered | null = null;
  private marked = "";
  private worked: Worked | null = null;
  private frame: FormFrame | null = null;
  private isGone = false;
  private sending = new Sending();

  connectedCallback(): void {
    if (this.isGone) {
      this.isGone = false;
      return void (this.loaded ? this.speak(this.language) : this.load());
    }
    if (shadowOf(this, formStyle).childNodes.length) return;
    checkAttributes(this, ATTRIBUTES);
    if (!this.key) warnOnce(this, "it needs “form”, the key of a form.");
    if (!this.connection && !this.hasAttribute("access")) warnOnce(this, "it needs “access”, a browser key of the service.");
    void this.load();
  }

  disconnectedCallback(): void {
    // Moved on the page it is connected again at once, and goes on.
    queueMicrotask(() => {
      if (this.isConnected || this.isGone) return;
      this.isGone = true;
      this.views?.leave();
      this.remembered?.leave();
    });
  }

  /** Loads the form anew; what was typed is gone. */
  async load(): Promise<void> {
    const root = shadowOf(this, formStyle);
    if (!this.design) root.replaceChildren(loading(this.words));
    this.views?.leave();
    this.views = null;
    try {
      const address = path`forms/${this.key}` + (this.hasAttribute("draft") ? "?draft=true" : "");
      this.loaded = this.design ?? (await insistently(() => call<Loaded>(connectionOf(this), address)));
      const { document, version } = this.loaded;
      // Who signed in may fill it all the same; a draft is tried, not filled.
      if (document.public?.closed && version && !this.connection) return root.replaceChildren(closed(document, this.words, this.level));
      const record = this.getAttribute("record");
      this.record = record ? await EditedRecord.open(connectionOf(this), record) : null;
      this.guard = new Guard(document);
      this.sending = new Sending();
      const languages = languagesOf(document);
      // A form in one language is read in it by everybody; of several, each reads the best.
      const best = languages.length > 1 ? bestLanguage(document, this.wanted) : (languages[0] ?? "en");
      await this.speak(languages.includes(this.language) ? this.language : best);
      if (this.views) this.record?.fill(this.views);
      this.workOut();
      this.remember();
    } catch (error) {
      // How the page is set up concerns who built it; the others can only try again.
      const isSetup = error instanceof ServiceError && isSetupError(this, error);
      root.replaceChildren(cannotBeShown(isSetup ? this.words.say("notSetUp") : error, this.words, () => void this.load()));
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

  /** What is given in the fields now, as formulas have it. */
  get given(): GivenInForm {
    return asGiven(this.worked, this.views?.addresses() ?? {});
  }

  private elementOf(key: string) { return this.shadowRoot?.querySelector(`[data-key="${CSS.escape(key)}"]`); }

  private get wanted(): string[] {
    return wantedLanguages(this.getAttribute("lang"), navigator.languages, document.documentElement.lang);
  }

  private get key(): string { return this.getAttribute("form") ?? ""; }
  private get level(): number { return Number(this.getAttribute("level") ?? "1"); }

  /** Speaks a language of the form; what was typed stays. */
  private async speak(language: string): Promise<void> {
    this.language = language;
    this.words = await wordsOf(language);
    if (this.isGone) return; // what follows is of now: people go on typing while the words come
    const typed = this.views?.values() ?? {};
    const slots = this.views?.memos() ?? {};
    const focusAgain = keptFocus(this.shadowRoot);
    this.views?.leave();
    this.views = this.body = null;
    this.show();
    (this.views as FormViews | null)?.restore(typed, slots);
    this.workOut();
    focusAgain();
  }

  private show(): void {
    if (!this.loaded) return;
    const document = translated(this.loaded.document, this.language);
    this.document = document;
    const isNew = !this.views;
    this.views ??= new FormViews(this.context(), this.level);
    this.body ??= new FormBody(this.words, this.level);
    const { views, body } = this;
    views.take(document);
    body.arrange(document, (item) => views.elementOf(item));
    if (isNew) this.build(body);
    this.frame?.entitle(document.title, document.intro);
    this.workOut();
    if (this.marked) this.elementOf(this.marked)?.classList.add("marked");
  }

  /** What stands around the fields. */
  private build(body: FormBody): void {
    const frame = new FormFrame(this.level);
    this.frame = frame;
    const languages = this.loaded ? languagesOf(this.loaded.document) : [];
    const choice = new LanguageSwitch(languages, this.language, this.words, (language) => void this.speak(language));
    const fields = { above: body.progress, fields: body.element, guard: this.guard?.element ?? null, choice: choice.element };
    const whole = frame.build(this.language, this.words, fields);
    whole.addEventListener("submit", (event) => {
      event.preventDefault();
      if (this.body?.isLast ?? true) void this.submit();
      else this.step(1);
    });
    frame.goBack.addEventListener("click", () => this.step(-1));
    shadowOf(this, formStyle).replaceChildren(whole);
  }

  private context(): SlotContext {
    const several = this.loaded ? languagesOf(this.loaded.document).length > 1 : false;
    return contextOf({
      form: this.key,
      draft: this.hasAttribute("draft"),
      counts: this.isFilledByAnybody && mayCount(this.getAttribute("count")),
      connection: connectionOf(this),
      languages: [...new Set(several ? [this.language, ...this.wanted] : this.wanted)].slice(0, 8),
      words: this.words,
      tiles: this.loaded?.tiles ?? null,
      makeRecord: this.makeRecord ?? null,
      changed: () => this.workOut(),
      isWritten: () => JSON.stringify(this.loaded?.logic).includes('"call":"ADDRESS'),
      emit: (name, detail) => this.emit(name, detail),
    });
  }

  /** Shows what is to be shown, marks what is needed, and works formulas out. */
  private workOut(): void {
    const { document, loaded, views, body } = this;
    if (!document || !loaded || !views || !body) return;
    const given = { values: views.values(), slots: views.addresses(), today: today() };
    const worked = unlessStopped(workOut(document, loaded.logic, given), this.worked, this.frame, this.words);
    this.worked = worked;
    views.show(worked);
    body.update(worked.shown);
    this.showSteps();
    this.remembered?.later(views, document);
  }

  /** Whether people fill it in earnest: it is no draft, no trial, and no record that is changed. */
  private get isFilledByAnybody(): boolean {
    return Boolean(this.loaded?.version) && !this.design && !this.record && !this.hasAttribute("dry-run") && !this.hasAttribute("draft");
  }

  /** Keeps what is typed over a reload, and offers what was typed before it. */
  private remember(): void {
    const { loaded, views, document, frame, words } = this;
    this.remembered = this.isFilledByAnybody && loaded ? new Remembered(connectionOf(this).base, this.key, loaded.version ?? 0) : null;
    if (!views || !document || !frame) return;
    this.remembered?.offer(frame, words, (kept) => {
      this.views?.restore(kept.values, kept.slots);
      this.workOut();
    });
  }

  private showSteps(): void {
    const { frame, body } = this;
    if (!frame) return;
    const isLast = body?.isLast ?? true;
    frame.goBack.hidden = body?.isFirst ?? true;
    const last = this.hasAttribute("dry-run") ? "trySending" : this.record ? "save" : "send";
    frame.goOn.textContent = this.words.say(isLast ? last : "next");
  }

  /** Goes on to the next step, if nothing that is needed is missing on this one, or back. */
  private step(by: 1 | -1): void {
    const { body, views } = this;
    if (!body || !views) return;
    this.frame?.calm();
    const missing = by === 1 ? markMissing(views, body.current, this.words) : [];
    if (missing.length) return this.say(this.words.say("attention", { count: missing.length }), missing);
    body.step(by);
    this.showSteps();
    body.focus();
  }

  private async submit(): Promise<void> {
    const { views, frame } = this;
    if (!frame || frame.goOn.disabled || !views) return;
    frame.goOn.disabled = true;
    // What was picked last is what is sent: its answer may still be on its way.
    await Promise.all([...views.slots.map((slot) => slot.settled()), this.guard?.settled()]);
    for (const one of views.inOrder()) one.setProblem(null);
    const dryRun = this.hasAttribute("dry-run");
    try {
      const body = filledForm(views, Boolean(this.document?.keeps_hidden), this.loaded?.version ?? null, this.language);
      const answer = this.record
        ? await this.record.save(connectionOf(this), body)
        : await this.sending.send(this.key, connectionOf(this), { body, guard: this.guard?.given ?? {} }, dryRun, () => frame.warn(this.words.say("sentAgain")));
      this.succeeded(answer, dryRun);
    } catch (error) {
      this.failed(error);
    } finally {
      frame.goOn.disabled = false;
    }
  }

  private succeeded(answer: Sent, dryRun: boolean): void {
    if (dryRun) {
      this.frame?.approve(this.words.say("nothingWrong"));
      return this.emit("dry-run", answer);
    }
    this.remembered?.end();
    const heading = new FormFrame(this.level).heading({ tabindex: "-1" }, this.document?.thanks || this.words.say("thanks"));
    this.views?.leave();
    const said = { heading, language: this.language, words: this.words, again: () => void this.load() };
    shadowOf(this, formStyle).replaceChildren(thanksFor(answer, said));
    heading.focus();
    this.emit("submitted", answer);
  }

  private failed(error: unknown): void {
    if (!this.views) return;
    const { sentence, marked } = refused(error, this.views, this.words);
    this.say(sentence, marked);
  }

  /** Says what is wrong above all, and goes to the first place. */
  private say(sentence: string, marked: Marked[]): void {
    this.frame?.warn(sentence, marked, (one) => this.goTo(one));
    const first = marked.find((one) => one.view.shown);
    if (first) this.goTo(first);
    else this.frame?.goOn.focus();
  }

  private goTo({ view }: Marked): void {
    this.body?.reveal(this.views?.itemOf(view) ?? "");
    this.showSteps();
    view.focus();
  }

  private emit(name: string, detail: unknown): void {
    this.dispatchEvent(new CustomEvent(`anchorline-${name}`, { detail, bubbles: true, composed: true }));
  }
}
