import { Link } from "react-router";
import { everyWord } from "../find/everyWord";

interface Known {
  readonly id: string | number;
  readonly name: string;
}

interface KnownVehiclesProps {
  /** What was typed so far. */
  readonly name: string;
  readonly vehicles: readonly Known[];
  readonly circuits: readonly Known[];
}

const leastTyped = 2;
const mostShown = 4;

/** Vehicles and circuits the shop already knows under the name being typed: with their diagram the job is shorter. */
export function KnownVehicles({ name, vehicles, circuits }: KnownVehiclesProps) {
  if (name.trim().length < leastTyped) return null;
  const matches = everyWord(name);
  const found = [
    ...vehicles.map((own) => ({ ...own, to: `/jobs/new?vehicle=${own.id}`, kind: "vehicle" })),
    ...circuits.map((own) => ({ ...own, to: `/jobs/new?circuit=${own.id}`, kind: "circuit" })),
  ]
    .filter((own) => matches(own.name))
    .slice(0, mostShown);
  if (found.length === 0) return null;
  return (
    <div role="status" className="text-base">
      <p>The shop has a diagram of:</p>
      <ul>
        {found.map(({ id, name: own, to, kind }) => (
          <li key={`${kind} ${id}`} className="flex flex-wrap items-center gap-x-2">
            <Link to={to} className="inline-flex min-h-11 items-center underline">
              {own}
            </Link>
            {kind === "circuit" && <span className="text-soft">(circuit)</span>}
          </li>
        ))}
      </ul>
    </div>
  );
}
