// Vue: the page owns its inputs as ever; the target is attached while the component is there.
import { onMounted, onUnmounted, reactive } from "vue";
import { attach } from "https://anchorline.example/embed/attach.js";

export const Checkout = {
  setup() {
    const order = reactive({ ship_street: "", ship_town: "", ship_postcode: "", ship_country: "" });
    let attachment;
    onMounted(() => (attachment = attach({ target: "checkout", key: "anl_browser_…" })));
    onUnmounted(() => attachment.detach());
    return { order };
  },
  template: `
    <form>
      <label>Street <input name="ship_street" v-model="order.ship_street"></label>
      <label>Town <input name="ship_town" v-model="order.ship_town"></label>
      <label>Postcode <input name="ship_postcode" v-model="order.ship_postcode"></label>
      <label>Country
        <select name="ship_country" v-model="order.ship_country">
          <option value="">Choose</option><option value="DE">Germany</option><option value="GB">United Kingdom</option>
        </select>
      </label>
      <output>{{ JSON.stringify(order) }}</output>
    </form>`,
};
