/** The fields of the survey forms: big enough for a glove, kept as they are typed. */
import { Input } from "antd";
import type { ReactNode } from "react";
import { RadioGroup } from "./controls";

interface FrameProps {
  name: string;
  label: string;
  needed?: boolean;
  hint?: ReactNode;
  children: ReactNode;
}

/** A label above a control; `name` lets the list of what is left find it. */
export function Field({ name, label, needed, hint, children }: FrameProps) {
  return (
    <div className="field" data-field={name}>
      <span className="field-label">
        {label}
        {needed && <span className="needed"> needed</span>}
      </span>
      {children}
      {hint && <span className="fine">{hint}</span>}
    </div>
  );
}

interface TextProps {
  name: string;
  label: string;
  needed?: boolean;
  hint?: ReactNode;
  value: string | null | undefined;
  onChange(value: string | undefined): void;
  lines?: number;
}

export function TextField({ name, label, needed = false, hint, value, onChange, lines = 1 }: TextProps) {
  const change = (text: string): void => onChange(text === "" ? undefined : text);
  return (
    <Field name={name} label={label} needed={needed} hint={hint}>
      {lines > 1 ? (
        <Input.TextArea
          aria-label={label}
          size="large"
          autoSize={{ minRows: lines, maxRows: 8 }}
          maxLength={2000}
          value={value ?? ""}
          onChange={(event) => change(event.target.value)}
        />
      ) : (
        <Input
          aria-label={label}
          size="large"
          maxLength={2000}
          value={value ?? ""}
          onChange={(event) => change(event.target.value)}
        />
      )}
    </Field>
  );
}

interface ChoiceProps<T extends string> {
  name: string;
  label: string;
  needed?: boolean;
  hint?: ReactNode;
  value: T | null | undefined;
  options: readonly (readonly [T, string])[];
  onChange(value: T): void;
}

export function ChoiceField<T extends string>({
  name,
  label,
  needed = false,
  hint,
  value,
  options,
  onChange,
}: ChoiceProps<T>) {
  return (
    <Field name={name} label={label} needed={needed} hint={hint}>
      <RadioGroup
        aria-label={label}
        size="large"
        optionType="button"
        buttonStyle="solid"
        value={value ?? null}
        className="choices"
        options={options.map(([option, word]) => ({ value: option, label: word }))}
        onChange={(event) => onChange(event.target.value as T)}
      />
    </Field>
  );
}

const YES_NO = [
  ["yes", "Yes"],
  ["no", "No"],
] as const;

export function YesNoField({
  value,
  onChange,
  ...rest
}: Omit<ChoiceProps<"yes">, "value" | "options" | "onChange"> & {
  value: boolean | null | undefined;
  onChange(value: boolean): void;
}) {
  return (
    <ChoiceField
      {...rest}
      value={value === undefined || value === null ? null : value ? "yes" : "no"}
      options={YES_NO}
      onChange={(word) => onChange(word === "yes")}
    />
  );
}
