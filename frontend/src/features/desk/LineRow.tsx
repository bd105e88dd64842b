import { memo } from "react";
import { useTranslation } from "react-i18next";
import type { Line } from "../../live/types";
import { MarkedText } from "../../ui/MarkedText";
import { clock } from "../../ui/time";
import { LineActs, type LineHandlers } from "./LineActs";
import { ink, isRemoved, marginWords, standing, verdictOf } from "./marks";

type Props = {
  line: Line;
  chosen: boolean;
  handlers: LineHandlers;
  onChoose: (key: string) => void;
};

/** One line of chat, with what the gate did in the margin beside it. */
export const LineRow = memo(function LineRow({ line, chosen, handlers, onChoose }: Props) {
  const { t } = useTranslation();
  const words = marginWords(t, line);
  const removed = isRemoved(line);
  const tone = words[0] && (verdictOf(line) ?? standing(line)) ? `ground-${words[0].tone}` : "";
  const platform = t(`platforms.${line.platform}`, { defaultValue: line.platform });
  if (line.happening) return <HappenedRow line={line} platform={platform} />;
  const mark = line.gatekeeper ? "" : t(`levelMarks.${line.person.level}`, { defaultValue: "" });
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the keys of the Desk choose lines
    // biome-ignore lint/a11y/noStaticElementInteractions: its buttons are buttons; the press on the line only chooses
    <div
      className={`line ${tone} ${chosen ? "chosen" : ""} ${line.gatekeeper ? "gatekeeper" : ""}`}
      data-key={line.key}
      onClick={() => onChoose(line.key)}
    >
      <time className="quiet">{clock(line.at)}</time>
      <span className="tile" title={platform}>
        <span aria-hidden="true">{platform.slice(0, 1)}</span>
        <span className="visually-hidden">{platform}</span>
      </span>
      <div className="said">
        <button
          type="button"
          className={`name ink-${ink(line.person.identity)}`}
          onClick={(event) => {
            event.stopPropagation();
            handlers.onCard(line.key);
          }}
        >
          {line.person.name}
        </button>
        {mark && <span className="level">{mark}</span>}{" "}
        <span className={removed ? "removed" : line.action ? "action" : ""}>
          <MarkedText text={line.text} reasons={verdictOf(line)?.reasons ?? []} />
        </span>
        {chosen && <LineActs line={line} handlers={handlers} />}
      </div>
      <div className="margin">
        {words.map(({ tone: wordTone, word, more }) => (
          <div key={word} className={`word ${wordTone}`}>
            <b>{word}</b>
            {more && <span>{more}</span>}
          </div>
        ))}
      </div>
    </div>
  );
});

/** A follow, subscription, gift, tip or raid in its place in the chat. */
function HappenedRow({ line, platform }: { line: Line; platform: string }) {
  const { t } = useTranslation();
  const { what = "follow", amount = null, text = null } = line.happening ?? {};
  return (
    <div className="line happened" data-key={line.key}>
      <time className="quiet">{clock(line.at)}</time>
      <span className="tile" title={platform}>
        <span aria-hidden="true">{platform.slice(0, 1)}</span>
        <span className="visually-hidden">{platform}</span>
      </span>
      <div className="said">
        <b className={`ink-${ink(line.person.identity)}`}>{line.person.name}</b>{" "}
        {t(amount === null ? `happened.${what}` : `happened.${what}With`, { amount })}
        {text && <span className="quiet"> “{text}”</span>}
      </div>
    </div>
  );
}
