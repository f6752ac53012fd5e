/** The word that an administrator has chosen for finding practice addresses. */

/** What is typed behind the word for practice addresses; null where it is not typed. */
export function practiceText(text: string, word: string | null): string | null {
  const typed = text.trimStart();
  if (!word || typed.slice(0, word.length).toLowerCase() !== word.toLowerCase()) return null;
  const rest = typed.slice(word.length);
  return /^\s/.test(rest) ? rest.trim() : null;
}
