import { LitElement, css, html } from "lit";
import { live } from "lit/directives/live.js";
import { COUNTRIES, EMPTY, hold, submit } from "./shop";

/** A form in an open shadow root, whose inputs show what its state says and nothing else. */
class Checkout extends LitElement {
  static properties = { values: { state: true } };
  static styles = css`label { display: block; }`;

  constructor() {
    super();
    this.values = { ...EMPTY };
    hold(this.values);
  }

  keep({ target }) {
    this.values = { ...this.values, [target.name]: target.value };
    hold(this.values);
  }

  send(event) {
    event.preventDefault();
    submit(this.values);
  }

  input(name, label) {
    return html`<label>${label} <input name=${name} .value=${live(this.values[name])} @input=${this.keep}></label>`;
  }

  render() {
    return html`<form @submit=${this.send}>
      ${this.input("ship_street", "Street")} ${this.input("ship_town", "Town")} ${this.input("ship_postcode", "Postcode")}
      <label>Country
        <select name="ship_country" @change=${this.keep}>
          <option value="">Choose</option>
          ${COUNTRIES.map(({ value, text }) => html`<option value=${value} ?selected=${value === this.values.ship_country}>${text}</option>`)}
        </select>
      </label>
      ${this.input("note", "Delivery note")}
      <button type="submit">Order</button>
    </form>`;
  }
}

customElements.define("shop-checkout", Checkout);
