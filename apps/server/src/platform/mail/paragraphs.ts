/** The text of a mail: its paragraphs, less empty ones, with a blank line between them. */
export function paragraphs(parts: readonly string[]): string {
  return `${parts.filter((part) => part !== '').join('\n\n')}\n`;
}
