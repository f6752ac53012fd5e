/** Types of the custom elements and their events. */
export * from "./types/index";
