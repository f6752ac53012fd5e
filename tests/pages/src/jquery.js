import $ from "jquery";
import Inputmask from "inputmask";
import { COUNTRIES, EMPTY, hold, submit } from "./shop";

const form = $(`<form>
  <label>Street <input name="ship_street"></label>
  <label>Town <input name="ship_town"></label>
  <label>Postcode <input name="ship_postcode"></label>
  <label>Country <select name="ship_country"><option value="">Choose</option></select></label>
  <label>Delivery note <input name="note"></label>
  <button type="submit">Order</button>
</form>`).appendTo("#app");
for (const { value, text } of COUNTRIES) $("<option>").val(value).text(text).appendTo(form.find("select"));
Inputmask({ mask: "AA9 9AA", placeholder: "_" }).mask(form.find("[name=ship_postcode]")[0]);

const values = { ...EMPTY };
hold(values);
form.on("input change", "input, select", (event) => {
  values[event.target.name] = event.target.value;
  hold(values);
});
form.on("submit", (event) => {
  event.preventDefault();
  submit(values);
});
