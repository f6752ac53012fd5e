/** What is wrong with how a page is attached, said to whoever builds it: once each, with the remedy. */

const said = new Set<string>();

export type Say = (text: string) => void;

/** Says things of one target on the developer console. */
export function sayer(target: string): Say {
  return (text) => {
    const message = `Anchorline, target “${target}”: ${text}`;
    if (said.has(message)) return;
    said.add(message);
    console.warn(message);
  };
}
