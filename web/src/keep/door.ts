/** How this browser stands to the desk: whether it may come in, and whether it trusts what the desk shows. */
import { create } from "zustand";

interface Door {
  /** Whether the desk knows this device; always true at the desk itself. */
  paired: boolean;
  /** Whether the browser takes the desk's certificate: if not it keeps no application for when the network is gone. */
  trusted: boolean;
}

export const useDoor = create<Door>(() => ({ paired: true, trusted: true }));

/** Where a device is paired: a page of the server's own, outside of the application. */
export const PAIRING = "/pair";
