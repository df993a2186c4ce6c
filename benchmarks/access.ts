// npm run bench access: the quickest route through random plans of 300 steps; milliseconds per plan.
import type { AccessPlan, AccessStep } from "@core/access/plan";
import { quickestRoute } from "@core/access/route";
import { type Chance, chanceFrom } from "@core/chance/chance";

const count = 300;
const plans = Number(process.env.AIRWAY_PLANS ?? 200);

interface Shape {
  readonly title: string;
  /** How far back a need may refer. */
  readonly span: number;
  readonly alternatives: readonly number[];
  readonly together: readonly number[];
  readonly targets: number;
}

/** A vehicle's plan has few alternatives and short chains; the last case is worse than any vehicle. */
const shapes: readonly Shape[] = [
  {
    title: "two ways to one step in ten",
    span: 40,
    alternatives: [9, 1, 0],
    together: [6, 2, 1],
    targets: 4,
  },
  {
    title: "two ways to one step in five",
    span: 40,
    alternatives: [4, 1, 0],
    together: [6, 2, 1],
    targets: 4,
  },
  {
    title: "two ways to every other step",
    span: 40,
    alternatives: [1, 1, 0],
    together: [6, 1, 0],
    targets: 3,
  },
];

function drawnPlan({ span, alternatives, together, targets }: Shape, chance: Chance): AccessPlan {
  const steps = Array.from({ length: count }, (_, i): AccessStep => {
    const before = (): string => `s${i - 1 - Math.floor(chance.uniform() * Math.min(i, span))}`;
    const ways = i < 12 ? 0 : 1 + chance.weighted(alternatives);
    return {
      id: `s${i}`,
      title: `step ${i}`,
      minutes: Math.round(chance.logBetween(0.3, 12) * 10) / 10,
      needs: Array.from({ length: ways }, () =>
        Array.from({ length: 1 + chance.weighted(together) }, before),
      ),
    };
  });
  const target = (): string => `s${count - 1 - Math.floor(chance.uniform() * 60)}`;
  return {
    format: "airway-plan",
    version: 1,
    id: "drawn",
    steps,
    targets: Object.fromEntries(Array.from({ length: targets }, (_, i) => [`P${i}`, [[target()]]])),
  };
}

for (const shape of shapes) {
  const times: number[] = [];
  let tooMany = 0;
  for (let seed = 1; seed <= plans; seed++) {
    const plan = drawnPlan(shape, chanceFrom(seed));
    const started = performance.now();
    const route = quickestRoute(plan, Object.keys(plan.targets));
    times.push(performance.now() - started);
    if (!route.ok) tooMany += 1;
  }
  times.sort((a, b) => a - b);
  const at = (share: number): string =>
    (times[Math.min(plans - 1, Math.floor(share * plans))] ?? 0).toFixed(1);
  process.stdout.write(
    `${shape.title}: ${count} steps, ${plans} plans, ms: median ${at(0.5)}, 95th ${at(0.95)}, worst ${at(1)}; given up ${tooMany}\n`,
  );
}
