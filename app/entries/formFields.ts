/** The text fields of a form as it is filled in, by name. */
export const fieldsOf = (form: HTMLFormElement, submitter?: HTMLElement | null): Record<string, string> =>
  Object.fromEntries(
    [...new FormData(form, submitter)].flatMap(([name, value]) =>
      typeof value === "string" ? [[name, value] as const] : [],
    ),
  );
