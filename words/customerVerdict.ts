import type { Diagnosis } from "@core/diagnose/diagnose";
import { percent } from "@core/units/wording";

/**
 * A verdict for somebody who does not know the names, with what was tested and how sure it is.
 * @param plain what is wrong, in plain words and the past tense, as a sentence
 */
export function customerVerdict({ state, p, proof }: Diagnosis["verdict"], plain: string): string {
  if (state === "settled")
    return `${plain} We measured it rather than guess: ${proof.have.length === 1 ? "one reading proves" : `${proof.have.length} readings prove`} it.`;
  if (state === "best-guess")
    return `This is our best guess, about ${percent(p)} sure: ${lowered(plain)} No test we can do without fitting parts would make it surer.`;
  return `We are still testing. So far the likeliest cause is this, about ${percent(p)} sure: ${lowered(plain)}`;
}

const lowered = (sentence: string): string => sentence.charAt(0).toLowerCase() + sentence.slice(1);
