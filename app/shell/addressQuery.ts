import { useEffect, useRef, useState } from "react";
import { useLocation, useSearchParams } from "react-router";

/** Marks the addresses this hook set, so that others are told apart. */
const own = "own query";

/**
 * The query of the address, and how to change it without a new page. A change shows at once and the address follows;
 * with the router's own setter a second change made meanwhile would undo the first, and a field would lose letters.
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
