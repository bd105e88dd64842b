import { useTranslation } from "react-i18next";
import { NavLink, useParams } from "react-router";
import { useMe } from "../../ui/useMe";
import { Channel } from "./Channel";
import { Kits } from "./Kits";
import { Platforms } from "./Platforms";
import { Sessions } from "./Sessions";
import { Team } from "./Team";

const PARTS = ["channel", "platforms", "team", "sessions", "kits"] as const;

/** What is done once or seldom. */
export function Setup() {
  const { t } = useTranslation();
  const { part = PARTS[0] } = useParams();
  const { data: me } = useMe();
  const may = (act: string) => Boolean(me?.may.includes(act));
  return (
    <main className="room">
      <aside className="list">
        <h1 className="visually-hidden">{t("setup.title")}</h1>
        <div className="list-body">
          {PARTS.map((one) => (
            <div key={one} className="list-row">
              <NavLink to={`/setup/${one}`} className={one === part ? "active" : ""}>
                <b>{t(`setup.parts.${one}`)}</b>
              </NavLink>
            </div>
          ))}
        </div>
      </aside>
      <section className="chosen">
        {part === "channel" && <Channel may={may("commands")} />}
        {part === "platforms" && me && <Platforms me={me} />}
        {part === "team" && me && <Team me={me} />}
        {part === "sessions" && me && <Sessions me={me} />}
        {part === "kits" && <Kits may={may("commands") || may("filters")} level={me?.level ?? "viewer"} />}
      </section>
    </main>
  );
}
