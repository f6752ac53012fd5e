import "@angular/compiler";
import { provideZonelessChangeDetection } from "@angular/core";
import { bootstrapApplication } from "@angular/platform-browser";
import { Checkout } from "../../../docs/examples/checkout-angular.js";

const app = bootstrapApplication(Checkout, { providers: [provideZonelessChangeDetection()] });
window.leave = async () => (await app).destroy();
