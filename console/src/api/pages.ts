/** Lists that come page by page. */

import { call } from "./call";

/** The first page of a list, with the entries of all pages. */
export async function wholeList<Page extends object>(path: string, name: keyof Page): Promise<Page> {
  const first = await call<Page>(`${path}?limit=500`);
  const entries = [...(first[name] as unknown[])];
  let after = afterOf(first);
  while (after !== null) {
    const page: Page = await call(`${path}?limit=500&after=${encodeURIComponent(after)}`);
    entries.push(...(page[name] as unknown[]));
    after = afterOf(page);
  }
  return { ...first, [name]: entries, after: null };
}

/** All entries of a list, however many pages it has. */
export async function everyPage<Entry>(path: string, name: string): Promise<Entry[]> {
  return (await wholeList<Record<string, Entry[]>>(path, name))[name] ?? [];
}

function afterOf(page: object): string | null {
  return (page as { after?: string | null }).after ?? null;
}
