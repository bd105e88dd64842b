import { Form } from "react-bootstrap";

type Props = {
  id: string;
  label: string;
  value: string;
  values: readonly string[];
  words: (value: string) => string;
  onChange: (value: string) => void;
};

/** One of a few values, by its words. */
export function Choice({ id, label, value, values, words, onChange }: Props) {
  return (
    <Form.Group className="mb-3" controlId={id}>
      <Form.Label>{label}</Form.Label>
      <Form.Select value={value} onChange={(event) => onChange(event.target.value)}>
        {values.map((one) => (
          <option key={one} value={one}>
            {words(one)}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  );
}
