import { setImmediate as nextTurn } from "node:timers/promises";
import { expect, test } from "@jest/globals";
import { JoinedChunks } from "./joinedChunks.server";

test("what is written in one turn comes out as one piece, later writes as another, and nothing is lost", async () => {
  const joined = new JoinedChunks();
  const pieces: string[] = [];
  joined.on("data", (chunk: Buffer) => pieces.push(chunk.toString()));
  for (const word of ["one ", "two ", "three"]) joined.write(word);
  await nextTurn();
  await nextTurn();
  joined.write("four");
  joined.end(" five");
  await new Promise((resolve) => joined.once("end", resolve));
  expect(pieces).toEqual(["one two three", "four five"]);
});
