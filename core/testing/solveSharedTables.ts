// Solves the tables of every shipped circuit before a whole run of the unit tests. It runs outside Jest, where numeric
// code is faster. Several of these run side by side: `solveSharedTables PLACE OF`.
import { shippedEngine, shippedIds } from "./shippedCircuit";

const [place, of] = process.argv.slice(2).map(Number) as [number, number];
for (const id of shippedIds.filter((_, index) => index % of === place)) shippedEngine(id);
