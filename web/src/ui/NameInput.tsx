/** The name of a thing in hand, typed where it stands: taken over when the hand leaves it, an empty one is not. */
import { Input } from "antd";
import { useState } from "react";

interface Props {
  name: string;
  /** What it is called to who does not see it; none where a label stands beside it. */
  label?: string;
  onName(name: string): void;
}

export function NameInput({ name, label, onName }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const commit = (): void => {
    const taken = typed?.trim();
    if (taken && taken !== name) onName(taken);
    setTyped(null);
  };
  return (
    <Input
      size="small"
      aria-label={label}
      maxLength={200}
      value={typed ?? name}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={commit}
      onPressEnter={(event) => event.currentTarget.blur()}
    />
  );
}
