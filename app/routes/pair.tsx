import { data, redirect } from "react-router";
import { z } from "zod";
import { tokenCookie } from "../network/deviceCookie.server";
import { addDevice } from "../network/devices.server";
import { PairPage } from "../network/PairPage";
import { usePairingCode } from "../network/pairingCode.server";
import { visitorContext } from "../network/visitor.server";
import { sentForm } from "../shell/sentForm.server";
import { textFields } from "../text/formText";
import type { Route } from "./+types/pair";

export const meta: Route.MetaFunction = () => [{ title: "Pair this device · Airway" }];

const sha256 = /^[0-9A-F]{64}$/;

/** The code and the fingerprint in the address come from the picture that was scanned. */
export function loader({ request, context }: Route.LoaderArgs) {
  const visitor = context.get(visitorContext);
  const { searchParams } = new URL(request.url);
  const scanned = searchParams.get("authority") ?? "";
  return {
    code: (searchParams.get("code") ?? "").slice(0, 8),
    fingerprint: sha256.test(scanned) ? (scanned.match(/../g) ?? []).join(":") : null,
    place: visitor.kind === "stranger" ? null : visitor.place,
  };
}

const form = z.object({
  code: z.string().max(20),
  name: z.string().trim().min(1, "Give this device a name, such as bay 2 tablet.").max(60),
});

const problems = {
  wrong: "This is not the code on the shop’s computer.",
  none: "There is no code that can be used now. Make one on the shop’s computer, under Settings, Phones and people.",
} as const;

/** Pairs the device that sends the code. */
export async function action({ request, context }: Route.ActionArgs) {
  if (context.get(visitorContext).kind !== "stranger") return redirect("/");
  const typed = textFields(await sentForm(request));
  const parsed = form.safeParse(typed);
  if (!parsed.success)
    return data({ problem: parsed.error.issues[0]?.message ?? "", typed }, { status: 422 });
  const { code, name } = parsed.data;
  const used = usePairingCode(code);
  if (used !== "right") return data({ problem: problems[used], typed }, { status: 403 });
  return redirect("/", { headers: { "Set-Cookie": await tokenCookie(addDevice(name)) } });
}

export default function Pair({ loaderData, actionData }: Route.ComponentProps) {
  const { code = loaderData.code, name = "" } = actionData?.typed ?? {};
  return <PairPage {...loaderData} code={code} name={name} problem={actionData?.problem ?? null} />;
}
