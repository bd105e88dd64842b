import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { useTakeBack } from "../../ui/useTakeBack";
import { type Cooldown, cooldownOf, NO_LEAVE } from "./types";

type Asked = { folder?: string; on?: boolean; cooldown?: Cooldown; remove?: boolean };
type Props = { names: string[]; all: Schemas["Commands"]; onDone: () => void };

/** What can be done with several commands at once; each has its undo. */
export function Several({ names, all, onDone }: Props) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { tell, complain } = useTelling();
  const back = useTakeBack();
  const [folder, setFolder] = useState("");
  const [cool, setCool] = useState({ everyone: "", person: "" });
  const folders = [...new Set(all.commands.map((view) => String(view.command.folder ?? "")).filter(Boolean))];

  const act = async (asked: Asked, said: string) => {
    try {
      const body = { names, remove: false, ...asked };
      const done = await ask(api.POST("/api/commands/several", { body }));
      await queries.invalidateQueries({ queryKey: ["commands"] });
      const text = t(`several.${said}`, { count: done.changed });
      tell(text, done.number ? { label: t("commands.undo"), run: () => void back(done.number) } : undefined);
      if (asked.remove) onDone();
    } catch (error) {
      complain(error);
    }
  };
  const own = cooldownOf({ ...NO_LEAVE, cooling: "own", ...cool });
  const none = names.length === 0;
  return (
    <div className="several">
      <div className="chosen-head">
        <h2 className="room-title">{t("several.title", { count: names.length })}</h2>
        <span className="flex-grow-1" />
        <Button variant="outline-secondary" onClick={onDone}>
          {t("several.done")}
        </Button>
      </div>
      <p className="quiet">{names.map((name) => all.prefix + name).join(" ") || t("several.none")}</p>
      <fieldset disabled={none}>
        <h3>{t("several.move")}</h3>
        <div className="line-form">
          <Form.Control
            list="folders"
            aria-label={t("commands.folder")}
            placeholder={t("commands.loose")}
            value={folder}
            onChange={(event) => setFolder(event.target.value)}
          />
          <datalist id="folders">
            {folders.map((one) => (
              <option key={one} value={one} />
            ))}
          </datalist>
          <Button onClick={() => void act({ folder: folder.trim() }, "moved")}>{t("several.moveTo")}</Button>
        </div>
        <h3>{t("several.switch")}</h3>
        <div className="line-form">
          <Button variant="outline-secondary" onClick={() => void act({ on: true }, "switched")}>
            {t("several.on")}
          </Button>
          <Button variant="outline-secondary" onClick={() => void act({ on: false }, "switched")}>
            {t("several.off")}
          </Button>
        </div>
        <h3>{t("commands.cooldown")}</h3>
        <div className="line-form">
          {(["everyone", "person"] as const).map((whose) => (
            <Form.Control
              key={whose}
              aria-label={t(`commands.${whose}`)}
              placeholder={t(`commands.${whose}`)}
              value={cool[whose]}
              onChange={(event) => setCool({ ...cool, [whose]: event.target.value })}
            />
          ))}
          <Button
            disabled={none || Object.keys(own).length === 0}
            onClick={() => void act({ cooldown: own }, "cooled")}
          >
            {t("several.cool")}
          </Button>
        </div>
        <div className="line-form">
          <Button variant="outline-secondary" onClick={() => void act({ cooldown: "default" }, "cooled")}>
            {t("commands.cooldownKinds.default")}
          </Button>
          <Button variant="outline-secondary" onClick={() => void act({ cooldown: "none" }, "cooled")}>
            {t("commands.cooldownKinds.none")}
          </Button>
        </div>
        <p className="quiet small">{t("commands.durationHelp")}</p>
        <h3>{t("several.away")}</h3>
        <Button variant="outline-danger" onClick={() => void act({ remove: true }, "removed")}>
          {t("commands.remove")}
        </Button>
      </fieldset>
    </div>
  );
}
