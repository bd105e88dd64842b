import { type FormEvent, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { useLive } from "../../ui/useLive";
import { useActs } from "./acts";

const DRAFT = "gentlegate.draft.say";

/** Saying something as the Gatekeeper on every live platform; the draft stays over a reload. */
export function SayBox() {
  const { t } = useTranslation();
  const acts = useActs();
  const platforms = useLive((state) => state.parts.stream?.platforms);
  const [text, setText] = useState(() => localStorage.getItem(DRAFT) ?? "");
  const change = (next: string) => {
    localStorage.setItem(DRAFT, next);
    setText(next);
  };
  const live = platforms
    ?.filter((one) => one.live)
    .map((one) => t(`platforms.${one.name}`, { defaultValue: one.name }));
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (text.trim() && (await acts.say(text.trim()))) change("");
  };
  const words = live?.length ? t("desk.say", { platforms: live.join(", ") }) : t("desk.sayOffline");
  return (
    <Form className="say-box" onSubmit={submit}>
      <Form.Control
        id="say"
        value={text}
        disabled={!live?.length}
        placeholder={words}
        aria-label={words}
        onChange={(event) => change(event.target.value)}
        onKeyDown={(event) => event.key === "Escape" && event.currentTarget.blur()}
      />
      <Button type="submit" variant="outline-secondary" disabled={!text.trim() || !live?.length}>
        {t("desk.send")}
      </Button>
    </Form>
  );
}
