/** What a difference between the old part and the new means. */
export type Judgement = "harmless" | "adaptable" | "wrong";

/** One difference, judged, with the reason; adaptable ones with the work. */
export interface PartDifference {
  /** Which feature differs; an override is kept under it. */
  readonly feature: string;
  readonly old: string;
  readonly fresh: string;
  readonly judgement: Judgement;
  readonly because: string;
  readonly work: { readonly title: string; readonly minutes: number } | null;
}

/** A difference that can be accepted as it is. */
export const harmless = (feature: string, old: string, fresh: string, because: string): PartDifference => ({
  feature,
  old,
  fresh,
  judgement: "harmless",
  because,
  work: null,
});

/** A difference that sends the part back. */
export const wrong = (feature: string, old: string, fresh: string, because: string): PartDifference => ({
  feature,
  old,
  fresh,
  judgement: "wrong",
  because,
  work: null,
});

/** A difference that some work makes good, in minutes. */
export const adaptable = (
  feature: string,
  old: string,
  fresh: string,
  because: string,
  title: string,
  minutes: number,
): PartDifference => ({
  feature,
  old,
  fresh,
  judgement: "adaptable",
  because,
  work: { title, minutes },
});
