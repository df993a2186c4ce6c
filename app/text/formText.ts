/** The text fields of a form that was sent, by name; files are left out. */
export const textFields = (form: FormData): Record<string, string> =>
  Object.fromEntries(
    [...form].flatMap(([name, value]) => (typeof value === "string" ? [[name, value] as const] : [])),
  );
