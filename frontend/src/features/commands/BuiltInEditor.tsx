import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Alert, Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, Problem, type Schemas } from "../../api/client";
import { Fold } from "../../ui/Fold";
import { ListField } from "../../ui/ListField";
import { useTelling } from "../../ui/Notice";
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
  const { tell } = useTelling();
  const [held, setHeld] = useState(() => heldOf(view));
  const [problem, setProblem] = useState<{ field: string | null; detail: string } | null>(null);
  const dirty = JSON.stringify(held) !== JSON.stringify(heldOf(view));
  // biome-ignore lint/correctness/useExhaustiveDependencies: only a newer revision replaces what is shown
  useEffect(() => setHeld(heldOf(view)), [view.revision]);

  const send = async (setting: Setting) => {
    setProblem(null);
    try {
      const body = { setting, revision: view.revision };
      await ask(api.PUT("/api/built-ins/{key}", { params: { path: { key: view.key } }, body }));
      tell(t("commands.saved"));
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      const field = error.where?.split(".").find((one) => ["names", "needs", "cooldown"].includes(one));
      setProblem({ field: field ?? null, detail: error.detail });
    }
    await queries.invalidateQueries();
  };
  const change = (changes: Partial<Held>) => setHeld((before) => ({ ...before, ...changes }));
  const usual = all.cooldown as Cooldown;
  return (
    <div className="built-in">
      <div className="chosen-head">
        <h2 className="room-title">
          {all.prefix}
          {view.names[0]}
        </h2>
        {dirty && <span className="chip straw">{t("commands.unsaved")}</span>}
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
        {problem && !problem.field && <Alert variant="danger">{problem.detail}</Alert>}
        {may && (
          <div className="d-flex gap-2 save-row">
            <Button disabled={!dirty || !held.names.length} onClick={() => void send(settingOf(held, view))}>
              {t("commands.save")}
            </Button>
            {dirty && (
              <Button variant="outline-secondary" onClick={() => setHeld(heldOf(view))}>
                {t("commands.discard")}
              </Button>
            )}
            {Object.keys(view.setting).length > 0 && (
              <Button variant="outline-secondary" onClick={() => void send({})}>
                {t("commands.asShipped")}
              </Button>
            )}
          </div>
        )}
      </fieldset>
      <History
        section="built-ins"
        name={view.key}
        onRevert={may && !dirty ? (version) => void send(version as Setting) : undefined}
      />
    </div>
  );
}
