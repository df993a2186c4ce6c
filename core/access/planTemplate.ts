import type { AccessPlan } from "./plan";

type Body = Pick<AccessPlan, "where" | "steps" | "targets">;

/** Plans to start from, one for each usual route to a motor; M1 and R1 stand for the circuit's own. */
export const planTemplates: Readonly<Record<string, { readonly title: string; readonly body: Body }>> = {
  "lower-panel": {
    title: "Below the glove box: panel down, motor drops",
    body: {
      where: "Passenger's footwell, above the panel.",
      steps: [
        {
          id: "panel",
          title: "Lower the panel",
          minutes: 2,
          kind: "panel",
          cautions: ["airbag"],
          opens: ["M1", "R1"],
        },
        { id: "motor-plug", title: "Unplug the motor", minutes: 0.5, kind: "plug", needs: [["panel"]] },
        {
          id: "motor-screws",
          title: "Lower the motor",
          minutes: 5,
          kind: "out",
          needs: [["motor-plug"]],
          fasteners: [{ count: 3, head: "hex", size: "5.5 mm", into: "plastic" }],
          cautions: ["wheel"],
        },
        { id: "pack-plug", title: "Unplug the pack", minutes: 0.5, kind: "plug", needs: [["panel"]] },
        {
          id: "pack-screws",
          title: "Remove the pack",
          minutes: 2,
          kind: "out",
          needs: [["pack-plug"]],
          fasteners: [{ count: 2, head: "hex", size: "7 mm", into: "plastic" }],
          cautions: ["hot-pack"],
        },
      ],
      targets: { M1: [["motor-screws"]], R1: [["pack-screws"]] },
    },
  },
  "glove-box": {
    title: "Behind the glove box, the pack behind the motor",
    body: {
      where: "Passenger's side, behind the glove box.",
      steps: [
        {
          id: "glove-box",
          title: "Remove the glove box",
          minutes: 4,
          kind: "panel",
          fasteners: [{ count: 6, head: "phillips", size: "PH2", into: "plastic" }],
          cautions: ["airbag"],
          opens: ["M1"],
        },
        { id: "motor-plug", title: "Unplug the motor", minutes: 0.5, kind: "plug", needs: [["glove-box"]] },
        {
          id: "motor-out",
          title: "Turn the motor out of its twist lock",
          minutes: 2,
          kind: "twist",
          needs: [["motor-plug"]],
        },
        {
          id: "pack-screws",
          title: "Remove the pack through the motor's hole",
          minutes: 3,
          kind: "out",
          needs: [["motor-out"]],
          fasteners: [{ count: 2, head: "torx", size: "T20", into: "plastic" }],
        },
      ],
      targets: { M1: [["motor-out"]], R1: [["pack-screws"]] },
    },
  },
  "battery-and-tray": {
    title: "Under the bonnet, behind battery and tray",
    body: {
      where: "At the bulkhead, behind the battery.",
      steps: [
        {
          id: "negative",
          title: "Disconnect the battery negative",
          minutes: 2,
          kind: "battery-off",
          tools: ["10 mm spanner"],
        },
        {
          id: "battery",
          title: "Remove the battery",
          minutes: 6,
          kind: "battery",
          fasteners: [{ count: 1, head: "hex", size: "13 mm", into: "metal" }],
          needs: [["negative"]],
        },
        {
          id: "tray",
          title: "Remove the battery tray",
          minutes: 12,
          kind: "panel",
          fasteners: [{ count: 4, head: "hex", size: "10 mm", into: "metal" }],
          needs: [["battery"]],
        },
        { id: "motor-plug", title: "Unplug the motor", minutes: 1, kind: "plug", needs: [["tray"]] },
        {
          id: "motor-screws",
          title: "Remove the motor forwards",
          minutes: 8,
          kind: "out",
          fasteners: [{ count: 3, head: "torx", size: "T25", into: "plastic" }],
          needs: [["motor-plug"]],
        },
      ],
      targets: { M1: [["motor-screws"]] },
    },
  },
};
