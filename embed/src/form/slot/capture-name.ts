/** Names one capture: within it an address that is fetched again counts once. */
export function captureName(): string {
  return `c${Array.from(crypto.getRandomValues(new Uint8Array(12)), (byte) => byte.toString(16).padStart(2, "0")).join("")}`;
}
