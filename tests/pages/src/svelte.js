import { mount } from "svelte";
import Checkout from "./Checkout.svelte";

mount(Checkout, { target: document.getElementById("app") });
