/** What is typed for a walk test, or to link two heads, and not kept yet: on this device, whatever page is opened in between. */
import { create } from "zustand";
import { persist } from "zustand/middleware";
import type { TurnedAt } from "../core/types";

export interface TryDraft {
  way?: "marks" | "plate" | "yes";
  apart_m?: number;
  upright?: boolean;
  shown?: string;
  read?: string;
  moved?: string;
  /** Of a head that is turned from afar: how it stood when its picture was taken, as far as that is typed. */
  stood?: { [name in keyof TurnedAt]?: number | undefined };
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
