const fields = new Set(["INPUT", "TEXTAREA", "SELECT"]);
/** Kinds of input that are chosen and not typed into. */
const chosen = new Set(["radio", "checkbox"]);

/** Whether a key belongs to a field or a dialog, so that the page's own keys must leave it alone. */
export function isTyping({ target }: KeyboardEvent): boolean {
  const at = target as HTMLElement;
  const isChoice = at instanceof HTMLInputElement && chosen.has(at.type);
  return (fields.has(at.tagName) && !isChoice) || at.closest("[role=dialog]") !== null;
}
