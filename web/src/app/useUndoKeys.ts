/** Undo and redo by keys, on every stage and wherever the focus is, but where text is being typed: there they belong to the text. */
import { useEffect } from "react";
import { tinykeys } from "tinykeys";
import { useSite } from "../keep/store";
import { nothingTyped, typing } from "../ui/keys";

export function useUndoKeys(): void {
  useEffect(() => {
    const { undo, redo } = useSite.getState();
    const key =
      (act: () => void) =>
      (event: KeyboardEvent): void => {
        if (typing(event) && !nothingTyped(event)) return;
        event.preventDefault();
        act();
      };
    return tinykeys(window, { "$mod+z": key(undo), "$mod+Shift+Z": key(redo), "$mod+y": key(redo) });
  }, []);
}
