import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Form } from "react-bootstrap";
import type { UseFormReturn } from "react-hook-form";
import { useTranslation } from "react-i18next";
import { api, ask } from "../../api/client";
import { ListField } from "../../ui/ListField";
import type { Draft } from "./types";

/** What a cue hears and where, with the lines of the last streams that it would have answered. */
export function CueFields({ form, problem }: { form: UseFormReturn<Draft>; problem: string | null }) {
  const { t } = useTranslation();
  const [hears, match, where] = form.watch(["hears", "match", "where"]);
  return (
    <>
      <ListField
        label={t("cues.hears")}
        help={t(match === "pattern" ? "cues.hearsPattern" : "cues.hearsHelp")}
        items={hears}
        splitSpaces={false}
        problem={problem}
        onChange={(items) => form.setValue("hears", items)}
      />
      <div className="pair">
        <Form.Group className="mb-3" controlId="cue-match">
          <Form.Label>{t("cues.match")}</Form.Label>
          <Form.Select {...form.register("match")}>
            {["words", "exact", "pattern"].map((one) => (
              <option key={one} value={one}>
                {t(`cues.matches.${one}`)}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Form.Group className="mb-3" controlId="cue-where">
          <Form.Label>{t("cues.where")}</Form.Label>
          <Form.Select {...form.register("where")}>
            {["text", "login", "name"].map((one) => (
              <option key={one} value={one}>
                {t(`cues.wheres.${one}`)}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
      </div>
      {hears.length > 0 && <Heard hears={hears} match={match} where={where} />}
    </>
  );
}

function Heard({ hears, match, where }: Pick<Draft, "hears" | "match" | "where">) {
  const { t } = useTranslation();
  const { data } = useQuery({
    queryKey: ["heard", hears, match, where],
    queryFn: () => ask(api.POST("/api/cues/heard", { body: { command: { hears, match, where } } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  if (!data) return null;
  return (
    <div className="consequence mb-3">
      <p role="status">{t("cues.heard", { count: data.count, all: data.all })}</p>
      <ul>
        {data.lines.slice(0, 4).map((line) => (
          <li key={`${line.platform}${line.id}`}>
            <b>{line.name}</b> {line.text}
          </li>
        ))}
      </ul>
    </div>
  );
}
