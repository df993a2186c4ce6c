const fields = new Set(["INPUT", "TEXTAREA", "SELECT"]);

/** Whether a key belongs to a field or a dialog, so that the page's own keys must leave it alone. */
export function isTyping({ target }: KeyboardEvent): boolean {
  const at = target as HTMLElement;
  return fields.has(at.tagName) || at.closest("[role=dialog]") !== null;
}
