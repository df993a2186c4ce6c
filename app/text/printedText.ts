/** A text for a PDF: the font has no omega, which would print as an empty box. */
export const printedText = (text: string): string => text.replaceAll("Ω", "ohm");
