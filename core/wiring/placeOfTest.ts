import type { Test } from "../predict/reading";
import type { Candidate } from "./candidate";
import type { Meanings } from "./meaning";
import { isPlug, type Place, type PlugPlace, partPlaces, plugPlaces } from "./place";
import type { PlaceTest } from "./placeTest";
import { labelOf } from "./placeTest";

/** A point of a candidate as it is found on the vehicle. */
type Found =
  | { readonly kind: "pin"; readonly place: PlugPlace; readonly point: string }
  | { readonly kind: "fuse" }
  | { readonly kind: "post"; readonly post: "ground" | "feed" };

function found({ plugs, fuses }: Candidate, point: string): Found | null {
  if (point === "G1.+") return { kind: "post", post: "feed" };
  if (point === "G1.-") return { kind: "post", post: "ground" };
  if (fuses.some((fuse) => point === `${fuse}.in` || point === `${fuse}.out`)) return { kind: "fuse" };
  for (const [place, { pins }] of plugs)
    if (pins.some((pin) => pin.point === point || pin.terminal === point))
      return { kind: "pin", place, point };
  return null;
}

/** The place of a part, or of the plug on it. */
function placeOf({ parts, plugs }: Candidate, id: string): Place | null {
  for (const place of partPlaces) if (parts.get(place) === id) return place;
  for (const [place, { connector }] of plugs) if (connector === id) return place;
  return null;
}

/**
 * A test of a candidate's circuit as it is taken on the vehicle; null if nobody could take it there without knowing
 * more.
 */
export function placeTestFor(candidate: Candidate, meanings: Meanings, test: Test): PlaceTest | null {
  const { key, engine, setting } = test;
  const setup = Object.fromEntries(
    Object.entries({ key, engine, setting }).filter(([, value]) => value !== undefined),
  );
  const made = testOn(candidate, meanings, test);
  return made && { ...setup, ...made };
}

/** The test's own keys, without its set-up. */
function testOn(candidate: Candidate, meanings: Meanings, test: Test): PlaceTest | null {
  const plugged = (test.unplugged?.length ?? 0) === 0 && (test.bridged?.length ?? 0) === 0;
  const pinName = (place: PlugPlace, point: string): string | null => {
    const label = labelOf(meanings, place, point);
    return label ? `${place}:${label}` : null;
  };
  const motorAt = (id: string): "motor" | "motor-2" =>
    placeOf(candidate, id) === "motor-2" ? "motor-2" : "motor";
  switch (test.test) {
    case "light": {
      const [probe, clip] = [found(candidate, test.probe), found(candidate, test.clip)];
      if (!plugged || clip?.kind !== "post") return null;
      if (probe?.kind === "fuse")
        return clip.post === "ground" ? { test: "light", at: "fuses", clip: "ground" } : null;
      return probe?.kind === "pin" ? { test: "light", at: probe.place, clip: clip.post } : null;
    }
    case "volts": {
      const [red, black] = [found(candidate, test.red), found(candidate, test.black)];
      if (!plugged) return null;
      if (red?.kind === "pin" && black?.kind === "post" && black.post === "ground")
        return { test: "volts", at: red.place, black: "ground" };
      if (red?.kind === "post" && red.post === "feed" && black?.kind === "pin")
        return { test: "volts", at: black.place, red: "feed" };
      if (red?.kind === "post" && black?.kind === "post")
        return { test: "volts", red: "feed", black: "ground" };
      if (red?.kind !== "pin" || black?.kind !== "pin") return null;
      const names = [pinName(red.place, red.point), pinName(black.place, black.point)];
      return names[0] && names[1]
        ? { test: "volts", red: names[0], black: names[1] }
        : { test: "volts", at: red.place, black: "ground" };
    }
    case "ohms": {
      const [red, black] = [found(candidate, test.red), found(candidate, test.black)];
      if (red?.kind !== "pin" || black?.kind !== "pin" || red.place !== black.place) return null;
      return { test: "ohms", at: red.place, from: labelOf(meanings, red.place, red.point) ?? "a" };
    }
    case "amps": {
      const pin = plugPlaces.flatMap((place) =>
        (candidate.plugs.get(place)?.pins ?? []).flatMap((own) =>
          own.wire === test.around || own.terminal === `${test.around}.+`
            ? [{ place, point: own.point }]
            : [],
        ),
      )[0];
      if (!plugged || !pin) return null;
      return { test: "amps", around: pinName(pin.place, pin.point) ?? `${pin.place}:a` };
    }
    case "airflow": {
      if (plugged)
        return { test: "airflow", ...(test.at && motorAt(test.at) === "motor-2" ? { at: "motor-2" } : {}) };
      const [pulled] = test.unplugged ?? [];
      const plug = pulled === undefined ? null : placeOf(candidate, pulled);
      if (plug && isPlug(plug) && test.unplugged?.length === 1 && !test.bridged)
        return { test: "airflow", unplugged: plug };
      return test.bridged?.every(([one]) => one.startsWith("G1.")) && test.bridged.length === 2
        ? { test: "airflow", leads: true }
        : null;
    }
    case "lampload":
      if (candidate.parts.get("motor") === test.lampFor) return { test: "lampload", lampFor: "motor-plug" };
      return candidate.parts.get("motor-2") === test.lampFor
        ? { test: "lampload", lampFor: "motor-plug-2" }
        : null;
    case "look":
    case "tap": {
      const place = placeOf(candidate, test.at);
      if (!plugged || !place) return null;
      return test.test === "look" ? { test: "look", at: place } : { test: "tap", at: place };
    }
    case "spin":
    case "ripple":
      if (!plugged) return null;
      return test.test === "spin"
        ? { test: "spin", at: motorAt(test.at) }
        : { test: "ripple", at: motorAt(test.at) };
    case "swap":
      return plugged && placeOf(candidate, test.at) === "relay" ? { test: "swap", at: "relay" } : null;
    case "listen":
      return plugged ? { test: "listen", ...(test.ventCovered ? { ventCovered: true } : {}) } : null;
    case "smell":
      return { test: "smell" };
    case "history":
      return { test: "history", of: test.of };
  }
}
