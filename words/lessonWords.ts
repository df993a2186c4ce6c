import type { LessonId } from "@core/practice/curriculum";

/** The text of each lesson. Its facts of the trade are common practice, no source. */
export const lessonWords: Readonly<
  Record<LessonId, { readonly title: string; readonly text: readonly string[] }>
> = {
  paths: {
    title: "What each speed proves",
    text: [
      "A speed that blows normally proves everything that its current flows through: fuse, key switch, switch contact, wires, plugs, motor and ground. That costs nothing and needs no tool.",
      "The fault is in what the dead speeds share and no working speed uses. The path board shows it: parts down, speeds across.",
    ],
  },
  light: {
    title: "The test light on either clip",
    text: [
      "Clipped to ground, the light finds feed. Clipped to feed, it finds ground. At a point behind a resistor it is dim either way; at a point with no path to feed or ground it stays dark either way.",
      "The light draws a quarter of an amp, so it tells a feed that can carry a load from one that only shows volts. On a ground-side switch, test the speed wires with the light clipped to feed.",
    ],
  },
  drop: {
    title: "Voltage drop under load",
    text: [
      "A bad joint drops voltage in proportion to the current through it. With everything running, a good load wire drops no more than about 0.2 V and a good plug no more than 0.1 V.",
      "Without current the same joint shows nothing, and an ohmmeter cannot resolve a tenth of an ohm because of its own leads. So switch everything on, then measure across the joint.",
    ],
  },
  ghost: {
    title: "Ghost volts on a meter",
    text: [
      "A meter of ten megohms shows full battery voltage through a joint of a hundred thousand ohms, through damp, or through a winding. Never judge a wire that has to carry amps by a meter alone.",
      "Connect the light next to the meter. If the voltage falls when the light touches, it comes through a high resistance.",
    ],
  },
  ground: {
    title: "Grounds that float",
    text: [
      "A load without a ground carries no current, so it drops no voltage: both of its ends are at feed voltage. Twelve volts on both sides of a motor means the ground is missing, not that the motor is fed twice.",
      "With the light clipped to feed, a good ground lights it brightly. A ground that is off leaves it dark.",
    ],
  },
  tap: {
    title: "Tap and wiggle",
    text: [
      "Look for an intermittent fault while it is present, and move one thing at a time. A tap on the motor's case can start a motor with a dead bar; a wiggle at a plug can find a spread pin.",
      "Then stop moving things and inspect what you moved. The key is on during this test, so keep your hands out of the wheel.",
    ],
  },
  control: {
    title: "Electronic control modules",
    text: [
      "A control module has a feed, a ground, a command and the motor's wires. Test three of them at its plug: feed with the light, ground with the light, and the command with a meter on two speeds.",
      "If all three are good and there is no voltage at the motor plug, the module is bad. If there is voltage, the motor is bad. A lamp in place of the motor tells them apart.",
    ],
  },
  humps: {
    title: "The motor's current ripple",
    text: [
      "As the brushes pass from bar to bar, the current ripples. With one brush per pole, one turn has as many ripples as the least common multiple of bars and poles: twelve bars on two poles give twelve, eleven give twenty-two.",
      "Ripples of equal height mean a healthy winding. A missing one repeats once per brush in every turn.",
    ],
  },
  causes: {
    title: "Finding the root cause",
    text: [
      "When a pack, plug or fuse has burnt out, look for what drew too much current: a motor that is hard to turn, leaves in the wheel, or shorted turns.",
      "A blocked filter lowers the current, because the fan does less work. It still overheats the pack, which needs that air for cooling. Measure the current before you fit the new part.",
    ],
  },
  visits: {
    title: "Work by visit",
    text: [
      "Getting to a place costs minutes once: the panel under the dash, the box under the bonnet, the glove box. Once it is open, look at the plugs, feel the wheel, prove the switch output, and only then move on.",
      "Eyes and hands go first where they cost less than a minute. A melted plug that you see saves three measurements.",
    ],
  },
  proof: {
    title: "What proves a part bad",
    text: [
      "A part is condemned on proof, not on odds. A motor is bad once feed and ground were seen at its plug and it does not run; a pack once a coil reads open; a control module once its feed, its ground and its command were seen good while it is asked to run.",
      "A reading that makes a part likelier is not proof. Nine times in ten it is the usual part; the tenth time you have bought one that the car did not need.",
    ],
  },
};
