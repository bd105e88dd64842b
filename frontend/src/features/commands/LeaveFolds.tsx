import { Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { Choice } from "../../ui/Choice";
import { Fold } from "../../ui/Fold";
import { LEVELS } from "../../ui/levels";
import { PeopleField } from "../../ui/PeopleField";
import { oftenWords, whoWords } from "./sentences";
import type { Cooldown, Leave } from "./types";

type Props = {
  leave: Leave;
  usual: Cooldown;
  platforms: string[];
  problem: { field: string | null; detail: string } | null;
  onChange: (changes: Partial<Leave>) => void;
};

/** Who may use it and how often, each folded into its sentence. */
export function LeaveFolds({ leave, usual, platforms, problem, onChange }: Props) {
  const { t } = useTranslation();
  const wrong = (field: string) => (problem?.field === field ? problem.detail : null);
  return (
    <>
      <Fold title={t("commands.who")} says={whoWords(t, leave)} open={Boolean(wrong("needs"))}>
        <Choice
          id="choice-level"
          label={t("commands.level")}
          value={leave.level}
          values={LEVELS}
          words={(level) => t(`levelsUp.${level}`)}
          onChange={(level) => onChange({ level })}
        />
        <PeopleField
          label={t("commands.people")}
          help={t("commands.peopleHelp")}
          people={leave.people}
          platforms={platforms}
          problem={wrong("needs")}
          onChange={(people) => onChange({ people })}
        />
        <PeopleField
          label={t("commands.never")}
          help={t("commands.neverHelp")}
          people={leave.never}
          platforms={platforms}
          onChange={(never) => onChange({ never })}
        />
      </Fold>
      <Fold
        title={t("commands.cooldown")}
        says={`${oftenWords(t, leave, usual)}${leave.cooling === "default" ? t("commands.channels") : ""}`}
        open={Boolean(wrong("cooldown"))}
      >
        <Choice
          id="choice-cooling"
          label={t("commands.cooldown")}
          value={leave.cooling}
          values={["default", "none", "own"]}
          words={(kind) => t(`commands.cooldownKinds.${kind}`)}
          onChange={(cooling) => onChange({ cooling: cooling as Leave["cooling"] })}
        />
        {leave.cooling === "own" && (
          <div className="pair">
            {(["everyone", "person"] as const).map((name) => (
              <Form.Group className="mb-3" controlId={`cool-${name}`} key={name}>
                <Form.Label>{t(`commands.${name}`)}</Form.Label>
                <Form.Control
                  value={leave[name]}
                  isInvalid={Boolean(wrong("cooldown"))}
                  placeholder="30s"
                  onChange={(event) => onChange({ [name]: event.target.value })}
                />
              </Form.Group>
            ))}
            <Form.Text className={wrong("cooldown") ? "text-danger" : ""}>
              {wrong("cooldown") ?? t("commands.durationHelp")}
            </Form.Text>
            <Choice
              id="choice-skip"
              label={t("commands.skipFrom")}
              value={leave.skipFrom}
              values={LEVELS}
              words={(level) => t(`levelsUp.${level}`)}
              onChange={(skipFrom) => onChange({ skipFrom })}
            />
          </div>
        )}
      </Fold>
    </>
  );
}
