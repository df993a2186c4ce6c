import type { SeenCar } from "@core/wiring/seenCar";

/** What is seen of a vehicle, in words: `dial, 4 speeds, resistor pack, two blowers`. */
export function seenCarText({ controls, speeds, speedPart, blowers, steering }: SeenCar): string {
  const told = [
    controls === "dial" ? "dial or lever" : controls,
    speeds === undefined ? "" : `${speeds} ${speeds === 1 ? "speed" : "speeds"}`,
    speedPart === "pack"
      ? "resistor pack"
      : speedPart === "module"
        ? "control module"
        : "speed part not seen yet",
    blowers === 2 ? "two blowers" : "",
    steering ? `steering on the ${steering}` : "",
  ];
  return told.filter(Boolean).join(", ");
}
