import { Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";

type Permission = Schemas["PermissionView"];
type Props = {
  all: Permission[];
  may: boolean;
  onMove: (asked: Promise<unknown>, said: string) => Promise<void>;
};

const GROUPS = {
  chat: [
    "remove",
    "timeout",
    "ban",
    "lift",
    "undo",
    "second_look",
    "pass",
    "say",
    "clear",
    "drawbridge",
    "overlap",
  ],
  stream: [
    "title",
    "category",
    "marker",
    "clip",
    "ad",
    "shoutout",
    "arrivals",
    "raid",
    "cancel_raid",
    "count",
    "quote",
  ],
  settings: ["tonight", "filters", "mood", "commands", "rota", "stage"],
} as const;
const GROUPED: readonly string[] = Object.values(GROUPS).flat();

/** Who may do what at the Desk; single acts can be moved between moderators and leads. */
export function Permissions({ all, may, onMove }: Props) {
  const { t } = useTranslation();
  const groups: [string, Permission[]][] = [
    ...Object.entries(GROUPS).map(([group, acts]): [string, Permission[]] => [
      group,
      acts.flatMap((act) => all.find((one) => one.act === act) ?? []),
    ]),
    ["team", all.filter((one) => !GROUPED.includes(one.act))],
  ];
  return (
    <section className="permissions">
      <h3>{t("team.permissions")}</h3>
      <p className="quiet">
        {t("team.permissionsLead")} {may && t("team.permissionsMove")}
      </p>
      <div className="permission-groups">
        {groups.map(([group, acts]) => (
          <div key={group}>
            <h4>{t(`team.groups.${group}`)}</h4>
            <ul>
              {acts.map((one) => (
                <Row key={one.act} one={one} may={may} onMove={onMove} />
              ))}
            </ul>
          </div>
        ))}
      </div>
    </section>
  );
}

function Row({ one, may, onMove }: { one: Permission } & Omit<Props, "all">) {
  const { t } = useTranslation();
  const named = (level: string) => t(`team.levels.${level}`);
  const move = (level: "moderator" | "lead") =>
    onMove(
      ask(api.PUT("/api/team/permissions/{act}", { params: { path: { act: one.act } }, body: { level } })),
      t("team.moved", { act: t(`team.acts.${one.act}`), level: named(level) }),
    );
  return (
    <li data-act={one.act}>
      <span>
        {t(`team.acts.${one.act}`)}{" "}
        {one.level !== one.usual && (
          <span className="chip straw">{t("team.usually", { level: named(one.usual) })}</span>
        )}
      </span>
      {may && one.movable ? (
        <Form.Select
          size="sm"
          value={one.level}
          aria-label={t(`team.acts.${one.act}`)}
          onChange={(event) => void move(event.target.value as "moderator" | "lead")}
        >
          <option value="moderator">{named("moderator")}</option>
          <option value="lead">{named("lead")}</option>
        </Form.Select>
      ) : (
        <span className="quiet">{named(one.level)}</span>
      )}
    </li>
  );
}
