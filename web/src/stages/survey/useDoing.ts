/** Work that takes a while and may be refused: whether it is under way, and why it did not go. */
import { useState } from "react";
import { Refused } from "../../core/errors";
import { Away } from "../../keep/http";

export function useDoing() {
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState("");
  const doing = async (work: () => Promise<void>): Promise<void> => {
    setBusy(true);
    setFault("");
    try {
      await work();
    } catch (error) {
      if (error instanceof Away || error instanceof Refused) setFault(error.message);
      else throw error;
    } finally {
      setBusy(false);
    }
  };
  return { busy, fault, setFault, doing };
}
