import "@angular/compiler";
import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection } from "@angular/core";
import { FormControl, FormGroup, ReactiveFormsModule } from "@angular/forms";
import { bootstrapApplication } from "@angular/platform-browser";
import { COUNTRIES, EMPTY, hold, submit } from "./shop";

class CheckoutForm {
  countries = COUNTRIES;
  form = new FormGroup(Object.fromEntries(Object.keys(EMPTY).map((name) => [name, new FormControl("")])));

  constructor() {
    hold(this.form.value);
    this.form.valueChanges.subscribe(hold);
  }

  send() {
    submit(this.form.value);
  }
}

const Checkout = Component({
  selector: "shop-checkout",
  imports: [ReactiveFormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form [formGroup]="form" (ngSubmit)="send()">
      <label>Street <input name="ship_street" formControlName="ship_street"></label>
      <label>Town <input name="ship_town" formControlName="ship_town"></label>
      <label>Postcode <input name="ship_postcode" maxlength="10" formControlName="ship_postcode"></label>
      <label>Country
        <select name="ship_country" formControlName="ship_country">
          <option value="">Choose</option>
          @for (one of countries; track one.value) {<option [value]="one.value">{{ one.text }}</option>}
        </select>
      </label>
      <label>Delivery note <input name="note" formControlName="note"></label>
      <button type="submit">Order</button>
    </form>`,
})(CheckoutForm) ?? CheckoutForm;

void bootstrapApplication(Checkout, { providers: [provideZonelessChangeDetection()] });
