import { useEffect, useRef, useState } from "react";
import { useLocation, useSearchParams } from "react-router";

/** Marks the addresses this hook set, so that others are told apart. */
const own = "own query";

/**
 * The query of the address, and a function that changes it without leaving the page. A change shows at once, and the
 * address follows. With the router's own setter, a second change made before the first arrived would undo it.
 */
export function useAddressQuery(): [
  URLSearchParams,
  (change: (now: URLSearchParams) => URLSearchParams) => void,
] {
  const state: unknown = useLocation().state;
  const [search, setSearch] = useSearchParams();
  const [query, setQuery] = useState(search);
  const [taken, setTaken] = useState(search);
  if (taken !== search) {
    setTaken(search);
    // A link or the back key changed the address.
    if (state !== own) setQuery(search);
  }
  const latest = useRef(query);
  useEffect(() => {
    latest.current = query;
  }, [query]);
  return [
    query,
    (change) => {
      latest.current = change(new URLSearchParams(latest.current));
      setQuery(latest.current);
      setSearch(latest.current, { replace: true, preventScrollReset: true, state: own });
    },
  ];
}
