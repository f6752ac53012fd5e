// Angular: the page owns its inputs as ever; the target is attached while the component is there.
import { JsonPipe } from "@angular/common";
import { Component } from "@angular/core";
import { FormControl, FormGroup, ReactiveFormsModule } from "@angular/forms";
import { attach } from "https://anchorline.example/embed/attach.js";

export class Checkout {
  order = new FormGroup({ ship_street: new FormControl(""), ship_town: new FormControl(""), ship_postcode: new FormControl(""), ship_country: new FormControl("") });

  ngAfterViewInit() {
    this.attachment = attach({ target: "checkout", key: "anl_browser_…" });
  }

  ngOnDestroy() {
    this.attachment.detach();
  }
}

// With TypeScript: @Component({ … }) above the class.
Component({
  selector: "shop-checkout",
  imports: [ReactiveFormsModule, JsonPipe],
  template: `
    <form [formGroup]="order">
      <label>Street <input name="ship_street" formControlName="ship_street"></label>
      <label>Town <input name="ship_town" formControlName="ship_town"></label>
      <label>Postcode <input name="ship_postcode" formControlName="ship_postcode"></label>
      <label>Country
        <select name="ship_country" formControlName="ship_country">
          <option value="">Choose</option><option value="DE">Germany</option><option value="GB">United Kingdom</option>
        </select>
      </label>
      <output>{{ order.value | json }}</output>
    </form>`,
})(Checkout);
