import { useQueryClient } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import { useNavigate } from "react-router";
import { api, ask } from "../../api/client";
import { Confirm } from "../../ui/Confirm";
import { useTelling } from "../../ui/Notice";

/** The one act that cannot be undone: what a person said and who they were is removed. */
export function Erase({ person, name }: { person: string; name: string }) {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { tell, complain } = useTelling();
  const erase = async () => {
    try {
      const gone = await ask(api.DELETE("/api/people/card/{person}", { params: { path: { person } } }));
      tell(t("people.erased", { count: gone.messages }));
      if (gone.settings.length)
        tell(
          t("people.stillNamed", { where: gone.settings.map((one) => t(`people.lists.${one}`)).join(", ") }),
        );
      navigate("/people");
    } catch (error) {
      complain(error);
    }
    await queries.invalidateQueries({ queryKey: ["people"] });
  };
  return (
    <section className="erase">
      <h3>{t("people.erase")}</h3>
      <p className="quiet">{t("people.eraseSays")}</p>
      <Confirm
        words={t("people.eraseWords", { name })}
        sure={t("people.eraseSure")}
        go={t("people.eraseGo")}
        onGo={() => void erase()}
      />
    </section>
  );
}
