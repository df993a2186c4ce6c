/** What was wrong, for somebody who does not know the names: by the kind of thing, some by how it failed. */
const plain: Readonly<Record<string, string>> = {
  link: "A heat fuse inside the fan's resistor had opened, so the speeds that go through it had no current.",
  element: "A coil of the fan's resistor had burnt through.",
  motor: "The fan's motor had failed.",
  "motor tight": "The fan's motor had become stiff and drew more current than it should.",
  "motor seized": "The fan's motor had stuck fast.",
  "motor bearing-dry": "The bearing of the fan's motor had run dry.",
  "motor bearing-worn": "The bearing of the fan's motor was worn.",
  "motor debris": "Something had fallen into the fan's wheel.",
  "motor unbalanced": "The fan's wheel was out of balance.",
  "motor wheel-loose": "The fan's wheel had come loose on its shaft.",
  fuse: "The fan's fuse had blown.",
  relay: "The relay that switches the fan had failed.",
  selector: "A contact in the fan's speed switch had failed.",
  module: "The electronic control of the fan's speed had failed.",
  head: "The control panel no longer sent its command to the fan.",
  pin: "A contact in a plug of the fan's wiring had gone bad.",
  wire: "A wire of the fan's circuit was damaged.",
  ground: "The fan's connection to the body of the car had gone bad.",
  ignition: "A contact in the key switch had failed.",
  battery: "The battery was too weak to drive the fan.",
  CAR: "The air filter or the duct was blocked.",
};

/** One fault of a kind and mode, in plain words. */
export const plainFault = (kind: string, mode: string): string =>
  plain[`${kind} ${mode}`] ?? plain[kind] ?? "The fan's circuit had a fault.";
