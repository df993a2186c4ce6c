import { capitalised } from "@words/seenName";
import { useMemo } from "react";
import { plainSheet } from "../sheet/plainSheet";
import { SheetTools } from "../sheet/SheetTools";
import { LaidOutSheet } from "../sheet/SheetView";
import { bareState } from "../sheet/sheetState";
import { Fold } from "../ui/Fold";
import type { SeenFindings } from "./seenJobView.server";

/** Doubt from which a part or wire is hatched. */
const leastDoubt = 0.05;

/** Draws the likeliest wiring. Parts and wires that are still in doubt are hatched; the rest are drawn plainly. */
export function LikeliestWiring({ findings: { diagnosis, layout } }: { findings: SeenFindings }) {
  const { drawing, wirings } = diagnosis;
  const sheet = useMemo(() => {
    if (!drawing) return null;
    const { circuit, doubt } = drawing;
    const top = circuit.settings.at(-1) ?? "0";
    const shown = Object.fromEntries(Object.entries(doubt).filter(([, own]) => own >= leastDoubt));
    return plainSheet(circuit, bareState("run", top), { doubt: shown });
  }, [drawing]);
  if (!sheet || !layout) return null;
  return (
    <Fold title="Drawing of the likeliest wiring" className="sheet-card px-3">
      <div className="grid gap-2 pb-3">
        <div className="flex flex-wrap items-center justify-between gap-2">
          <p className="max-w-prose text-base text-soft">
            {capitalised(wirings[0]?.title ?? "")}. Hatched parts and wires are not certain yet; the figure
            says how likely it is that the vehicle does without them. Colours and ratings are not known.
          </p>
          <SheetTools focus={null} />
        </div>
        <div className="sheet-card sheet-pane relative h-[26rem]">
          <LaidOutSheet layout={layout} fileName="likeliest-wiring" focus={null} sheet={sheet} />
        </div>
      </div>
    </Fold>
  );
}
