import { useQueryClient } from "@tanstack/react-query";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { useNavigate } from "react-router";
import { api, ask, type Schemas } from "../../api/client";
import { AlsoEditing } from "../../ui/AlsoEditing";
import { Choice } from "../../ui/Choice";
import { Fold } from "../../ui/Fold";
import { useTelling } from "../../ui/Notice";
import { SaveRow } from "../../ui/SaveRow";
import { useEntry } from "../../ui/useEntry";
import { useTakeBack } from "../../ui/useTakeBack";
import { Ahead } from "./Ahead";
import { Moves } from "./Moves";
import { Notices } from "./Notices";
import { draftOf, EMPTY, type Rota, type RotaDraft, rhythmWords, rotaOf } from "./rota";

type Props = { view: Schemas["RotaView"] | null; all: Schemas["Rotas"]; may: boolean; mayMove: boolean };
const FIELDS = ["name", "every", "chat_lines", "first_after", "every_offline", "offline_lines", "notices"];

/** A rota: its rhythm in a sentence, its notices in order, and what it will post. */
export function RotaEditor({ view, all, may, mayMove }: Props) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { tell, complain } = useTelling();
  const takeBack = useTakeBack();
  const before = (view?.rota as Rota | undefined) ?? null;
  const reread = () => queries.invalidateQueries({ queryKey: ["rotas"] });
  const entry = useEntry<RotaDraft, Schemas["RotaView"]>({
    key: `rota.${view?.name ?? "+"}`,
    saved: before ? draftOf(before) : EMPTY,
    revision: view?.revision ?? null,
    fields: FIELDS,
    unsaved: (draft) => {
      const name = view?.name ?? draft.name.trim();
      return name ? [{ path: `rotas.${name}`, value: rotaOf(draft, before) }] : [];
    },
    put: (draft, revision) => {
      const params = { path: { name: view?.name ?? (draft.name.trim() || "+") } };
      return ask(api.PUT("/api/rotas/{name}", { params, body: { rota: rotaOf(draft, before), revision } }));
    },
    onSaved: async (now) => {
      await reread();
      tell(t("timers.saved"));
      if (now.name !== view?.name) navigate(`/timers/${encodeURIComponent(now.name)}`);
    },
  });
  const { draft, dirty, change, wrong, problem } = entry;
  const remove = async () => {
    if (!view) return;
    try {
      const params = { path: { name: view.name }, query: { revision: view.revision } };
      const gone = await ask(api.DELETE("/api/rotas/{name}", { params }));
      await reread();
      navigate("/timers");
      tell(t("timers.removed", { name: view.name }), {
        label: t("commands.undo"),
        run: () => void takeBack(gone.number),
      });
    } catch (error) {
      complain(error);
    }
  };
  const field = (key: "every" | "lines" | "first" | "away" | "awayLines", where: string) => (
    <Form.Group className="mb-3" controlId={`rota-${key}`}>
      <Form.Label>{t(`timers.fields.${key}`)}</Form.Label>
      <Form.Control
        value={draft[key]}
        autoComplete="off"
        placeholder={key === "first" ? draft.every : ""}
        isInvalid={Boolean(wrong(where))}
        onChange={(event) => change({ [key]: event.target.value })}
      />
      <Form.Text className={wrong(where) ? "text-danger" : ""}>
        {wrong(where) ?? t(`timers.help.${key}`)}
      </Form.Text>
    </Form.Group>
  );
  return (
    <Form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void entry.save();
      }}
    >
      <div className="chosen-head">
        <h2 className="room-title">{view?.name ?? t("timers.new")}</h2>
        {view?.paused && <span className="chip straw">{t("timers.paused")}</span>}
        {dirty && <span className="chip straw">{t("commands.unsaved")}</span>}
        <AlsoEditing place={`rotas.${view?.name ?? "+"}`} />
        <span className="flex-grow-1" />
        {view && mayMove && <Moves view={view} onMoved={() => void reread()} />}
      </div>
      {!may && <p className="quiet">{t("setup.channel.readOnly")}</p>}
      <fieldset disabled={!may}>
        <div className="rota-rhythm">
          <Form.Group className="mb-3" controlId="rota-name">
            <Form.Label>{t("timers.fields.name")}</Form.Label>
            <Form.Control
              value={draft.name}
              autoComplete="off"
              isInvalid={Boolean(wrong("name"))}
              onChange={(event) => change({ name: event.target.value })}
            />
            <Form.Text className={wrong("name") ? "text-danger" : ""}>
              {wrong("name") ?? t("timers.help.name")}
            </Form.Text>
          </Form.Group>
          {field("every", "every")}
          {field("lines", "chat_lines")}
        </div>
        <p className="sentence">{rhythmWords(t, draft)}</p>
      </fieldset>
      <Ahead all={all} draft={draft.name.trim() ? rotaOf(draft, before) : null} was={view?.name ?? null} />
      <fieldset disabled={!may}>
        <Notices
          notices={draft.notices}
          order={draft.order}
          rota={draft.name || "rota"}
          all={all}
          may={may}
          mayMove={mayMove}
          problem={problem?.field === "notices" ? problem : null}
          onChange={(notices) => change({ notices })}
        />
        <div className="folds">
          <Fold
            title={t("timers.fields.order")}
            says={t(`timers.says.${draft.order === "shuffled" ? "shuffled" : "inTurn"}`, {
              alone: draft.alone ? t("timers.says.alone") : "",
            })}
            open={Boolean(wrong("first_after"))}
          >
            <Choice
              id="rota-order"
              label={t("timers.fields.order")}
              value={draft.order}
              values={["in turn", "shuffled"]}
              words={(one) => t(`timers.orders.${one.replace(" ", "_")}`)}
              onChange={(order) => change({ order: order as RotaDraft["order"] })}
            />
            {field("first", "first_after")}
            <Form.Check
              type="switch"
              id="rota-alone"
              label={t("timers.fields.alone", { spacing: all.spacing })}
              checked={draft.alone}
              onChange={(event) => change({ alone: event.target.checked })}
            />
          </Fold>
          <Fold
            title={t("timers.whileAway")}
            says={draft.away.trim() ? t("timers.says.awayOn") : t("timers.says.awayOff")}
            open={Boolean(wrong("every_offline") ?? wrong("offline_lines"))}
          >
            <div className="pair">
              {field("away", "every_offline")}
              {field("awayLines", "offline_lines")}
            </div>
          </Fold>
          <Fold
            title={t("timers.whereTitle")}
            says={
              draft.platforms.length
                ? draft.platforms.map((one) => t(`platforms.${one}`, { defaultValue: one })).join(", ")
                : t("timers.says.everywhere")
            }
          >
            {all.platforms.map((one) => (
              <Form.Check
                key={one}
                inline
                id={`rota-on-${one}`}
                label={t(`platforms.${one}`, { defaultValue: one })}
                checked={draft.platforms.includes(one)}
                onChange={(event) =>
                  change({
                    platforms: event.target.checked
                      ? [...draft.platforms, one]
                      : draft.platforms.filter((other) => other !== one),
                  })
                }
              />
            ))}
          </Fold>
        </div>
        <SaveRow
          dirty={dirty}
          problem={problem && !problem.field ? problem.detail : null}
          mine={rotaOf(draft, before)}
          theirs={entry.theirs}
          onKeep={(whole) => void entry.saveOver(draftOf(whole as Rota))}
          onDiscard={entry.discard}
          may={may}
        >
          {view && (
            <Button variant="outline-danger" onClick={() => void remove()}>
              {t("timers.remove")}
            </Button>
          )}
        </SaveRow>
      </fieldset>
    </Form>
  );
}
