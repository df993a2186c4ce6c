import type { PlaceReading } from "../wiring/placeReading";

/** What a customer tells of each speed of a vehicle without a diagram, the slowest speed first. */
export const placeComplaint = (speeds: readonly ("none" | "weak" | "normal" | "strong")[]): PlaceReading[] =>
  speeds.map((seen, at) => ({ test: "airflow", heard: true, key: "run", setting: String(at + 1), seen }));
