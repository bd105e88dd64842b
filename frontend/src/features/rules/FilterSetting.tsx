import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Alert, Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, Problem, type Schemas } from "../../api/client";
import { ListField } from "../../ui/ListField";
import { useTelling } from "../../ui/Notice";
import { Consequence } from "./Consequence";
import type { Values } from "./findings";
import { TryLine } from "./TryLine";

type Props = { filter: Schemas["FilterView"]; mood: string; may: boolean };
type FieldProps = {
  values: Values;
  change: (changes: Values) => void;
  may: boolean;
  filter: Props["filter"];
  mood: string;
};

const LEVELS = ["follower", "regular", "subscriber", "vip", "moderator", "lead", "broadcaster"];
const STEPS = ["nudge", "remove", "timeout", "ban"];

/** One filter: its setting on the right, what it does with the channel's lines beside it. */
export function FilterSetting({ filter, mood, may }: Props) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { tell } = useTelling();
  const [changes, setChanges] = useState<Values>({});
  const [problem, setProblem] = useState<string | null>(null);
  const values: Values = { ...filter.values, ...changes };
  for (const [name, usual] of Object.entries(filter.mood)) values[name] ??= usual;
  const dirty = Object.keys(changes).length > 0;

  const save = async () => {
    try {
      const params = { path: { key: filter.key } };
      const asked = api.PUT("/api/rules/filters/{key}", { params, body: { values: changes } });
      queries.setQueryData(["rules"], await ask(asked));
      setChanges({});
      setProblem(null);
      tell(t("rules.saved"));
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      setProblem(error.where ? `${error.where}: ${error.detail}` : error.detail);
    }
  };

  const fields = {
    values,
    filter,
    mood,
    may,
    change: (more: Values) => setChanges((before) => ({ ...before, ...more })),
  };
  return (
    <div>
      <div className="chosen-head">
        <h2 className="room-title">{t(`filters.${filter.key}`)}</h2>
        {dirty && <span className="chip straw">{t("commands.unsaved")}</span>}
      </div>
      <p className="quiet">{t(`filters.${filter.key}Lead`)}</p>
      <div className="setting">
        <div className="setting-what">
          <TryLine filter={filter.key} changes={changes} />
          <Consequence filter={filter.key} changes={changes} />
        </div>
        <fieldset className="setting-fields" disabled={!may}>
          {filter.key === "capitals" ? <CapitalsFields {...fields} /> : <LinksFields {...fields} />}
          <CommonFields {...fields} />
          {problem && <Alert variant="danger">{problem}</Alert>}
          {may && (
            <div className="d-flex gap-2">
              <Button disabled={!dirty} onClick={() => void save()}>
                {t("rules.save")}
              </Button>
              {dirty && (
                <Button
                  variant="outline-secondary"
                  onClick={() => {
                    setChanges({});
                    setProblem(null);
                  }}
                >
                  {t("rules.discard")}
                </Button>
              )}
            </div>
          )}
        </fieldset>
      </div>
    </div>
  );
}

function CapitalsFields({ values, change, filter, mood }: FieldProps) {
  const { t } = useTranslation();
  const differs = (name: string) => values[name] !== filter.mood[name];
  const hint = (name: string, shown: string) => (
    <Form.Text>
      {t("rules.moodSays", { mood: t(`moods.${mood}`), value: shown })}
      {differs(name) && (
        <>
          {" · "}
          <b>{t("rules.ownMark")}</b>{" "}
          <Button variant="link" size="sm" className="p-0" onClick={() => change({ [name]: null })}>
            {t("rules.backToMood")}
          </Button>
        </>
      )}
    </Form.Text>
  );
  return (
    <>
      <Form.Group className="mb-3" controlId="share">
        <Form.Label>{t("rules.limit")}</Form.Label>
        <div className="d-flex align-items-center gap-2">
          <Form.Range
            min={30}
            max={100}
            value={Math.round(Number(values.share) * 100)}
            aria-label={t("rules.share")}
            onChange={(event) => change({ share: Number(event.target.value) / 100 })}
          />
          <output className="measure">{Math.round(Number(values.share) * 100)} %</output>
        </div>
        {hint("share", `${Math.round(Number(filter.mood.share) * 100)} %`)}
      </Form.Group>
      <Form.Group className="mb-3" controlId="letters">
        <Form.Label>{t("rules.letters")}</Form.Label>
        <Form.Control
          type="number"
          min={1}
          max={1000}
          value={String(values.letters)}
          onChange={(event) => change({ letters: Number(event.target.value) })}
        />
        {hint("letters", String(filter.mood.letters))}
      </Form.Group>
    </>
  );
}

type Entry = string | { text: string };
const texts = (entries: unknown): string[] =>
  ((entries as Entry[]) ?? []).map((entry) => (typeof entry === "string" ? entry : entry.text));

function LinksFields({ values, change, may }: FieldProps) {
  const { t } = useTranslation();
  const put = (list: "allowed" | "forbidden") => (items: string[]) => {
    const before = (values[list] as Entry[]) ?? [];
    const kept = (item: string) => before.find((entry) => texts([entry])[0] === item) ?? item;
    change({ [list]: items.map(kept) });
  };
  return (
    <>
      {(["allowed", "forbidden"] as const).map((list) => (
        <ListField
          key={list}
          label={t(`rules.${list}`)}
          help={t(`rules.${list}Help`)}
          items={texts(values[list])}
          onChange={put(list)}
          disabled={!may}
        />
      ))}
      <Form.Check
        className="mb-3"
        type="switch"
        id="disguised"
        label={t("rules.disguised")}
        checked={Boolean(values.disguised)}
        onChange={(event) => change({ disguised: event.target.checked })}
      />
    </>
  );
}

function CommonFields({ values, change }: FieldProps) {
  const { t } = useTranslation();
  return (
    <>
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
      <Form.Group className="mb-3" controlId="step">
        <Form.Label>{t("rules.then")}</Form.Label>
        <Form.Select
          value={String(values.step ?? "")}
          onChange={(event) => change({ step: event.target.value || null })}
        >
          <option value="">{t("rules.ladder")}</option>
          {STEPS.map((step) => (
            <option key={step} value={step}>
              {t(`rules.steps.${step}`)}
            </option>
          ))}
        </Form.Select>
      </Form.Group>
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
    </>
  );
}
