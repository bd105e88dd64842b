import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import type { UseFormReturn } from "react-hook-form";
import { useTranslation } from "react-i18next";
import { insertAt } from "../../ui/insertAt";
import type { Draft } from "./types";

const VARIABLES = ["person.name", "args", "uses", "stream.title", "now | time"];
const RARER = [
  "target.name",
  "target.link",
  "person.follows_for",
  "stream.category",
  "stream.uptime",
  "stream.viewers",
  "channel",
];

type Props = {
  form: UseFormReturn<Draft>;
  problem: string | null;
  counters: string[];
  onFocus: (place: number) => void;
  at: number;
};

/** The replies, and what can be put into them by a press: into the one that was last typed in. */
export function Replies({ form, problem, counters, onFocus, at }: Props) {
  const { t } = useTranslation();
  const [more, setMore] = useState(false);
  const replies = form.watch("reply");
  const place = Math.min(at, replies.length - 1);
  const insert = (variable: string) => {
    const made = insertAt(`command-reply-${place}`, replies[place] ?? "", variable);
    form.setValue(`reply.${place}`, made);
  };
  return (
    <>
      {replies.map((_, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a reply is its place in the list
        <Form.Group className="mb-2" controlId={`command-reply-${index}`} key={index}>
          <Form.Label>{index ? t("commands.replyN", { n: index + 1 }) : t("commands.reply")}</Form.Label>
          <Form.Control
            as="textarea"
            rows={3}
            {...form.register(`reply.${index}`)}
            onFocus={() => onFocus(index)}
            isInvalid={Boolean(problem)}
          />
          {index === 0 && (
            <Form.Text className={problem ? "text-danger" : ""}>
              {problem ?? t("commands.replyHelp")}
            </Form.Text>
          )}
          {index > 0 && (
            <Button
              variant="link"
              size="sm"
              onClick={() =>
                form.setValue(
                  "reply",
                  replies.filter((__, other) => other !== index),
                )
              }
            >
              {t("commands.dropReply")}
            </Button>
          )}
        </Form.Group>
      ))}
      <div className="variables">
        <span className="quiet">{t("commands.insert")}</span>
        {(more ? [...VARIABLES, ...RARER] : VARIABLES).map((variable) => (
          <button type="button" key={variable} onClick={() => insert(variable)} title={`{{ ${variable} }}`}>
            {t(`variables.${variable.replaceAll(".", "_")}`)}
          </button>
        ))}
        {(more ? counters : []).map((counter) => (
          <button
            type="button"
            key={`counter ${counter}`}
            onClick={() => insert(/^\w+$/.test(counter) ? `counter.${counter}` : `counter["${counter}"]`)}
          >
            {t("commands.counterNow", { counter })}
          </button>
        ))}
        {!more && (
          <button type="button" onClick={() => setMore(true)}>
            {t("commands.moreVariables")}
          </button>
        )}
      </div>
      <div className="variables">
        <button type="button" onClick={() => form.setValue("reply", [...replies, ""])}>
          + {t("commands.addReply")}
        </button>
      </div>
    </>
  );
}
