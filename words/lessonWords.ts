import type { LessonId } from "@core/practice/curriculum";

/** What each lesson says. Facts of the trade in them are common practice, no source. */
export const lessonWords: Readonly<
  Record<LessonId, { readonly title: string; readonly text: readonly string[] }>
> = {
  paths: {
    title: "What each speed proves",
    text: [
      "A speed that blows as it should clears everything its current goes through: fuse, key, switch contact, wires, plugs, motor, ground. That is free, before any tool is out.",
      "What is wrong lies in what the dead speeds share and no working speed uses. The path board marks it: parts down, speeds across.",
    ],
  },
  light: {
    title: "The test light on either clip",
    text: [
      "Clipped to ground the light looks for feed, clipped to feed it looks for ground. A point half-way, behind a resistor, burns dim on both; a point with no way to either burns on none.",
      "The light is a load of a quarter of an amp: it tells a feed that can carry something from one that only has volts. On ground-switched circuits the speeds are looked for from the feed.",
    ],
  },
  drop: {
    title: "Voltage drop under load",
    text: [
      "A bad joint eats volts in proportion to the current through it. Measured across it while everything runs, a sound lead of the load loses no more than about 0.2 V, a plug 0.1 V.",
      "With the current off the same joint shows nothing, and ohms of a tenth are lost in the meter's own leads. So: everything on, then across.",
    ],
  },
  ghost: {
    title: "Ghost volts on a meter",
    text: [
      "A meter of ten megohms sees the full battery through a joint of a hundred thousand ohms, through damp, through a winding. Nothing that has to carry amps is judged by a meter alone.",
      "Put the light beside the meter: volts that fall when it touches come through ohms.",
    ],
  },
  ground: {
    title: "Grounds that float",
    text: [
      "A load without a ground carries no current, so it loses no volts: both its ends stand at feed. 'Both sides have twelve volts' means the ground is gone, not that the motor is fed twice.",
      "Clipped to feed, the light at a sound ground burns bright; at one that is off it stays dark.",
    ],
  },
  tap: {
    title: "Tap and wiggle",
    text: [
      "What comes and goes is hunted while it is gone, by moving one thing at a time: a knock on the motor's case wakes a dead bar, a wiggle at a plug finds a spread pin.",
      "Then stop moving things, and look at what was moved. Key on for the look, hands out of the wheel.",
    ],
  },
  control: {
    title: "Electronic controls",
    text: [
      "A control stands between a feed, a ground, a command and the motor. Three are looked for at its plug: feed by the light, ground by the light, the command by the meter at two speeds.",
      "With all three right and no volts at the motor's plug the control is bad; with volts there, the motor. A lamp in the motor's place tells them apart without guessing.",
    ],
  },
  humps: {
    title: "The motor's humps",
    text: [
      "As the brushes pass from bar to bar the current makes humps: in a turn the least common multiple of bars and poles, with one brush a pole. Twelve bars on two poles give twelve, eleven give twenty-two.",
      "Humps of one height are a healthy winding. One that is missing comes back once a brush in every turn.",
    ],
  },
  causes: {
    title: "What killed the part",
    text: [
      "A burnt pack, plug or fuse is a victim until something is found that drew too much: a motor that turns heavily, leaves in the wheel, turns shorted together.",
      "A blocked filter lowers a fan's draw: it does less work. It still cooks the pack, which sits in that air to be cooled. Measure the draw before the new part goes in.",
    ],
  },
};
