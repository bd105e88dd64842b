import { Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";

type Props = {
  label: string;
  platforms: string[];
  value: string;
  onChange: (platform: string) => void;
  small?: boolean;
};

/** The platform that a bare name is meant on. */
export function PlatformSelect({ label, platforms, value, onChange, small = false }: Props) {
  const { t } = useTranslation();
  return (
    <Form.Select
      size={small ? "sm" : undefined}
      aria-label={label}
      value={value}
      onChange={(event) => onChange(event.target.value)}
    >
      {platforms.map((one) => (
        <option key={one} value={one}>
          {t("people.on", { platform: t(`platforms.${one}`, { defaultValue: one }) })}
        </option>
      ))}
    </Form.Select>
  );
}
