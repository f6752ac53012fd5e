/** Which country a slot begins with. */

/**
 * The form's own setting, else the first country among those offered that the browser's languages
 * point to (`fr-BE` to Belgium, `ja` to Japan), else the first one offered.
 */
export function firstCountry(
  offered: readonly string[],
  setting: string | null | undefined,
  languages: readonly string[],
): string {
  if (setting) return setting;
  const guessed = languages.map(regionOf).find((code) => code !== null && offered.includes(code));
  return guessed ?? offered[0] ?? "";
}

function regionOf(language: string): string | null {
  try {
    return new Intl.Locale(language).maximize().region ?? null;
  } catch {
    return null; // a browser may name a language that is no tag
  }
}
