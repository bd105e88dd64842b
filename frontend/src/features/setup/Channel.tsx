import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { AlsoEditing } from "../../ui/AlsoEditing";
import { useTelling } from "../../ui/Notice";
import { SaveRow } from "../../ui/SaveRow";
import { useEntry } from "../../ui/useEntry";

type Cooldown = "none" | { everyone?: unknown; person?: unknown };
type Values = Record<
  "name" | "prefix" | "timezone" | "everyone" | "person" | "spacing" | "stream_gap",
  string
>;

const FIELDS = ["name", "prefix", "timezone", "everyone", "person", "spacing", "stream_gap"] as const;

function shownOf(values: Record<string, unknown>): Values {
  const cooldown = values.cooldown as Cooldown;
  const own = typeof cooldown === "object" ? cooldown : {};
  const text = (value: unknown) => String(value ?? "");
  return {
    name: text(values.name),
    prefix: text(values.prefix),
    timezone: text(values.timezone),
    everyone: text(own.everyone),
    person: text(own.person),
    spacing: text(values.spacing),
    stream_gap: text(values.stream_gap),
  };
}

function valuesOf(shown: Values) {
  const { everyone, person, ...rest } = shown;
  const waits = {
    ...(everyone.trim() && { everyone: everyone.trim() }),
    ...(person.trim() && { person: person.trim() }),
  };
  return { ...rest, cooldown: Object.keys(waits).length ? waits : "none" };
}

/** The channel's name, prefix and zone, and how often commands may be used unless they say otherwise. */
export function Channel({ may }: { may: boolean }) {
  const { data } = useQuery({
    queryKey: ["section", "channel"],
    queryFn: () => ask(api.GET("/api/sections/{section}", { params })),
  });
  return data ? <ChannelForm data={data} may={may} /> : null;
}

const params = { path: { section: "channel" } };

function ChannelForm({ data, may }: { data: Schemas["SectionView"]; may: boolean }) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { tell } = useTelling();
  const entry = useEntry<Values, Schemas["SectionView"]>({
    key: "channel",
    saved: shownOf(data.values),
    revision: data.revision,
    fields: FIELDS,
    unsaved: (draft) =>
      Object.entries(valuesOf(draft)).map(([field, value]) => ({ path: `channel.${field}`, value })),
    put: (draft, revision) => {
      const body = { values: valuesOf(draft), revision: revision ?? data.revision };
      return ask(api.PUT("/api/sections/{section}", { params, body }));
    },
    onSaved: async () => {
      await queries.invalidateQueries();
      tell(t("setup.channel.saved"));
    },
  });
  const { draft: shown, dirty, change, problem } = entry;
  return (
    <form
      className="channel-form"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void entry.save();
      }}
    >
      <div className="chosen-head">
        <h2 className="room-title">{t("setup.parts.channel")}</h2>
        {dirty && <span className="chip straw">{t("commands.unsaved")}</span>}
        <AlsoEditing place="channel" />
      </div>
      {!may && <p className="quiet">{t("setup.channel.readOnly")}</p>}
      <fieldset disabled={!may}>
        {FIELDS.map((field) => (
          <Form.Group className="mb-3" controlId={`channel-${field}`} key={field}>
            <Form.Label>{t(`setup.channel.${field}`)}</Form.Label>
            <Form.Control
              value={shown[field]}
              list={field === "timezone" ? "zones" : undefined}
              isInvalid={problem?.field === field}
              onChange={(event) => change({ [field]: event.target.value })}
            />
            <Form.Text className={problem?.field === field ? "text-danger" : ""}>
              {problem?.field === field ? problem.detail : t(`setup.channel.${field}Help`)}
            </Form.Text>
          </Form.Group>
        ))}
        <datalist id="zones">
          {Intl.supportedValuesOf("timeZone").map((zone) => (
            <option key={zone} value={zone} />
          ))}
        </datalist>
        <SaveRow
          dirty={dirty}
          problem={problem && !problem.field ? problem.detail : null}
          mine={{ ...data.values, ...valuesOf(shown) }}
          theirs={entry.theirs}
          onKeep={(whole) => void entry.saveOver(shownOf(whole as Record<string, unknown>))}
          onDiscard={entry.discard}
          may={may}
        />
      </fieldset>
    </form>
  );
}
