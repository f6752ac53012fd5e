/** In which languages labels are wanted. */

/**
 * Languages in order: the element's own `lang`, those of the browser, that of the page.
 *
 * The service takes the first that a country's layout has labels in.
 */
export function wantedLanguages(
  own: string | null,
  browser: readonly string[],
  page: string,
): string[] {
  const given = [own ?? "", ...browser, page, "en"];
  return [...new Set(given.map((tag) => tag.trim()).filter(Boolean))].slice(0, 8);
}
