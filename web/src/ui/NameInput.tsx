/** The name of a thing in hand, typed where it stands: taken over when the hand leaves it, an empty one is not. */
import { Input } from "antd";
import { useState } from "react";
import { useTakenWhenLeft } from "./typed";

interface Props {
  /** The thing that has the name, by its id: what is typed for one thing never goes to another. */
  of: string;
  name: string;
  /** What it is called to who does not see it; none where a label stands beside it. */
  label?: string;
  className?: string;
  /** How it stands on the page: a field of a card, or a title. */
  looks?: "field" | "title";
  disabled?: boolean;
  onName(name: string): void;
}

export function NameInput(props: Props) {
  return <Typed key={props.of} {...props} />;
}

function Typed({ name, label, className = "", looks = "field", disabled = false, onName }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const commit = (): void => {
    const taken = typed?.trim();
    if (taken && taken !== name) onName(taken);
    setTyped(null);
  };
  useTakenWhenLeft(commit);
  return (
    <Input
      {...(looks === "title" ? { variant: "borderless" as const } : { size: "small" as const })}
      className={className}
      disabled={disabled}
      aria-label={label}
      data-typing={typed !== null}
      maxLength={200}
      value={typed ?? name}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={commit}
      onPressEnter={(event) => event.currentTarget.blur()}
    />
  );
}
