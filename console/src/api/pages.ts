/** Lists that come page by page. */

import { call } from "./call";

/** All entries of a list, however many pages it has. */
export async function everyPage<Entry>(path: string, name: string): Promise<Entry[]> {
  const found: Entry[] = [];
  let after: string | null = null;
  do {
    const query = after === null ? "" : `&after=${encodeURIComponent(after)}`;
    const page: Record<string, unknown> = await call(`${path}?limit=500${query}`);
    found.push(...(page[name] as Entry[]));
    after = page.after as string | null;
  } while (after !== null);
  return found;
}
