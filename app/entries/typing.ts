/** So long no key was pressed in a field: the figure may be whole. A hand on a keypad needs twice as long for the next. */
export const pauseMilliseconds = 60;

/** What a form would send if it were sent as it is filled in. */
export const fieldsOf = (form: HTMLFormElement, submitter?: HTMLElement | null): Record<string, string> =>
  Object.fromEntries(
    [...new FormData(form, submitter)].flatMap(([name, value]) =>
      typeof value === "string" ? [[name, value] as const] : [],
    ),
  );

/** Tells of what is being typed, once the hand pauses; only of the last of several keys. */
export class Typing {
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly tell: (fields: Readonly<Record<string, string>>) => void) {}

  /** @param fields read when the hand pauses, since they change until then */
  key(fields: () => Readonly<Record<string, string>>): void {
    this.stop();
    this.timer = setTimeout(() => this.tell(fields()), pauseMilliseconds);
  }

  /** What was typed is entered or left: there is nothing more to tell. */
  stop(): void {
    clearTimeout(this.timer);
  }
}
