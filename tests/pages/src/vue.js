import { createApp, reactive, watchEffect } from "vue";
import { COUNTRIES, EMPTY, hold, submit } from "./shop";

createApp({
  setup() {
    const values = reactive({ ...EMPTY });
    watchEffect(() => hold(values));
    return { values, countries: COUNTRIES, send: () => submit(values) };
  },
  template: `
    <form @submit.prevent="send">
      <label>Street <input name="ship_street" v-model.trim="values.ship_street"></label>
      <label>Town <input name="ship_town" v-model="values.ship_town"></label>
      <label>Postcode <input name="ship_postcode" maxlength="10" v-model.lazy="values.ship_postcode"></label>
      <label>Country
        <select name="ship_country" v-model="values.ship_country">
          <option value="">Choose</option>
          <option v-for="one in countries" :key="one.value" :value="one.value">{{ one.text }}</option>
        </select>
      </label>
      <label>Delivery note <input name="note" v-model="values.note"></label>
      <button type="submit">Order</button>
    </form>`,
}).mount("#app");
