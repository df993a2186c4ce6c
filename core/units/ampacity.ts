/**
 * Amps a single copper wire in air can carry continuously at 30 °C, by cross-section: the continuous ratings of
 * automotive handbooks (from memory, after VDE 0298-4; not looked up again).
 */
const ratings: readonly (readonly [mm2: number, amps: number])[] = [
  [0.35, 9],
  [0.5, 11],
  [0.75, 14],
  [1, 19],
  [1.5, 24],
  [2.5, 32],
  [4, 42],
  [6, 54],
  [10, 73],
  [16, 98],
  [25, 129],
  [35, 158],
];

/**
 * Amps a wire of a given cross-section can carry continuously; between the table's rows by a power law through them.
 */
export function ampacity(mm2: number): number {
  const above = ratings.findIndex(([size]) => size >= mm2);
  const high = ratings[above < 1 ? (above === 0 ? 1 : ratings.length - 1) : above] as readonly [
    number,
    number,
  ];
  const low = ratings[ratings.indexOf(high) - 1] as readonly [number, number];
  const slope = Math.log(high[1] / low[1]) / Math.log(high[0] / low[0]);
  return low[1] * (mm2 / low[0]) ** slope;
}
