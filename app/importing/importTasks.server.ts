import { readFileSync } from "node:fs";
import { problemText } from "@core/problem/problem";
import { RecordStaging } from "@db/importing/recordStaging.server";
import { lookInto } from "@db/keeping/candidate.server";
import { bringIn } from "@db/keeping/incoming.server";
import { readBundle } from "../shelf/readBundle.server";
import type { DoTask, ImportTaskName } from "./importTask";
import { readRecordsFile } from "./recordsFile.server";

const readRecords: DoTask<"readRecords"> = async ({ file, staging: path, shop }, onShare) => {
  const fresh = await RecordStaging.create(path);
  const read = await readRecordsFile(file, async (records, share) => {
    await fresh.add(records);
    onShare(share);
  }).finally(() => fresh.close());
  if (!read.ok) return { problems: read.problems.map(problemText) };
  return { answer: await RecordStaging.use(path, shop, (staging) => staging.weigh()) };
};

const writeRecords: DoTask<"writeRecords"> = async ({ staging: path, shop, after }) => ({
  answer: await RecordStaging.use(path, shop, (staging) => staging.writeBatch(after, new Date())),
});

const readShop: DoTask<"readShop"> = async ({ file }) => {
  const brought = await bringIn(file);
  return "problems" in brought ? brought : { answer: brought.finding };
};

const lookIntoFile: DoTask<"lookInto"> = async ({ file }) => ({ answer: await lookInto(file) });

const readShelf: DoTask<"readShelf"> = ({ file }) => {
  const read = readBundle(readFileSync(file));
  return Promise.resolve("problems" in read ? read : { answer: read.value });
};

/** The function for each task, in whichever process. */
export const importTasks: { readonly [Name in ImportTaskName]: DoTask<Name> } = {
  readRecords,
  writeRecords,
  readShop,
  lookInto: lookIntoFile,
  readShelf,
};
