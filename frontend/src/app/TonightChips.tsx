import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { api, ask } from "../api/client";
import type { Tonight } from "../live/types";
import { useTelling } from "../ui/Notice";
import { useLive } from "../ui/useLive";
import { useMe } from "../ui/useMe";

const SHOWN = 3;

/** What holds for this stream alone, each with its way back; and the drawbridge while it is up. */
export function TonightChips() {
  const { t } = useTranslation();
  const { tell, complain } = useTelling();
  const { data: me } = useMe();
  const changes = useLive((state) => state.parts.tonight);
  const bridge = useLive((state) => state.parts.bridge);
  const may = Boolean(me?.may.includes("tonight"));

  const what = ({ path, value, how }: Tonight): string => {
    const [, key = "", name = ""] = path.split(".");
    if (path === "channel.mood") return t("lintel.tonightMood", { mood: t(`moods.${value}`) });
    const filter = t(`filters.${key}`, { defaultValue: path });
    if (how !== "set") {
      const count = (value as unknown[]).length;
      return t(how === "add" ? "lintel.tonightAdd" : "lintel.tonightTake", { filter, count });
    }
    if (name === "on") return t(value ? "lintel.tonightOn" : "lintel.tonightOff", { filter });
    const field = t(`rules.fields.${name}`, { defaultValue: name }).toLowerCase();
    const shown = name === "share" ? `${Math.round(Number(value) * 100)} %` : String(value);
    return t("lintel.tonightValue", { filter, name: field, value: shown });
  };
  const putBack = async (number: number) => {
    try {
      await ask(api.POST("/api/desk/put-back", { body: { number } }));
      tell(t("lintel.putBack"));
    } catch (error) {
      complain(error);
    }
  };
  if (!changes?.length && !bridge?.up) return null;
  return (
    <span className="tonight-chips">
      {bridge?.up && (
        <Link to="/" className="chip clay">
          {t("lintel.bridge")}
        </Link>
      )}
      {changes?.slice(-SHOWN).map((change) => (
        <button
          key={change.number}
          type="button"
          className="chip plum"
          disabled={!may}
          title={t("lintel.tonightTitle", { who: change.by })}
          onClick={() => void putBack(change.number)}
        >
          {t("lintel.tonight", { what: what(change) })} {may && <span aria-hidden="true">×</span>}
        </button>
      ))}
      {changes && changes.length > SHOWN && <span className="plum small">+{changes.length - SHOWN}</span>}
    </span>
  );
}
