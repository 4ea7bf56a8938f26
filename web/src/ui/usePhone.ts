/** Whether the page is as narrow as a phone: what does not fit into its one line goes into a menu. */
import { useSyncExternalStore } from "react";

const narrow = typeof window === "undefined" ? null : window.matchMedia("(max-width: 600px)");

export const usePhone = (): boolean =>
  useSyncExternalStore(
    (changed) => {
      narrow?.addEventListener("change", changed);
      return () => narrow?.removeEventListener("change", changed);
    },
    () => narrow?.matches ?? false,
  );
