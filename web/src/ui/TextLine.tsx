/** A line of text under its word: taken with Enter, when the hand leaves it, or when it goes; what is wrong stands until it is right. */
import { Input } from "antd";
import { useState } from "react";
import { useTakenWhenLeft } from "./typed";

interface Props {
  /** The thing that it is of, by its id: what is typed for one thing never goes to another. */
  of: string;
  /** Empty where its place says it, as in a table. */
  word: string;
  /** What it is called to who does not see where it stands; its word where left out. */
  label?: string;
  placeholder?: string;
  value: string;
  right?: (text: string) => boolean;
  wrong?: string;
  onChange(text: string): void;
}

export function TextLine(props: Props) {
  return <Typed key={props.of} {...props} />;
}

function Typed({ word, label, placeholder, value, right = () => true, wrong, onChange }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const text = (typed ?? value).trim();
  const faulty = text !== "" && !right(text);
  const keep = (): void => {
    if (faulty) return;
    if (typed !== null && text !== value) onChange(text);
    setTyped(null);
  };
  useTakenWhenLeft(keep);
  return (
    <label className="stacked">
      {word}
      <Input
        size="small"
        value={typed ?? value}
        maxLength={400}
        aria-label={label}
        {...(placeholder ? { placeholder } : {})}
        data-typing={typed !== null}
        {...(faulty ? { status: "error" as const } : {})}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={keep}
        onPressEnter={keep}
      />
      {faulty && <span className="verdict-word-broken fine">{wrong}</span>}
    </label>
  );
}
