import { guardedCell } from "@core/formats/recordFile";
import Papa from "papaparse";
import type { Progress } from "./progress.server";

/** A learner's lessons and cases as comma-separated text, one line each. */
export function progressCsv({
  learner,
  lessons,
  cases,
}: Pick<Progress, "learner" | "lessons" | "cases">): string {
  const cells = (...own: (string | number)[]): string[] => own.map((cell) => guardedCell(String(cell)));
  return Papa.unparse(
    {
      fields: [
        "learner",
        "what",
        "title",
        "state",
        "right",
        "asked",
        "began",
        "minutes",
        "money",
        "comebacks",
      ],
      data: [
        ...lessons.map(({ title, done, right, answered }) =>
          cells(
            learner,
            "lesson",
            title,
            done ? "done" : answered > 0 ? "begun" : "new",
            right,
            answered,
            "",
            "",
            "",
            "",
          ),
        ),
        ...cases.map(({ title, over, began, minutes, money, comebacks }) =>
          cells(learner, "case", title, over ?? "standing", "", "", began, minutes, money, comebacks),
        ),
      ],
    },
    { newline: "\r\n" },
  );
}
