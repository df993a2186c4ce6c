import { data } from "react-router";
import { z } from "zod";
import { removeDevice } from "../network/devices.server";
import { networkDoor } from "../network/networkDoor.server";
import { PhonesPage } from "../network/PhonesPage";
import { endPairingCode, makePairingCode } from "../network/pairingCode.server";
import { phonesView } from "../network/phonesView.server";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/phones";

export const meta: Route.MetaFunction = () => [{ title: "Phones and tablets · Airway" }];

export const loader = () => phonesView();

const form = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("open") }),
  z.object({ intent: z.literal("close") }),
  z.object({ intent: z.literal("code") }),
  z.object({ intent: z.literal("end-code") }),
  z.object({ intent: z.literal("remove"), device: z.uuid() }),
]);

/** Opens or closes Airway to the shop's network, makes a code for a device, or removes one. */
export async function action({ request }: Route.ActionArgs) {
  const parsed = form.safeParse(Object.fromEntries(await sentForm(request)));
  if (!parsed.success)
    return data({ problem: "That could not be read. Load the page again." }, { status: 422 });
  const door = networkDoor();
  switch (parsed.data.intent) {
    case "open": {
      const refused = door
        ? await door.open()
        : { problem: "This server cannot open Airway to the network." };
      return data({ problem: refused?.problem ?? null }, { status: refused ? 409 : 200 });
    }
    case "close":
      endPairingCode();
      door?.close();
      break;
    case "code":
      makePairingCode();
      break;
    case "end-code":
      endPairingCode();
      break;
    case "remove":
      removeDevice(parsed.data.device);
      break;
  }
  return data({ problem: null });
}

export default function Phones({ loaderData, actionData }: Route.ComponentProps) {
  return <PhonesPage view={loaderData} problem={actionData?.problem ?? null} />;
}
