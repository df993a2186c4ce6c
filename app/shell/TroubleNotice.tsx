/** Failures in the background since the start, shown at the top of every page. */
export function TroubleNotice({ troubles }: { troubles: readonly string[] }) {
  if (troubles.length === 0) return null;
  return (
    <section aria-label="Notices" className="no-print border-b-2 border-danger bg-paper px-4 py-2 text-base">
      <ul>
        {troubles.map((words) => (
          <li key={words}>{words}</li>
        ))}
      </ul>
    </section>
  );
}
