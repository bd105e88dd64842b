import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { ListField } from "../../ui/ListField";
import { useLive } from "../../ui/useLive";
import { type Field, type FilterView, spanField, type Values, valueWords } from "./fields";

type Props = {
  filter: FilterView;
  mood: string;
  values: Values;
  changes: Values;
  change: (changes: Values) => void;
};

const LEVELS = ["follower", "regular", "subscriber", "vip", "moderator", "lead", "broadcaster"];
const STEPS = ["nudge", "remove", "timeout", "ban"];

/** One value of a filter, with what the mood says where the channel differs. */
export function ValueField({ field, ...props }: Props & { field: Field }) {
  const { t } = useTranslation();
  const { filter, mood, values, changes, change } = props;
  const { name, kind } = field;
  const usual = filter.mood[name];
  const differs = name in changes ? changes[name] !== null : filter.own.includes(name);
  const label = t(`rules.fields.${name}`);
  const id = `field-${name}`;
  const value = values[name];
  if (kind === "flag")
    return (
      <Form.Check
        className="mb-3"
        type="switch"
        id={id}
        label={label}
        checked={Boolean(value)}
        onChange={(event) => change({ [name]: event.target.checked })}
      />
    );
  return (
    <Form.Group className="mb-3" controlId={id}>
      <Form.Label>{label}</Form.Label>
      {kind === "share" && (
        <div className="d-flex align-items-center gap-2">
          <Form.Control
            type="number"
            min={1}
            max={100}
            className="percent"
            value={String(Math.round(Number(value) * 100))}
            onChange={(event) => change({ [name]: Number(event.target.value) / 100 })}
          />
          <span>%</span>
        </div>
      )}
      {kind === "count" && (
        <Form.Control
          type="number"
          min={0}
          value={String(value)}
          onChange={(event) => change({ [name]: Number(event.target.value) })}
        />
      )}
      {kind === "span" && (
        <Form.Control
          value={spanField(value)}
          aria-describedby={`${id}-help`}
          onChange={(event) => change({ [name]: event.target.value })}
        />
      )}
      <Form.Text id={`${id}-help`}>
        {kind === "span" && `${t("rules.spanHelp")} `}
        {usual !== undefined && differs && (
          <>
            <b>{t("rules.ownMark")}</b> ·{" "}
            {t("rules.differ", { mood: t(`moods.${mood}`), value: valueWords(t, kind, usual) })}{" "}
            <Button variant="link" size="sm" className="p-0" onClick={() => change({ [name]: null })}>
              {t("rules.backToMood")}
            </Button>
          </>
        )}
        {filter.tonight.includes(name) && <span className="plum"> · {t("rules.tonightMark")}</span>}
      </Form.Text>
    </Form.Group>
  );
}

/** What every filter has, folded away behind a sentence that says how it stands. */
export function CommonFields({ values, change }: Props) {
  const { t } = useTranslation();
  const [open, setOpen] = useState(false);
  const known = useLive((state) => state.parts.stream)?.platforms ?? [];
  const platforms = values.platforms as string[] | null;
  const step = values.step as string | null;
  const strikes = Number(values.strikes);
  const names = known.map((platform) => platform.name);
  const shown = (name: string) => t(`platforms.${name}`, { defaultValue: name });
  const then = step
    ? t("rules.thenStep", { step: t(`rules.steps.${step}`) })
    : t(strikes === 0 ? "rules.thenNoted" : "rules.thenLadder");
  const where = platforms
    ? `${t("rules.onlyOn", { platforms: platforms.map(shown).join(", ") || "—" })}.`
    : `${t("rules.allPlatforms")}.`;
  return (
    <div className="common">
      <button type="button" className="fold" aria-expanded={open} onClick={() => setOpen(!open)}>
        <b>{t("rules.more")}</b>
        <span className="quiet">
          {t("rules.moreSentence", { who: t(`levelsUp.${values.exempt_from}`), then, where })}
        </span>
      </button>
      {open && (
        <div className="mt-2">
          <Form.Group className="mb-3" controlId="exempt">
            <Form.Label>{t("rules.leftAlone")}</Form.Label>
            <Form.Select
              value={String(values.exempt_from)}
              onChange={(event) => change({ exempt_from: event.target.value })}
            >
              {LEVELS.map((level) => (
                <option key={level} value={level}>
                  {t(`levelsUp.${level}`)}
                </option>
              ))}
            </Form.Select>
          </Form.Group>
          <ListField
            label={t("rules.exemptPeople")}
            help={t("rules.exemptPeopleHelp")}
            items={(values.exempt_people as string[]) ?? []}
            onChange={(exempt_people) => change({ exempt_people })}
          />
          <div className="pair">
            <Form.Group className="mb-3" controlId="step">
              <Form.Label>{t("rules.then")}</Form.Label>
              <Form.Select
                value={step ?? ""}
                onChange={(event) => change({ step: event.target.value || null })}
              >
                <option value="">{t("rules.ladder")}</option>
                {STEPS.map((one) => (
                  <option key={one} value={one}>
                    {t(`rules.steps.${one}`)}
                  </option>
                ))}
              </Form.Select>
            </Form.Group>
            {step === "timeout" ? (
              <Form.Group className="mb-3" controlId="seconds">
                <Form.Label>{t("rules.seconds")}</Form.Label>
                <Form.Control
                  value={
                    typeof values.seconds === "number"
                      ? spanField(values.seconds * 1e6)
                      : String(values.seconds ?? "")
                  }
                  onChange={(event) => change({ seconds: event.target.value })}
                />
              </Form.Group>
            ) : (
              <Form.Group className="mb-3" controlId="strikes">
                <Form.Label>{t("rules.strikes")}</Form.Label>
                <Form.Control
                  type="number"
                  min={0}
                  max={100}
                  value={String(strikes)}
                  onChange={(event) => change({ strikes: Number(event.target.value) })}
                />
              </Form.Group>
            )}
            <Form.Group className="mb-3" controlId="when">
              <Form.Label>{t("rules.when")}</Form.Label>
              <Form.Select
                value={String(values.when)}
                onChange={(event) => change({ when: event.target.value })}
              >
                {["always", "live", "offline"].map((one) => (
                  <option key={one} value={one}>
                    {t(`commands.whens.${one}`)}
                  </option>
                ))}
              </Form.Select>
            </Form.Group>
            <fieldset className="mb-3">
              <legend className="form-label">{t("rules.platforms")}</legend>
              {names.map((name) => (
                <Form.Check
                  key={name}
                  id={`on-${name}`}
                  label={shown(name)}
                  checked={!platforms || platforms.includes(name)}
                  onChange={(event) => {
                    const before = platforms ?? names;
                    const after = event.target.checked
                      ? [...before, name]
                      : before.filter((other) => other !== name);
                    change({ platforms: names.every((one) => after.includes(one)) ? null : after });
                  }}
                />
              ))}
            </fieldset>
          </div>
          <Form.Group className="mb-3" controlId="reply">
            <Form.Label>{t("rules.says")}</Form.Label>
            <Form.Control
              as="textarea"
              rows={2}
              value={String(values.reply ?? "")}
              placeholder={t("rules.saysDefault")}
              onChange={(event) => change({ reply: event.target.value || null })}
            />
            <Form.Text>{t("rules.saysHelp")}</Form.Text>
          </Form.Group>
        </div>
      )}
    </div>
  );
}
