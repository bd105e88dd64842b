import { Form } from "react-bootstrap";

type Props = {
  /** What can be searched for; shown while it is empty. */
  label: string;
  /** Where it stands, for those who do not see it. */
  longLabel?: string;
  small?: boolean;
  value: string;
  onChange: (text: string) => void;
};

/** A field that narrows what is listed below it. */
export function SearchField({ label, longLabel = label, small = false, value, onChange }: Props) {
  return (
    <Form.Control
      type="search"
      size={small ? "sm" : undefined}
      value={value}
      placeholder={label}
      aria-label={longLabel}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}
