import { expect, test } from "@jest/globals";
import {
  causeSentence,
  faultSentence,
  minutesSentence,
  moneySentence,
  oddsSentence,
} from "./figureSentences";

test("each picture's sentence says what its figures say", () => {
  expect(
    faultSentence([
      { words: "thermal link open", kinds: 1, counts: [2, 3] },
      { words: "motor open", kinds: 1, counts: [1, 0] },
      { words: "4 others", kinds: 4, counts: [6, 0] },
    ]),
  ).toBe("The fault found most often is: thermal link open, in 5 of 12 jobs.");
  // Two jobs of 4 and 10 minutes, three of 6 and 15: weighted by jobs 5.2 and 13 minutes.
  expect(
    minutesSentence([
      { minutesThere: 4, chartMinutes: 10, chartJobs: 2 },
      { minutesThere: 6, chartMinutes: 15, chartJobs: 3 },
      { minutesThere: 90, chartMinutes: null, chartJobs: 0 },
    ]),
  ).toBe("On 5 jobs a verdict took 5 min on average; a fixed test order would have taken 13 min.");
  expect(
    oddsSentence({
      trials: 10,
      bins: [
        { said: 0.9, hits: 7, trials: 8 },
        { said: 0.5, hits: 1, trials: 2 },
      ],
    }),
  ).toBe("8 of 10 verdicts held (80 %); on average they said 82 %.");
  expect(
    causeSentence([
      { cause: "found", jobs: 9, comebacks: 1 },
      { cause: "not-found", jobs: 4, comebacks: 2 },
    ]),
  ).toBe("With the root cause found 1 of 9 jobs came back, without it 2 of 4.");
  const months = [
    { month: "2026-09", jobs: 2, total: 100 },
    { month: "2026-10", jobs: 3, total: 300 },
    { month: "2026-11", jobs: 1, total: 250 },
  ];
  expect(moneySentence(months, String)).toBe(
    "2026-11: 250 billed on 1 job; the months before brought 200 on average.",
  );
});

test("without figures a sentence says so", () => {
  expect(faultSentence([])).toBe("No closed job counts here yet.");
  expect(minutesSentence([])).toBe("No closed job counts here yet.");
  expect(oddsSentence({ trials: 0, bins: [] })).toBe("No verdict has an outcome yet.");
  expect(causeSentence([])).toBe("There are too few jobs to compare.");
  expect(moneySentence([], String)).toBe("No closed job counts here yet.");
});
