import { percent } from "@core/units/wording";
import { setSchool } from "@db/repositories/jobs.server";
import { addReading, strikeLast, strikeReading } from "@db/repositories/readings.server";
import { ToggleGroup } from "radix-ui";
import { useEffect, useMemo, useRef, useState } from "react";
import { data, Link, useFetcher, useRouteLoaderData } from "react-router";
import { AsIfTrue } from "../components/AsIfTrue";
import { Evidence } from "../components/Evidence";
import { KeyHelp } from "../components/KeyHelp";
import { keyOf, NextLook } from "../components/NextLook";
import { OtherLooks } from "../components/OtherLooks";
import { OwnReading } from "../components/OwnReading";
import { type LitCell, PathBoard } from "../components/PathBoard";
import { PlanAhead } from "../components/PlanAhead";
import { PointPanel } from "../components/PointPanel";
import { Suspects } from "../components/Suspects";
import { useProbeKeys } from "../components/useProbeKeys";
import { useSharedJob } from "../components/useSharedJob";
import { CircuitSheet } from "../drawing/CircuitSheet";
import { engineFor } from "../engine.server";
import { jobAt, jobViewAt } from "../jobView.server";
import { probeView } from "../probeView.server";
import type { loader as rootLoader } from "../root";
import type { Route } from "./+types/probe";
import { offeredReading, ownReading, probeForm } from "./probeForm";

/** Sizes the sheet can be shown at; the first fits it in. */
const zooms = [
  { title: "all", size: null },
  { title: "1×", size: 1.05 },
  { title: "1½×", size: 1.5 },
] as const;

export async function loader({ params }: Route.LoaderArgs) {
  return probeView(await jobViewAt(params.id));
}

export async function action({ params, request }: Route.ActionArgs) {
  const { job, circuit } = await jobAt(params.id);
  const parsed = probeForm.safeParse(Object.fromEntries(await request.formData()));
  if (!parsed.success) return data({ problem: "That entry cannot be read." }, { status: 400 });
  const form = parsed.data;
  const now = new Date();
  if (form.intent === "strike-last") await strikeLast(job.id, now);
  else if (form.intent === "school") await setSchool(job.id, form.school);
  else if (form.intent === "strike") await strikeReading(job.id, form.id, form.struck === "yes" ? now : null);
  else {
    const engine = await engineFor(circuit);
    const entered = form.intent === "reading" ? offeredReading(engine, form) : ownReading(engine, form);
    if ("problem" in entered) return data({ problem: entered.problem }, { status: 400 });
    await addReading({ id: form.token, jobId: job.id, reading: entered.reading, takenAt: now });
  }
  return { problem: undefined };
}

export default function Probe({ loaderData }: Route.ComponentProps) {
  const { circuit, looks, states, token } = loaderData;
  const lettersOn = useRouteLoaderData<typeof rootLoader>("root")?.keys ?? true;
  const [skip, setSkip] = useState({ token, by: 0 });
  const by = skip.token === token ? skip.by : 0;
  const offered = looks[looks.length > 0 ? by % looks.length : 0];
  const [chosen, setChosen] = useState<{ token: string; setting: string } | null>(null);
  const setting =
    chosen && chosen.token === token
      ? chosen.setting
      : (offered?.setting ?? circuit.settings.at(-1) ?? "off");
  const [keyOn, setKeyOn] = useState(true);
  const [under, setUnder] = useState("healthy");
  const [help, setHelp] = useState(false);
  const [zoom, setZoom] = useState<number | null>(null);
  const [ahead, setAhead] = useState(false);
  const [board, setBoard] = useState(false);
  const [lit, setLit] = useState<LitCell | null>(null);
  const [point, setPoint] = useState<string | null>(null);
  const [flipped, setFlipped] = useState(false);
  const sheet = useRef<HTMLDivElement>(null);
  const touched = offered?.probe ?? null;
  // Zoomed in, the sheet follows the point the next look touches.
  useEffect(() => {
    if (zoom === null || touched === null) return;
    sheet.current?.querySelector("[data-probe]")?.scrollIntoView({ block: "center", inline: "center" });
  }, [zoom, touched]);
  const fetcher = useFetcher<{ problem?: string }>({ key: "reading" });
  const shownUnder = states.some((state) => state.under === under) ? under : "healthy";
  const state = states.find(
    (one) => one.under === shownUnder && one.setting === setting && one.key === (keyOn ? "run" : "off"),
  );
  const keys = useMemo(
    () => ({
      choose: (key: string): boolean => {
        const index =
          offered?.choices?.findIndex((choice, i) => keyOf(offered.test, choice, i) === key) ?? -1;
        const choice = offered?.choices?.[index];
        if (!offered || choice === undefined) return false;
        void fetcher.submit(
          { intent: "reading", token, look: offered.look, seen: choice },
          { method: "post" },
        );
        return true;
      },
      digit:
        offered?.choices === null
          ? (digit: string) => void window.dispatchEvent(new CustomEvent("airway:digit", { detail: digit }))
          : null,
      next: () => setSkip({ token, by: by + 1 }),
      strikeLast: () => void fetcher.submit({ intent: "strike-last" }, { method: "post" }),
      speed: (step: 1 | -1) => {
        const at = circuit.settings.indexOf(setting) + step;
        const moved = circuit.settings[Math.min(circuit.settings.length - 1, Math.max(0, at))];
        if (moved !== undefined) setChosen({ token, setting: moved });
      },
      help: () => setHelp(true),
      flip: () => setFlipped((before) => !before),
      board: () => setBoard((before) => !before),
    }),
    [offered, token, by, setting, circuit, fetcher],
  );
  useProbeKeys(lettersOn, keys);
  useSharedJob(loaderData.id, loaderData.version);
  const cleared = useMemo(() => new Set(loaderData.cleared), [loaderData.cleared]);
  const key = keyOn ? "run" : "off";
  const atPoint = [
    { fault: "healthy", words: "healthy" },
    ...loaderData.under.map(({ fault, words }) => ({ fault, words: `as if ${words}` })),
  ].flatMap(({ fault, words }) => {
    const own = states.find((one) => one.under === fault && one.setting === setting && one.key === key);
    return own ? [{ title: words, state: own }] : [];
  });
  return (
    <div className="grid min-h-0 grow md:grid-cols-[minmax(0,1fr)_23rem]">
      <main id="main" className="flex min-w-0 flex-col gap-2.5 px-5 py-2.5 max-md:order-2">
        <div className="flex flex-wrap items-center gap-2">
          <ToggleGroup.Root
            type="single"
            value={setting}
            onValueChange={(value) => value && setChosen({ token, setting: value })}
            aria-label="Speed shown on the sheet"
            className="flex overflow-hidden rounded-card border-[1.5px] border-ink bg-card"
          >
            {circuit.settings.map((name) => (
              <ToggleGroup.Item
                key={name}
                value={name}
                className="grid min-h-12 min-w-[3.1rem] place-items-center border-l border-rule px-1 leading-none first:border-l-0 data-[state=on]:bg-ink data-[state=on]:text-paper"
              >
                <span className="font-bold">{name}</span>
                <span className="text-[0.8rem]">{loaderData.heard[name] ?? "·"}</span>
              </ToggleGroup.Item>
            ))}
          </ToggleGroup.Root>
          <button
            type="button"
            className="btn px-3 text-base"
            onClick={() => setKeyOn(!keyOn)}
            aria-pressed={keyOn}
          >
            Key <b>{keyOn ? "run" : "out"}</b>
          </button>
          <label className="flex items-center gap-2 text-base">
            <span className="text-soft">as if</span>
            <select
              className="field w-40"
              value={shownUnder}
              onChange={({ target }) => setUnder(target.value)}
            >
              <option value="healthy">healthy</option>
              {loaderData.under.map(({ fault, words }) => (
                <option key={fault} value={fault}>
                  {words}
                </option>
              ))}
            </select>
          </label>
        </div>
        <div className="sheet-card relative min-h-96 grow md:h-0">
          <div className="absolute top-1.5 right-1.5 z-10 flex gap-1">
            {zooms.map(({ title, size }) => (
              <button
                key={title}
                type="button"
                aria-pressed={zoom === size}
                onClick={() => setZoom(size)}
                className="min-h-8 rounded-card border border-[var(--edge)] bg-card px-2 text-base aria-pressed:bg-ink aria-pressed:text-paper"
              >
                {title}
              </button>
            ))}
          </div>
          <div
            ref={sheet}
            className="overflow-auto p-1 md:absolute md:inset-0"
            tabIndex={zoom === null ? undefined : 0}
          >
            {state && (
              <CircuitSheet
                circuit={circuit}
                layout={loaderData.layout}
                state={state}
                doubt={loaderData.doubt}
                cleared={cleared}
                probe={offered?.probe ?? null}
                fullVolts={loaderData.fullVolts}
                zoom={zoom}
                lit={lit?.setting === setting ? lit.part : null}
                chosen={point}
                onPoint={(name) => {
                  setPoint(name);
                  setFlipped(false);
                }}
              />
            )}
          </div>
        </div>
        <details
          className="sheet-card"
          open={board}
          onToggle={({ currentTarget }) => setBoard(currentTarget.open)}
        >
          <summary className="flex min-h-11 cursor-pointer items-center px-3 font-semibold">
            Path board
          </summary>
          <div className="max-h-72 overflow-auto" tabIndex={board ? 0 : undefined}>
            <PathBoard
              settings={circuit.settings}
              heard={loaderData.heard}
              lines={loaderData.board}
              lit={lit}
              onLight={(cell) => {
                setLit(cell);
                setChosen({ token, setting: cell.setting });
                setKeyOn(true);
              }}
            />
          </div>
        </details>
        <div className="flex items-start gap-2">
          <OwnReading token={token} {...loaderData.own} />
          <KeyHelp open={help} onOpenChange={setHelp} lettersOn={lettersOn} />
        </div>
      </main>
      <aside className="flex flex-col gap-3 overflow-y-auto border-rule bg-bench p-3.5 md:border-l">
        {point && (
          <PointPanel
            key={`${point} ${token}`}
            {...{ circuit, point, setting, keyOn, flipped, token }}
            states={atPoint}
            fullVolts={loaderData.fullVolts}
            onFlip={keys.flip}
            onClose={() => setPoint(null)}
          />
        )}
        {offered ? (
          <NextLook
            offered={offered}
            token={token}
            lettersOn={lettersOn}
            position={by > 0 ? `, ${(by % looks.length) + 1} of ${looks.length}` : ""}
            onNext={keys.next}
          />
        ) : (
          <p className="sheet-card p-4">Nothing left to look at with a light and a meter.</p>
        )}
        <p className="text-base">
          {loaderData.verdict.state === "open" ? (
            <>
              <b>Not yet.</b> Likeliest: {loaderData.verdict.name}, {percent(loaderData.verdict.p)}.{" "}
            </>
          ) : (
            <>
              <b>{loaderData.verdict.state === "settled" ? "Settled" : "Best guess"}:</b>{" "}
              {loaderData.verdict.name}, {percent(loaderData.verdict.p)}.{" "}
            </>
          )}
          <Link to={`/jobs/${loaderData.id}/verdict`} className="font-semibold">
            Read the verdict
          </Link>
        </p>
        <OtherLooks looks={looks} shown={offered?.look ?? null} onTake={(at) => setSkip({ token, by: at })} />
        <details
          className="border-y border-rule"
          open={ahead}
          onToggle={({ currentTarget }) => setAhead(currentTarget.open)}
        >
          <summary className="flex min-h-11 cursor-pointer items-center font-semibold">
            What comes after
          </summary>
          {ahead && <PlanAhead jobId={loaderData.id} school={loaderData.school} token={token} />}
        </details>
        {shownUnder !== "healthy" && (
          <AsIfTrue
            title={loaderData.under.find(({ fault }) => fault === shownUnder)?.words ?? ""}
            lines={loaderData.agreements[shownUnder] ?? []}
            onHealthy={() => setUnder("healthy")}
          />
        )}
        <Suspects
          suspects={loaderData.suspects}
          under={shownUnder}
          shownFaults={loaderData.under.map(({ fault }) => fault)}
          onShow={setUnder}
        />
        <Evidence lines={loaderData.evidence} conflicts={loaderData.conflicts} />
      </aside>
    </div>
  );
}
