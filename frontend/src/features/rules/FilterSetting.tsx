import { Alert, Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { AlsoEditing } from "../../ui/AlsoEditing";
import { written } from "../../ui/differences";
import { Mix } from "../../ui/Mix";
import { useTelling } from "../../ui/Notice";
import { useEntry } from "../../ui/useEntry";
import { Consequence } from "./Consequence";
import { Feeds } from "./Feeds";
import { FIELDS, type FilterView, type Values, valueWords } from "./fields";
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

/** What was typed over what holds; null puts a value back to the mood's. */
function changed(draft: Values, saved: Values): Values {
  const own = Object.entries(draft).filter(([name, value]) => !same(value, saved[name]));
  return Object.fromEntries(own);
}

const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other);

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
  const tonight = wanted || !mayLast;
  const may = mayLast || mayTonight;
  const params = { path: { key: filter.key } };
  const entry = useEntry<Values, Schemas["Rules"]>({
    key: `rules.${filter.key}`,
    saved: filter.values,
    revision: filter.revision,
    fields: [],
    unsaved: (draft) =>
      Object.entries(changed(draft, filter.values)).map(([name, value]) => ({
        path: `filters.${filter.key}.${name}`,
        value,
      })),
    put: (draft, revision) => {
      const body = { values: changed(draft, filter.values), tonight, revision };
      return ask(api.PUT("/api/rules/filters/{key}", { params, body }));
    },
    onSaved: (rules) => {
      onRules(rules);
      tell(t(tonight ? "rules.savedTonight" : "rules.saved"));
    },
  });
  const { dirty, change, problem } = entry;
  const changes = changed(entry.draft, filter.values);
  const values: Values = { ...entry.draft };
  for (const [name, usual] of Object.entries(filter.mood)) values[name] ??= usual;
  const fields = FIELDS[filter.key] ?? [];
  const tuned = fields.filter((field) => field.tuned);
  const stamp = [filter.lists, filter.values];

  const props = { filter, mood: rules.mood, values, changes, change };
  return (
    <div>
      <div className="chosen-head">
        <h2 className="room-title">{t(`filters.${filter.key}`)}</h2>
        {!values.on && <span className="chip straw">{t("rules.isOff")}</span>}
        {filter.tonight.length > 0 && <span className="chip plum">{t("rules.tonightMark")}</span>}
        {dirty && <span className="chip straw">{t("commands.unsaved")}</span>}
        <AlsoEditing place={`filters.${filter.key}`} />
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
          {problem && (
            <Alert variant="danger">
              {problem.where ? `${problem.where}: ${problem.detail}` : problem.detail}
            </Alert>
          )}
          {Boolean(entry.theirs) && (
            <Mix
              mine={values}
              theirs={entry.theirs}
              say={(name, value) => {
                const field = fields.find((one) => one.name === name);
                return field ? valueWords(t, field.kind, value) : written(value);
              }}
              onKeep={(whole) => void entry.saveOver(whole as Values)}
              onTakeTheirs={entry.discard}
            />
          )}
          {may && dirty && (
            <div className="save-bar">
              <Button onClick={() => void entry.save()}>
                {t(tonight ? "rules.saveTonight" : "rules.save")}
              </Button>
              <Button variant="outline-secondary" onClick={entry.discard}>
                {t("rules.discard")}
              </Button>
            </div>
          )}
        </fieldset>
      </div>
    </div>
  );
}
