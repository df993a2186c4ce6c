/** The value of a JSON text; undefined if it is not JSON. */
export const parsedJson = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
};
