/** Types of `attach`. */
export * from "./types/attach";
