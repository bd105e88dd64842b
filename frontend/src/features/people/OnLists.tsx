import { useQueryClient } from "@tanstack/react-query";
import { Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { useRun } from "../../ui/useRun";
import { LISTS, type ListName } from "./ListRoom";

type Props = { card: Schemas["PersonCard"]; may: boolean; mayLeads: boolean };

/** On which of the channel's lists somebody stands, to be changed in place. */
export function OnLists({ card, may, mayLeads }: Props) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const run = useRun();
  const keys = card.accounts.map((one) => one.key);
  const turn = async (name: ListName, on: boolean) => {
    const body = on ? { add: keys.slice(0, 1), take: [] } : { add: [], take: keys };
    await run(ask(api.POST("/api/people/lists/{name}", { params: { path: { name } }, body })));
    await queries.invalidateQueries({ queryKey: ["people"] });
  };
  if (!may) return null;
  return (
    <fieldset className="on-lists" aria-label={t("people.listsHead")}>
      {LISTS.filter((name) => name !== "leads" || mayLeads).map((name) => (
        <Form.Check
          key={name}
          type="switch"
          id={`on-${name}`}
          label={t(`people.onList.${name}`)}
          checked={card.lists.includes(name)}
          onChange={(event) => void turn(name, event.target.checked)}
        />
      ))}
    </fieldset>
  );
}
