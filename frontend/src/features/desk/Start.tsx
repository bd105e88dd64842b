import { useQuery } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { api, ask } from "../../api/client";
import { useLive } from "../../ui/useLive";

/** What is to be done first, in order, on a Desk where nothing was said yet; gone once it is done. */
export function useStart() {
  const platforms = useLive((state) => state.parts.stream?.platforms);
  const notices = useLive((state) => state.parts.notices);
  const { data } = useQuery({ queryKey: ["commands"], queryFn: () => ask(api.GET("/api/commands")) });
  if (!platforms || !notices || !data) return null;
  const steps = [
    { step: "join", to: "/setup/platforms", done: platforms.some((one) => one.lamp === "joined") },
    { step: "mood", to: "/rules", done: null },
    { step: "command", to: "/commands/+", done: data.commands.length > 0 },
    { step: "notice", to: "/timers/+", done: notices.length > 0 },
  ];
  return steps.some((one) => one.done === false) ? steps : null;
}

type Steps = NonNullable<ReturnType<typeof useStart>>;

/** The first steps on an empty Desk: joining, a mood, a first command, a first notice. */
export function Start({ steps }: { steps: Steps }) {
  const { t } = useTranslation();
  return (
    <section className="first-steps" aria-label={t("start.title")}>
      <h2 className="room-title">{t("start.title")}</h2>
      <p>{t("start.lead")}</p>
      <StartSteps steps={steps} />
      <p className="quiet">{t("start.try")}</p>
    </section>
  );
}

/** The steps themselves, each with the way to it; the next one stands out. */
export function StartSteps({ steps }: { steps: Steps }) {
  const { t } = useTranslation();
  const mood = useLive((state) => state.parts.channel?.mood) ?? "parlour";
  const next = steps.find((one) => one.done === false);
  return (
    <ol className="start-steps">
      {steps.map((one) => (
        <li key={one.step} className={one.done ? "done" : one === next ? "next" : ""}>
          <b>{t(`start.${one.step}`)}</b>{" "}
          <span className="quiet">
            {one.done ? t("start.done") : t(`start.${one.step}Says`, { mood: t(`moods.${mood}`) })}
          </span>{" "}
          {!one.done && <Link to={one.to}>{t(`start.${one.step}Go`)}</Link>}
        </li>
      ))}
    </ol>
  );
}
