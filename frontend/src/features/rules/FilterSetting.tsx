import { useState } from "react";
import { Alert, Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, Problem, type Schemas } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { useHoldUnsaved } from "../../ui/useUnsaved";
import { Consequence } from "./Consequence";
import { Feeds } from "./Feeds";
import { FIELDS, type FilterView, type Values } from "./fields";
import { ListEditor } from "./ListEditor";
import { CommonFields, ValueField } from "./SettingFields";
import { TryLine } from "./TryLine";
import { Tuning } from "./Tuning";

type Props = {
  filter: FilterView;
  rules: Schemas["Rules"];
  mayLast: boolean;
  mayTonight: boolean;
  tonight: boolean;
  onTonight: (tonight: boolean) => void;
  onRules: (rules: Schemas["Rules"]) => void;
};

const draftKey = (key: string) => `gentlegate.draft.rules.${key}`;

function readDraft(key: string): Values {
  try {
    return JSON.parse(sessionStorage.getItem(draftKey(key)) ?? "{}") as Values;
  } catch {
    return {};
  }
}

/** One filter: what it does with this channel's lines, and its setting beside that. */
export function FilterSetting({
  filter,
  rules,
  mayLast,
  mayTonight,
  tonight: wanted,
  onTonight,
  onRules,
}: Props) {
  const { t } = useTranslation();
  const { tell } = useTelling();
  const [changes, setChanges] = useState<Values>(() => readDraft(filter.key));
  const [problem, setProblem] = useState<string | null>(null);
  const tonight = wanted || !mayLast;
  const may = mayLast || mayTonight;
  const values: Values = { ...filter.values, ...changes };
  for (const [name, usual] of Object.entries(filter.mood)) values[name] ??= usual;
  const dirty = Object.keys(changes).length > 0;
  const fields = FIELDS[filter.key] ?? [];
  const tuned = fields.filter((field) => field.tuned);
  const stamp = [filter.lists, filter.values];

  const keep = (next: Values) => {
    setChanges(next);
    if (Object.keys(next).length) sessionStorage.setItem(draftKey(filter.key), JSON.stringify(next));
    else sessionStorage.removeItem(draftKey(filter.key));
  };
  const change = (more: Values) => keep({ ...changes, ...more });
  const save = async () => {
    try {
      const params = { path: { key: filter.key } };
      onRules(await ask(api.PUT("/api/rules/filters/{key}", { params, body: { values: changes, tonight } })));
      keep({});
      setProblem(null);
      tell(t(tonight ? "rules.savedTonight" : "rules.saved"));
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      setProblem(error.where ? `${error.where}: ${error.detail}` : error.detail);
    }
  };

  const held = Object.entries(changes).map(([name, value]) => ({
    path: `filters.${filter.key}.${name}`,
    value,
  }));
  useHoldUnsaved(`filter ${filter.key}`, held);
  const props = { filter, mood: rules.mood, values, changes, change };
  return (
    <div>
      <div className="chosen-head">
        <h2 className="room-title">{t(`filters.${filter.key}`)}</h2>
        {!values.on && <span className="chip straw">{t("rules.isOff")}</span>}
        {filter.tonight.length > 0 && <span className="chip plum">{t("rules.tonightMark")}</span>}
        {dirty && <span className="chip straw">{t("commands.unsaved")}</span>}
      </div>
      <p className="quiet">{t(`filters.${filter.key}Lead`)}</p>
      <div className="setting">
        <div className="setting-what">
          {tuned.length > 0 ? (
            <Tuning fields={tuned} may={may} {...props} />
          ) : (
            <Consequence filter={filter.key} changes={changes} stamp={stamp} />
          )}
          <TryLine filter={filter.key} changes={changes} stamp={stamp} />
        </div>
        <fieldset className="setting-fields" disabled={!may}>
          {may && (
            <Form.Check
              type="switch"
              id="tonight"
              className="plum mb-3"
              label={t("rules.tonight")}
              title={t("rules.tonightHelp")}
              checked={tonight}
              disabled={!mayLast}
              onChange={(event) => onTonight(event.target.checked)}
            />
          )}
          {Object.keys(filter.lists).map((list) => (
            <ListEditor
              key={list}
              filter={filter.key}
              list={list}
              count={filter.lists[list] ?? 0}
              tonight={tonight}
              onRules={onRules}
            />
          ))}
          {filter.key === "links" && <Feeds feeds={rules.feeds} may={mayLast} onRules={onRules} />}
          {fields.map((field) => (
            <ValueField key={field.name} field={field} {...props} />
          ))}
          <CommonFields {...props} />
          {problem && <Alert variant="danger">{problem}</Alert>}
          {may && dirty && (
            <div className="save-bar">
              <Button onClick={() => void save()}>{t(tonight ? "rules.saveTonight" : "rules.save")}</Button>
              <Button
                variant="outline-secondary"
                onClick={() => {
                  keep({});
                  setProblem(null);
                }}
              >
                {t("rules.discard")}
              </Button>
            </div>
          )}
        </fieldset>
      </div>
    </div>
  );
}
