/** Numbers as people type them: the one grammar of every field that takes a figure. */

const NUMBER = /^[+-]?(\d+\.?\d*|\.\d+)$/;

/**
 * Reads a number such as `62.5`, `62,5`, `+3` or `−4`: point and comma are both the decimal sign. Null for anything else; a text
 * with both, as in `1.234,5`, is no number, so that nothing becomes a thousand times larger in silence.
 */
export function parseNumber(text: string): number | null {
  const bare = text.trim().replace(/^[−–]/, "-").replace(",", ".");
  return NUMBER.test(bare) ? Number(bare) : null;
}
