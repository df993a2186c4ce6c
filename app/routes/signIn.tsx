import { allPeople, personWith, takePinMadeAt } from "@db/people/people.server";
import { endSession, startSession } from "@db/people/sessions.server";
import { noteSignIn } from "@db/repositories/signIns.server";
import { data, redirect } from "react-router";
import { z } from "zod";
import { type Place, placeId, placeName, type Visitor, visitorContext } from "../network/visitor.server";
import { pinRefusal } from "../people/pinCheck.server";
import { SignInPage } from "../people/SignInPage";
import { sessionHeader, sessionToken } from "../people/sessionCookie.server";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/signIn";

export const meta: Route.MetaFunction = () => [{ title: "Sign in · Airway" }];

/** Where a PIN was made that no owner typed. */
const commandLine = "the server’s command line";

/** A page of Airway, and nothing elsewhere. */
const ownPage = z
  .string()
  .max(300)
  .regex(/^\/(?![/\\])[^\\]*$/)
  .catch("/");

/** Where a visitor is; names are shown to known places only. */
function placeOf(visitor: Visitor): Place {
  if (visitor.kind === "stranger") throw data("Pair this device first.", { status: 401 });
  return visitor.place;
}

export function loader({ request, context }: Route.LoaderArgs) {
  const visitor = context.get(visitorContext);
  return {
    place: placeName(placeOf(visitor)),
    people: allPeople(),
    me: visitor.kind === "signed-in" ? visitor.person : null,
    to: ownPage.parse(new URL(request.url).searchParams.get("to") ?? "/"),
  };
}

const form = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("in"), person: z.uuid(), pin: z.string().max(64), to: ownPage }),
  z.object({ intent: z.literal("out"), to: ownPage }),
]);

/** Signs somebody in, or out. */
export async function action({ request, context }: Route.ActionArgs) {
  const visitor = context.get(visitorContext);
  const place = placeOf(visitor);
  const parsed = form.safeParse(Object.fromEntries(await sentForm(request)));
  if (!parsed.success)
    return data({ problem: "Choose your name and type your PIN.", chosen: "" }, { status: 422 });
  const sent = parsed.data;
  const before = await sessionToken(request.headers.get("cookie"), place.kind);
  if (sent.intent === "out") {
    if (before) endSession(before);
    const who = visitor.kind === "signed-in" ? visitor.person : null;
    if (who) await noteSignIn(who.name, placeName(place), "out");
    const header = await sessionHeader("", place.kind);
    return redirect(`/sign-in?${new URLSearchParams({ to: sent.to })}`, {
      headers: { "Set-Cookie": header },
    });
  }
  const name = personWith(sent.person)?.name ?? "";
  const refused = await pinRefusal(sent.person, sent.pin, place);
  if (refused) {
    if (refused.isWrong && name) await noteSignIn(name, placeName(place), "wrong-pin");
    return data({ problem: refused.problem, chosen: sent.person }, { status: refused.isWrong ? 403 : 429 });
  }
  if (before) endSession(before);
  const madeAt = takePinMadeAt(sent.person);
  if (madeAt) await noteSignIn(name, commandLine, "new-pin", madeAt);
  await noteSignIn(name, placeName(place), "in");
  const header = await sessionHeader(startSession(sent.person, placeId(place)), place.kind);
  return redirect(sent.to, { headers: { "Set-Cookie": header } });
}

export default function SignIn({ loaderData, actionData }: Route.ComponentProps) {
  return (
    <SignInPage {...loaderData} chosen={actionData?.chosen ?? ""} problem={actionData?.problem ?? null} />
  );
}
