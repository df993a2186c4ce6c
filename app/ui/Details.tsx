/** Figures behind a sentence, folded away until someone wants them. */
export const Details = ({ children }: { readonly children: React.ReactNode }) => (
  <details className="text-base text-soft">
    <summary className="min-h-11 cursor-pointer py-2 underline">Details</summary>
    <div className="figures">{children}</div>
  </details>
);
