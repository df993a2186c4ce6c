import { expect, test } from "@jest/globals";
import { type BoardJob, jobsShown } from "./boardJob";

const job = (id: number, own: Partial<BoardJob>): BoardJob => ({
  id,
  label: "quay van 1",
  model: "Harrow Whimbrel van",
  words: "",
  group: "to-test",
  line: null,
  came: `2026-11-2${id}T08:00:00.000Z`,
  age: "",
  promised: null,
  promise: null,
  late: false,
  comebackOf: null,
  ...own,
});
const jobs = [
  job(1, { words: "Weak on 1" }),
  job(2, { label: "harbour truck 1", model: "Tarnwick Dunlin truck", promised: "2026-11-24T16:00" }),
  job(3, { promised: "2026-11-24T09:00", line: "Next test: look at X5" }),
];
const ids = (query: string, order: Parameters<typeof jobsShown>[2]) =>
  jobsShown(jobs, query, order).map(({ id }) => id);

test("what is promised earliest stands first, then what came first", () => {
  expect(ids("", "promised")).toEqual([3, 2, 1]);
  expect(ids("", "oldest")).toEqual([1, 2, 3]);
  expect(ids("", "newest")).toEqual([3, 2, 1]);
  expect(ids("", "vehicle")).toEqual([2, 1, 3]);
});

test("the search takes the vehicle, the complaint, the next step and the number", () => {
  expect(ids("truck", "oldest")).toEqual([2]);
  expect(ids("weak whimbrel", "oldest")).toEqual([1]);
  expect(ids("x5", "oldest")).toEqual([3]);
  expect(ids("job 2", "oldest")).toEqual([2]);
  expect(ids("nothing of it", "oldest")).toEqual([]);
});
