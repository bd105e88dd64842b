import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { api, ask } from "../../api/client";
import { NoteForm } from "../../ui/NoteForm";
import { NotesMade } from "../../ui/NotesMade";
import { inWords } from "../../ui/time";
import { useLive } from "../../ui/useLive";
import { useStandingPasses } from "../../ui/useStandingPasses";

const cardOf = (person: string) => `/people/card/${encodeURIComponent(person)}`;

/** What there is to look at before somebody is chosen: notes, strikes, passes, and names found on several platforms. */
export function Overview({ mayNote }: { mayNote: boolean }) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const people = useLive((state) => state.parts.people);
  const { data } = useQuery({
    queryKey: ["people", "overview", people],
    queryFn: () => ask(api.GET("/api/people/overview")),
    placeholderData: (before) => before,
  });
  if (!data) return null;
  return (
    <div className="people-overview">
      <h2 className="room-title">{t("rooms.people")}</h2>
      <p>{t("people.lead")}</p>
      <div className="overview-parts">
        <section>
          <h3>{t("people.notesLately")}</h3>
          <NotesMade notes={data.notes} names={data.names} />
          {data.notes.length === 0 && <p className="quiet">{t("people.noNotes")}</p>}
          {mayNote && (
            <NoteForm
              person={null}
              label={t("handOver.note")}
              hint={t("handOver.note")}
              said={t("handOver.noted")}
              onAdded={() => queries.invalidateQueries({ queryKey: ["people"] })}
            />
          )}
        </section>
        <section>
          <h3>{t("people.strikesNow")}</h3>
          <ul className="names">
            {data.strikes.map((one) => (
              <li key={one.key}>
                <Link to={cardOf(one.key)}>{one.name}</Link>
                <span className="clay">{t("people.strikesShort", { count: one.strikes })}</span>
              </li>
            ))}
          </ul>
          {data.strikes.length === 0 && <p className="quiet">{t("people.noStrikesNow")}</p>}
          <PassesNow />
        </section>
        {data.alike.length > 0 && (
          <section>
            <h3>{t("people.alikeNow")}</h3>
            <ul className="names">
              {data.alike.map((group) => (
                <li key={group.map((one) => one.key).join()}>
                  <Link to={cardOf(group[0]?.key ?? "")}>{group[0]?.name}</Link>
                  <span className="quiet">
                    {group
                      .map((one) => t(`platforms.${one.platform}`, { defaultValue: one.platform }))
                      .join(", ")}
                  </span>
                </li>
              ))}
            </ul>
            <p className="quiet">{t("people.alikeHelp")}</p>
          </section>
        )}
      </div>
    </div>
  );
}

function PassesNow() {
  const { t } = useTranslation();
  const { now, standing } = useStandingPasses();
  if (!standing.length) return null;
  return (
    <>
      <h3>{t("people.passesNow")}</h3>
      <ul className="names">
        {standing.map((one) => (
          <li key={one.person}>
            <Link to={cardOf(one.person)}>{one.name}</Link>
            <span className="slate">
              {one.filters.map((key) => t(`filters.${key}`)).join(", ")} ·{" "}
              {one.until === null ? t("desk.untilStream") : inWords(t, (one.until / 1000 - now) / 1000)}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}
