import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { useMe } from "../../ui/useMe";
import { Accounts } from "./Accounts";
import { Done } from "./Done";
import { Erase } from "./Erase";
import { LevelAndWhy } from "./LevelAndWhy";
import { Notes } from "./Notes";
import { OnLists } from "./OnLists";
import { PersonActs } from "./PersonActs";
import { Said } from "./Said";
import { usePerson } from "./usePerson";

type Props = {
  /** Any of their person strings. */
  person: string;
  /** Over the bench: without what is seldom wanted there. */
  short?: boolean;
};

/** Who somebody is, what was done about them and noted, what they wrote, and what can be done. */
export function PersonCard({ person, short = false }: Props) {
  const { t } = useTranslation();
  const { data: me } = useMe();
  const { card, said } = usePerson(person);
  const may = (act: string) => Boolean(me?.may.includes(act));
  const first = card?.accounts[0];
  if (card === null) return <p className="quiet">{t("people.nobody", { person })}</p>;
  if (!card || !first) return null;
  return (
    <div className="person" data-person={first.key}>
      {short ? (
        <h3>
          {t("people.about", { name: first.name })}{" "}
          <Link className="small" to={`/people/card/${encodeURIComponent(first.key)}`}>
            {t("people.all")}
          </Link>
        </h3>
      ) : (
        <h2 className="room-title">{first.name}</h2>
      )}
      <LevelAndWhy card={card} />
      {!short && <OnLists card={card} mayLeads={me?.level === "broadcaster"} may={may("people")} />}
      <PersonActs person={first.key} name={first.name} may={may} />
      <Notes person={first.key} notes={card.notes} mayNote={may("note")} mayAll={may("people")} />
      {!short && <Accounts card={card} may={may("people")} />}
      <Done acts={card.acts} most={short ? 4 : 50} />
      <Said person={first.key} page={said} most={short ? 5 : 50} count={card.messages} />
      {!short && may("erase") && <Erase person={first.key} name={first.name} />}
    </div>
  );
}

/** The card as the Desk shows it over the bench. */
export function PersonOverBench({ person }: { person: string }) {
  return <PersonCard key={person} person={person} short />;
}
