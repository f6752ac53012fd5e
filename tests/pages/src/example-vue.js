import { createApp } from "vue";
import { Checkout } from "../../../docs/examples/checkout-vue.js";

const app = createApp(Checkout);
app.mount("#app");
window.leave = () => app.unmount();
