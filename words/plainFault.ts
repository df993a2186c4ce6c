/** What was wrong, for someone who does not know the names: by kind of part, and for some by how it failed. */
const plain: Readonly<Record<string, string>> = {
  link: "A thermal link inside the fan's resistor had opened, so the speeds that use it had no current.",
  element: "A coil of the fan's resistor had burnt through.",
  motor: "The fan's motor had failed.",
  "motor tight": "The fan's motor had become stiff and drew more current than it should.",
  "motor seized": "The fan's motor had seized.",
  "motor bearing-dry": "The bearing of the fan's motor had run dry.",
  "motor bearing-worn": "The bearing of the fan's motor was worn.",
  "motor debris": "Something had fallen into the fan's wheel.",
  "motor unbalanced": "The fan's wheel was out of balance.",
  "motor vent-whistle": "The bearing of the fan's motor had begun to fail, which made it whistle.",
  "motor scrape": "The fan's wheel rubbed on its housing.",
  "selector knob-turns": "The knob of the fan's speed switch turned without moving its contacts.",
  "socket high": "The socket of a fuse or relay in the fan's circuit was burnt.",
  "wire chafed": "A wire of the fan's circuit had rubbed bare and touched the car body at times.",
  "motor fades-hot": "The fan's motor lost its strength when it got hot.",
  "module thermal": "The electronic control module for the fan speed cut out when it got hot.",
  "CAR duct-blocked": "An air duct was blocked.",
  "CAR iced": "Ice on the evaporator had blocked the air.",
  "motor wheel-loose": "The fan's wheel had come loose on its shaft.",
  fuse: "The fan's fuse had blown.",
  relay: "The relay that switches the fan had failed.",
  selector: "A contact in the fan's speed switch had failed.",
  module: "The electronic control module for the fan speed had failed.",
  head: "The climate panel no longer sent its signal to the fan.",
  pin: "A contact in a plug of the fan's wiring was bad.",
  wire: "A wire of the fan's circuit was damaged.",
  ground: "The fan's ground connection to the car body was bad.",
  ignition: "A contact in the key switch had failed.",
  battery: "The battery was too weak to drive the fan.",
  CAR: "The air filter or the duct was blocked.",
};

/** A fault of a kind and mode in plain words; of several that belong together, the cause first, each in a sentence. */
export function plainFault(kind: string, mode: string): string {
  const modes = mode.split("+");
  return kind
    .split("+")
    .map((own, at) => plain[`${own} ${modes[at] ?? ""}`] ?? plain[own] ?? "The fan's circuit had a fault.")
    .join(" ");
}
