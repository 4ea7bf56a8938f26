/** What is typed for a walk test and not kept yet: on this device, whatever page is opened in between. */
import { create } from "zustand";
import { persist } from "zustand/middleware";

export interface TryDraft {
  way?: "marks" | "plate" | "yes";
  apart_m?: number;
  upright?: boolean;
  shown?: string;
  read?: string;
  moved?: string;
}

interface Tries {
  drafts: Record<string, TryDraft>;
  put(key: string, change: TryDraft): void;
  drop(key: string): void;
}

/** So many are held: the oldest go. */
const MOST = 200;

export const useTries = create<Tries>()(
  persist(
    (set) => ({
      drafts: {},
      put: (key, change) =>
        set(({ drafts: { [key]: held, ...others } }) => ({
          drafts: Object.fromEntries([...Object.entries(others).slice(1 - MOST), [key, { ...held, ...change }]]),
        })),
      drop: (key) =>
        set(({ drafts }) => ({ drafts: Object.fromEntries(Object.entries(drafts).filter(([held]) => held !== key)) })),
    }),
    { name: "bright-angle/tries" },
  ),
);
