/**
 * Figures with the state that they are of. Where that is not the state in hand they stand, and are seen to be behind: the one mark
 * for that, on every panel (`data-settled`, for tests too).
 */
import type { ReactNode } from "react";
import "./told.css";

interface Props {
  settled: boolean;
  className?: string;
  testId?: string;
  label?: string;
  children?: ReactNode;
}

export function Told({ settled, className = "", testId, label, children }: Props) {
  const Tag = label === undefined ? "div" : "section";
  return (
    <Tag
      className={`told ${className}`}
      data-testid={testId}
      data-settled={settled}
      aria-label={label}
      aria-busy={!settled}
    >
      {children}
    </Tag>
  );
}
