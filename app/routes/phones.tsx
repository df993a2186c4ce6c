import { data } from "react-router";
import { z } from "zod";
import { removeDevice } from "../network/devices.server";
import { networkDoor } from "../network/networkDoor.server";
import { endPairingCode, makePairingCode } from "../network/pairingCode.server";
import { phonesView } from "../network/phonesView.server";
import { visitorContext } from "../network/visitor.server";
import { changePeople, peopleForms } from "../people/changePeople.server";
import { PhonesPage } from "../people/PhonesPage";
import { peopleView } from "../people/peopleView.server";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/phones";

export const meta: Route.MetaFunction = () => [{ title: "Phones and people · Airway" }];

export async function loader() {
  const [phones, people] = await Promise.all([phonesView(), peopleView()]);
  return { phones, people };
}

const form = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("open") }),
  z.object({ intent: z.literal("close") }),
  z.object({ intent: z.literal("code") }),
  z.object({ intent: z.literal("end-code") }),
  z.object({ intent: z.literal("remove"), device: z.uuid() }),
  ...peopleForms,
]);

/** Changes who works here; opens or closes Airway to the shop's network, makes a code for a device, or removes one. */
export async function action({ request, context }: Route.ActionArgs) {
  const parsed = form.safeParse(Object.fromEntries(await sentForm(request)));
  if (!parsed.success)
    return data({ problem: parsed.error.issues[0]?.message ?? "That could not be read." }, { status: 422 });
  switch (parsed.data.intent) {
    case "open": {
      const refused = (await networkDoor()?.open()) ?? null;
      return data({ problem: refused?.problem ?? null }, { status: refused ? 409 : 200 });
    }
    case "close":
      endPairingCode();
      networkDoor()?.close();
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
    default: {
      const { problem, sessionHeader } = await changePeople(parsed.data, context.get(visitorContext));
      return data(
        { problem },
        {
          status: problem ? 409 : 200,
          ...(sessionHeader ? { headers: { "Set-Cookie": sessionHeader } } : {}),
        },
      );
    }
  }
  return data({ problem: null });
}

export default function Phones({ loaderData, actionData }: Route.ComponentProps) {
  return (
    <PhonesPage view={loaderData.phones} people={loaderData.people} problem={actionData?.problem ?? null} />
  );
}
