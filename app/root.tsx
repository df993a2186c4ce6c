import "./styles/app.css";
import { allPeople } from "@db/people/people.server";
import textFont from "@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2?url";
import { useContext } from "react";
import {
  isRouteErrorResponse,
  Link,
  Links,
  type LinksFunction,
  Meta,
  Outlet,
  Scripts,
  ScrollRestoration,
  useLocation,
  useRouteLoaderData,
} from "react-router";
import type { Route } from "./+types/root";
import { mayRunShop, visitorContext } from "./network/visitor.server";
import { troublesNow } from "./shell/log.server";
import { NonceContext } from "./shell/nonce";
import { preferencesOf } from "./shell/preferences.server";
import { Rail } from "./shell/Rail";
import { notForReadings } from "./shell/revalidation";
import type { SignedIn } from "./shell/signedIn";
import { TroubleNotice } from "./shell/TroubleNotice";

export const links: LinksFunction = () => [
  { rel: "icon", href: "/favicon.svg", type: "image/svg+xml" },
  // Without the preload, text is first painted in a fallback font, and the layout shifts when this one arrives.
  { rel: "preload", href: textFont, as: "font", type: "font/woff2", crossOrigin: "anonymous" },
];

export const meta: Route.MetaFunction = () => [{ title: "Airway" }];

export async function loader({ request, context }: Route.LoaderArgs) {
  // What is wrong with the shop's server is for those who are signed in.
  const visitor = context.get(visitorContext);
  const signedIn: SignedIn = {
    me: visitor.kind === "signed-in" ? visitor.person : null,
    runsShop: mayRunShop(visitor),
    people: visitor.kind === "signed-in" ? allPeople().map(({ id }) => id) : [],
  };
  const troubles = visitor.kind === "signed-in" ? troublesNow() : [];
  return {
    ...(await preferencesOf(request)),
    ...signedIn,
    troubles: troubles.map(({ words }) => words),
  };
}

export const shouldRevalidate = notForReadings;

/** A link that lets keyboard users skip the navigation; visible only while it has the focus. */
const SkipLink = ({ to, children }: { to: string; children: string }) => (
  <a href={`#${to}`} className="btn sr-only z-50 focus:not-sr-only focus:fixed focus:top-2 focus:left-2">
    {children}
  </a>
);

export function Layout({ children }: { children: React.ReactNode }) {
  const root = useRouteLoaderData<typeof loader>("root");
  const theme = root?.theme ?? "auto";
  const { pathname } = useLocation();
  const nonce = useContext(NonceContext);
  return (
    <html
      lang="en"
      data-theme={theme === "auto" ? undefined : theme}
      data-person={root?.me?.id}
      data-person-name={root?.me?.name}
      suppressHydrationWarning
    >
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <Meta />
        <Links nonce={nonce} />
      </head>
      <body>
        <SkipLink to="main">Skip to the page</SkipLink>
        {pathname.endsWith("/probe") && <SkipLink to="next-test">Skip to the next test</SkipLink>}
        <TroubleNotice troubles={root?.troubles ?? []} />
        {children}
        <ScrollRestoration nonce={nonce} />
        <Scripts nonce={nonce} />
      </body>
    </html>
  );
}

export default function App() {
  return <Outlet />;
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  const known = isRouteErrorResponse(error);
  return (
    <div className="flex min-h-screen max-md:flex-col">
      {/* A page that crashed may have crashed in the rail. */}
      {known && <Rail />}
      <main id="main" className="mx-auto w-full max-w-2xl grow p-6">
        <h1 className="text-2xl font-semibold">
          {known ? String(error.data || error.statusText) : "This page failed."}
        </h1>
        <p className="mt-3 text-soft">
          {known
            ? "Nothing was lost: every reading is saved as soon as it is entered."
            : "Every reading entered so far is saved. Load the page again. If it fails again, the server's log says why."}
        </p>
        <Link to="/" className="btn mt-5">
          Go to the board
        </Link>
      </main>
    </div>
  );
}
