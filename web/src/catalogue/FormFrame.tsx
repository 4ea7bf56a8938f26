/** The frame of a form in the catalogue: what is wrong, and the ways out of it. */
import type { ReactNode } from "react";

interface Props {
  label: string;
  /** What is wrong, in words; empty if nothing is. */
  wrong: string;
  /** Whether it can be kept. */
  keeps: boolean;
  keep(): void;
  remove: (() => void) | undefined;
  close(): void;
  children: ReactNode;
}

export function FormFrame({ label, wrong, keeps, keep, remove, close, children }: Props) {
  return (
    <form
      className="model-form"
      aria-label={label}
      onSubmit={(event) => {
        event.preventDefault();
        if (keeps) keep();
      }}
    >
      {children}
      {wrong !== "" && (
        <p className="hint" role="status">
          {wrong}.
        </p>
      )}
      <div className="row">
        <button type="submit" className="plain-button plain-primary" disabled={!keeps}>
          Keep it
        </button>
        <button type="button" className="plain-button" onClick={close}>
          Leave it
        </button>
        {remove && (
          <button type="button" className="plain-button" onClick={remove}>
            Delete it
          </button>
        )}
      </div>
    </form>
  );
}
