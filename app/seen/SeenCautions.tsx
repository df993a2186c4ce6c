import type { Caution } from "@core/diagnose/tests/caution";
import { cautionWords } from "@words/cautionWords";
import { QueuedForm, usePending } from "../entries/QueuedForm";

/** The cautions of the next test; once acknowledged on a job, they are not shown again. */
export function SeenCautions({ cautions, token }: { cautions: readonly Caution[]; token: string }) {
  const pending = usePending({ intent: "cautions" });
  const read = (pending?.cautions ?? "").split(" ");
  const left = cautions.filter((caution) => !read.includes(caution));
  if (left.length === 0) return null;
  return (
    <QueuedForm
      words={() => "cautions read"}
      className="mt-2 border-l-4 border-danger pl-2.5 text-base leading-snug"
    >
      <p>{left.map((caution) => cautionWords[caution]).join(" ")}</p>
      <input type="hidden" name="intent" value="cautions" />
      <input type="hidden" name="token" value={token} />
      <input type="hidden" name="cautions" value={left.join(" ")} />
      <button type="submit" className="min-h-11 pr-2 underline" aria-label="Mark these cautions as read">
        OK, read
      </button>
    </QueuedForm>
  );
}
