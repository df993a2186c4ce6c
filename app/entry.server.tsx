import { storageTrouble } from "@db/storageTrouble";
import { createReadableStreamFromReadable } from "@react-router/node";
import { isbot } from "isbot";
import { renderToPipeableStream } from "react-dom/server";
import {
  type EntryContext,
  type HandleErrorFunction,
  type RouterContextProvider,
  ServerRouter,
} from "react-router";
import { JoinedChunks } from "./shell/joinedChunks.server";
import { logger, reportTrouble } from "./shell/log.server";
import { NonceContext } from "./shell/nonce";
import { nonceContext } from "./shell/nonce.server";

/**
 * Time limit for rendering a page, in milliseconds. The first vehicle without a diagram after a start takes seconds, and
 * many on a slow or busy computer; at this limit its page would fail.
 */
export const streamTimeout = 120_000;

/** Renders a page with its nonce: as a stream for browsers, and in one piece for crawlers. */
export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  entry: EntryContext,
  context: RouterContextProvider,
): Promise<Response> {
  const nonce = context.get(nonceContext);
  const whole = isbot(request.headers.get("user-agent") ?? "");
  return new Promise((resolve, reject) => {
    let sent = false;
    let code = status;
    const begin = (): void => {
      sent = true;
      const body = new JoinedChunks();
      headers.set("Content-Type", "text/html; charset=utf-8");
      resolve(new Response(createReadableStreamFromReadable(body), { headers, status: code }));
      pipe(body);
    };
    const { pipe, abort } = renderToPipeableStream(
      <NonceContext.Provider value={nonce}>
        <ServerRouter context={entry} url={request.url} nonce={nonce} />
      </NonceContext.Provider>,
      {
        nonce,
        onShellReady() {
          if (!whole) begin();
        },
        onAllReady() {
          // If it were left running, the timer would hold the page in memory.
          clearTimeout(timer);
          if (whole) begin();
        },
        onShellError: (error: unknown) => reject(error instanceof Error ? error : new Error(String(error))),
        onError(error: unknown) {
          logger.error(error, `${new URL(request.url).pathname}: rendering failed`);
          if (sent) code = 500;
        },
      },
    );
    const timer = setTimeout(abort, streamTimeout + 1000).unref();
  });
}

/** Logs what a loader or an action threw, with its cause. A request the client aborted is not an error. */
export const handleError: HandleErrorFunction = (error, { request }) => {
  if (request.signal.aborted) return;
  const words = storageTrouble(error);
  if (words) reportTrouble(error, words);
  else logger.error(error, `${request.method} ${new URL(request.url).pathname} failed`);
};
