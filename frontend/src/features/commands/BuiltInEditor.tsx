import { useQueryClient } from "@tanstack/react-query";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { AlsoEditing } from "../../ui/AlsoEditing";
import { Fold } from "../../ui/Fold";
import { ListField } from "../../ui/ListField";
import { useTelling } from "../../ui/Notice";
import { SaveRow } from "../../ui/SaveRow";
import { useEntry } from "../../ui/useEntry";
import { History } from "./History";
import { LeaveFolds } from "./LeaveFolds";
import { oftenWords, whoWords } from "./sentences";
import { type Cooldown, cooldownOf, type Leave, leaveOf, type Needs, needsOf } from "./types";

type Setting = { names?: string[]; needs?: Needs; cooldown?: Cooldown; on?: boolean };
type Held = Leave & { names: string[]; on: boolean };
type Props = { view: Schemas["BuiltInView"]; all: Schemas["Commands"]; may: boolean };

function heldOf(view: Schemas["BuiltInView"]): Held {
  const setting = view.setting as Setting;
  return {
    ...leaveOf(setting.needs, setting.cooldown, view.usual_level),
    names: view.names,
    on: view.on,
  };
}

/** What is as usual is left out. */
function settingOf(held: Held, view: Schemas["BuiltInView"]): Setting {
  const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other);
  const needs = needsOf(held);
  const cooldown = cooldownOf(held);
  return {
    ...(!same(held.names, view.usual_names) && { names: held.names }),
    ...(!same(needs, { level: view.usual_level }) && { needs }),
    ...(cooldown !== "default" && { cooldown }),
    ...(!held.on && { on: false }),
  };
}

/** A built-in can be renamed, re-levelled, re-cooled and switched off. */
export function BuiltInEditor({ view, all, may }: Props) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { tell, complain } = useTelling();
  const put = (setting: Setting, revision: string) => {
    const body = { setting, revision };
    return ask(api.PUT("/api/built-ins/{key}", { params: { path: { key: view.key } }, body }));
  };
  const entry = useEntry<Held, Schemas["BuiltInView"]>({
    key: `built-in.${view.key}`,
    saved: heldOf(view),
    revision: view.revision,
    fields: ["names", "needs", "cooldown"],
    unsaved: (draft) => [{ path: `built_ins.${view.key}`, value: settingOf(draft, view) }],
    put: (draft, revision) => put(settingOf(draft, view), revision ?? view.revision),
    onSaved: async () => {
      await queries.invalidateQueries();
      tell(t("commands.saved"));
    },
  });
  const { draft: held, dirty, change, problem } = entry;
  /** Saves another version as it is. */
  const send = async (setting: Setting) => {
    try {
      await put(setting, view.revision);
      tell(t("commands.saved"));
    } catch (error) {
      complain(error);
    }
    await queries.invalidateQueries();
  };
  const heldBy = (setting: Setting): Held => ({
    ...leaveOf(setting.needs, setting.cooldown, view.usual_level),
    names: setting.names ?? view.usual_names,
    on: setting.on ?? true,
  });
  const usual = all.cooldown as Cooldown;
  return (
    <Form
      noValidate
      className="built-in"
      onSubmit={(event) => {
        event.preventDefault();
        // Leaving the field that is being typed in commits its list first.
        if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
        setTimeout(() => void entry.save());
      }}
    >
      <div className="chosen-head">
        <h2 className="room-title">
          {all.prefix}
          {view.names[0]}
        </h2>
        {dirty && <span className="chip straw">{t("commands.unsaved")}</span>}
        <AlsoEditing place={`built_ins.${view.key}`} />
      </div>
      <p>{t(`commands.builtIn.${view.key}`)}</p>
      <p className="quiet">{t(view.sets_level ? "commands.builtInSets" : "commands.builtInLead")}</p>
      {!may && <p className="quiet">{t("commands.readOnly")}</p>}
      <fieldset disabled={!may}>
        <p className="sentence">
          {whoWords(t, held)}, {oftenWords(t, held, usual)}.
        </p>
        <div className="folds">
          <Fold
            title={t("commands.names")}
            says={held.names.map((name) => all.prefix + name).join(", ")}
            open={problem?.field === "names"}
          >
            <ListField
              label={t("commands.names")}
              help={t("commands.namesHelp")}
              items={held.names}
              problem={problem?.field === "names" ? problem.detail : null}
              onChange={(names) => change({ names })}
            />
          </Fold>
          <LeaveFolds
            leave={held}
            usual={usual}
            platforms={all.platforms}
            problem={problem}
            onChange={change}
          />
        </div>
        <Form.Check
          type="switch"
          id="built-in-on"
          className="mb-3"
          label={t("commands.builtInOn")}
          checked={held.on}
          onChange={(event) => change({ on: event.target.checked })}
        />
        <SaveRow
          dirty={dirty}
          problem={problem && !problem.field ? problem.detail : null}
          mine={settingOf(held, view)}
          theirs={entry.theirs}
          onKeep={(whole) => void entry.saveOver(heldBy(whole as Setting))}
          onDiscard={entry.discard}
          may={may}
        >
          {Object.keys(view.setting).length > 0 && (
            <Button variant="outline-secondary" onClick={() => void send({})}>
              {t("commands.asShipped")}
            </Button>
          )}
        </SaveRow>
      </fieldset>
      <History
        section="built-ins"
        name={view.key}
        onRevert={may && !dirty ? (version) => void send(version as Setting) : undefined}
      />
    </Form>
  );
}
