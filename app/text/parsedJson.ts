/** The value of a JSON text; undefined where it is none. */
export const parsedJson = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
};
