/** What follows the question mark of the address: filters, what is open beside a view. */
import { useCallback } from "react";
import { createSearchParams, useLocation, useNavigate, useSearchParams } from "react-router";
import type { NavigateOptions, URLSearchParamsInit } from "react-router";

export type SetAddress = (next: URLSearchParamsInit | ((old: URLSearchParams) => URLSearchParamsInit), options?: NavigateOptions) => void;

/** As it stands, and how it is changed: from what it is in that very moment. Whoever has gone on to another view is not called back. */
export function useAddress(): [URLSearchParams, SetAddress] {
  const [address] = useSearchParams();
  const { pathname } = useLocation();
  const navigate = useNavigate();
  const set = useCallback<SetAddress>(
    (next, options) => {
      if (window.location.pathname !== pathname) return;
      const to = createSearchParams(typeof next === "function" ? next(new URLSearchParams(window.location.search)) : next);
      void navigate(`?${to}`, options);
    },
    [navigate, pathname],
  );
  return [address, set];
}
