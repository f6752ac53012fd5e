/** What a page asks for when it attaches a target, and what is wrong with that. */

/** What is asked for, by a line of HTML or by a program. */
export interface Asked {
  target: string;
  key: string;
  base?: string;
}

/** How each is called where it is asked for: an attribute of a script, or an option. */
type Called = Record<keyof Asked, string>;

/**
 * What cannot work, each with its remedy; the service is not asked then.
 *
 * Args:
 *   page: the address of the page.
 */
export function faultsOf({ target, key, base }: Partial<Asked>, called: Called, page: Location = location): string[] {
  const faults: string[] = [];
  if (!target) faults.push(`it needs ${called.target}, the key of a published target.`);
  if (!key) faults.push(`it needs ${called.key}, a browser key of the service.`);
  else if (key.startsWith("anl_server_")) {
    faults.push(`${called.key} is a server key, and everybody can read it here: end it, and put a browser key there.`);
  } else if (!/^anl_browser_\w+_[\w-]+$/.test(key)) {
    faults.push(`${called.key} is no browser key: it begins with anl_browser_ and has four parts. Copy it whole.`);
  }
  if (base !== undefined) faults.push(...baseFaults(base, called.base, page));
  return faults;
}

function baseFaults(base: string, name: string, page: Location): string[] {
  let url: URL;
  try {
    url = new URL(base);
  } catch {
    return [`${name} “${base}” is no web address: write https://anchorline.example, without a path.`];
  }
  if (url.protocol !== "https:" && url.protocol !== "http:") return [`${name} “${base}” is no web address: it begins with https:// or http://.`];
  if (url.pathname !== "/" || url.search) return [`${name} “${base}” is more than the service's address: write ${url.origin}.`];
  if (url.protocol === "http:" && page.protocol === "https:" && !/^(localhost|127\.|\[::1\])/.test(url.hostname)) {
    return [`${name} is http, and this page is https: browsers allow no such call. Reach the service by https.`];
  }
  return [];
}
