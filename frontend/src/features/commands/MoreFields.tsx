import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import type { UseFormReturn } from "react-hook-form";
import { useTranslation } from "react-i18next";
import { ListField } from "../../ui/ListField";
import type { Draft } from "./types";

const LEVELS = ["everyone", "follower", "regular", "subscriber", "vip", "moderator", "lead", "broadcaster"];
type Props = {
  form: UseFormReturn<Draft>;
  problem: { detail: string } | null;
  field: string | null;
  cue?: boolean;
};

/** Everything about a command that its name and reply are not. */
export function MoreFields({ form, problem, field, cue = false }: Props) {
  const { t } = useTranslation();
  const [open, setOpen] = useState(false);
  const shown = open || ["aliases", "cooldown", "needs"].includes(field ?? "");
  const cooling = form.watch("cooling");
  if (!shown)
    return (
      <p>
        <Button variant="link" className="p-0" aria-expanded={false} onClick={() => setOpen(true)}>
          {t("commands.more")}
        </Button>
      </p>
    );
  return (
    <div className="more-fields">
      <Button variant="link" className="p-0 mb-2" aria-expanded onClick={() => setOpen(false)}>
        {t("commands.fewer")}
      </Button>
      <div className="pair">
        <Choice form={form} name="level" label={t("commands.who")} values={LEVELS} words="levelsUp" />
        <Choice
          form={form}
          name="cooling"
          label={t("commands.cooldown")}
          values={["default", "none", "own"]}
          words="commands.cooldownKinds"
        />
      </div>
      {cooling === "own" && (
        <div className="pair">
          {(["everyone", "person"] as const).map((name) => (
            <Form.Group className="mb-3" controlId={`cool-${name}`} key={name}>
              <Form.Label>{t(`commands.${name}`)}</Form.Label>
              <Form.Control {...form.register(name)} isInvalid={field === "cooldown"} placeholder="30s" />
            </Form.Group>
          ))}
          <Form.Text className={field === "cooldown" ? "text-danger" : ""}>
            {field === "cooldown" ? problem?.detail : t("commands.durationHelp")}
          </Form.Text>
        </div>
      )}
      {!cue && (
        <ListField
          label={t("commands.aliases")}
          help={t("commands.aliasesHelp")}
          items={form.watch("aliases")}
          onChange={(items) => form.setValue("aliases", items)}
          problem={field === "aliases" ? problem?.detail : null}
        />
      )}
      <div className="pair">
        <Choice
          form={form}
          name="mode"
          label={t("commands.mode")}
          values={["say", "reply", "private"]}
          words="commands.modes"
        />
        <Choice
          form={form}
          name="when"
          label={t("commands.when")}
          values={["always", "live", "offline"]}
          words="commands.whens"
        />
      </div>
      <Form.Group className="mb-3" controlId="command-folder">
        <Form.Label>{t("commands.folder")}</Form.Label>
        <Form.Control {...form.register("folder")} />
      </Form.Group>
    </div>
  );
}

type ChoiceProps = {
  form: UseFormReturn<Draft>;
  name: "level" | "cooling" | "mode" | "when";
  label: string;
  values: string[];
  words: string;
};

function Choice({ form, name, label, values, words }: ChoiceProps) {
  const { t } = useTranslation();
  return (
    <Form.Group className="mb-3" controlId={`choice-${name}`}>
      <Form.Label>{label}</Form.Label>
      <Form.Select {...form.register(name)}>
        {values.map((value) => (
          <option key={value} value={value}>
            {t(`${words}.${value}`)}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  );
}
