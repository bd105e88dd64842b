import { useState } from "react";
import { useTranslation } from "react-i18next";
import { ListField } from "./ListField";
import { PlatformSelect } from "./PlatformSelect";

type Props = {
  label: string;
  help: string;
  people: string[];
  platforms: string[];
  problem?: string | null;
  onChange: (people: string[]) => void;
};

/** People by their log-ins; a bare name is one on the platform chosen beside. */
export function PeopleField({ label, help, people, platforms, problem, onChange }: Props) {
  const { t } = useTranslation();
  const [platform, setPlatform] = useState(platforms[0] ?? "brook");
  const whole = (name: string) => (name.includes(":") ? name : `${platform}:@${name.replace(/^@/, "")}`);
  return (
    <div className="people-field">
      <ListField
        label={label}
        help={help}
        items={people}
        problem={problem}
        onChange={(items) => onChange([...new Set(items.map(whole))])}
      />
      <PlatformSelect
        small
        label={t("people.platform", { label })}
        platforms={platforms}
        value={platform}
        onChange={setPlatform}
      />
    </div>
  );
}
