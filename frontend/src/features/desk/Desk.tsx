import { type ComponentType, useCallback, useMemo, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useHotkeys } from "react-hotkeys-hook";
import { useTranslation } from "react-i18next";
import type { Line } from "../../live/types";
import { PASSES } from "../../ui/passes";
import { useLive } from "../../ui/useLive";
import { useMe } from "../../ui/useMe";
import { useActs } from "./acts";
import { Bench } from "./Bench";
import { Feed } from "./Feed";
import { HandOver } from "./HandOver";
import { KeysCard } from "./KeysCard";
import { LENGTHS, type LineHandlers } from "./LineActs";
import { canUndo, standing, undoneOf } from "./marks";
import { Panel } from "./Panel";
import { SayBox } from "./SayBox";
import { Start, StartSteps, useStart } from "./Start";
import { useKeys } from "./useKeys";
import { WhyCard } from "./WhyCard";

/** The live view: the merged chat, what the gate did and why, and the bench. `Person` shows a line's writer. */
export function Desk({ Person }: { Person: ComponentType<{ person: string }> }) {
  const { t } = useTranslation();
  const { data: me } = useMe();
  const acts = useActs();
  const lines = useLive((state) => state.lines);
  const pace = useLive((state) => state.parts.pace ?? 0);
  const connected = useLive((state) => Boolean(state.parts.stream?.platforms.length));
  const [gateOnly, setGateOnly] = useState(false);
  const [chosen, setChosen] = useState<string | null>(null);
  const [card, setCard] = useState<string | null>(null);
  const [timing, setTiming] = useState(false);
  const [passing, setPassing] = useState(false);
  const [newest, setNewest] = useState(0);
  const [keys, setKeys] = useState(false);
  const [sheet, setSheet] = useState(false);
  const [missed, setMissed] = useState(false);
  const start = useStart();
  const keysOf = useKeys();
  const shown = useMemo(
    () => (gateOnly ? lines.filter((line) => line.marks.length > 0) : lines),
    [lines, gateOnly],
  );
  const may = useCallback((act: string) => Boolean(me?.may.includes(act)), [me]);
  const opened = card === null ? undefined : lines.findLast((line) => line.key === card);

  const undo = useCallback((line: Line) => void acts.undo(line), [acts]);
  const open = useCallback((key: string) => {
    setChosen(key);
    setCard(key);
    setSheet(true);
  }, []);
  const choose = useCallback((key: string | null) => {
    setChosen(key);
    setTiming(false);
    setPassing(false);
  }, []);
  const handlers = useMemo<LineHandlers>(
    () => ({
      may,
      timing,
      onTiming: setTiming,
      passing,
      onPassing: setPassing,
      onPass: (line, length) => {
        setPassing(false);
        void acts.pass(line, length);
      },
      onUndo: undo,
      onRemove: (line) => void acts.remove(line),
      onTimeOut: (line, seconds) => {
        setTiming(false);
        void acts.timeOut(line, seconds);
      },
      onBan: (line) => {
        setTiming(false);
        void acts.ban(line);
      },
      onCard: open,
    }),
    [acts, may, open, passing, timing, undo],
  );
  const close = () => {
    setCard(null);
    setKeys(false);
    setSheet(false);
  };

  const current = () => lines.findLast((line) => line.key === chosen);
  const step = (by: number) => {
    const place = shown.findIndex((line) => line.key === chosen);
    const next = place < 0 ? shown.length - 1 : Math.min(shown.length - 1, Math.max(0, place + by));
    choose(shown[next]?.key ?? null);
  };
  useHotkeys("up", () => step(-1), { preventDefault: true });
  useHotkeys("down", () => step(1), { preventDefault: true });
  useHotkeys(`enter, ${keysOf.why}`, () => chosen && open(chosen));
  useHotkeys(keysOf.undo, () => {
    const line = current();
    if (line && canUndo(line) && may("undo")) undo(line);
  });
  useHotkeys(keysOf.remove, () => {
    const line = current();
    if (line && !line.gatekeeper && !canUndo(line) && may("remove")) void acts.remove(line);
  });
  useHotkeys(keysOf.timeOut, () => {
    const line = current();
    if (!line || line.gatekeeper) return;
    setPassing(false);
    setTiming(true);
  });
  useHotkeys(keysOf.pass, () => {
    const line = current();
    if (!line || line.gatekeeper || !may("pass")) return;
    setTiming(false);
    setPassing(true);
  });
  useHotkeys("1, 2, 3, 4", (event) => {
    const line = current();
    const seconds = LENGTHS[Number(event.key) - 1];
    if (timing && line && seconds && may("timeout")) handlers.onTimeOut(line, seconds);
    const length = PASSES[Number(event.key) - 1];
    if (passing && line && length && may("pass")) handlers.onPass(line, length);
  });
  useHotkeys(keysOf.gateOnly, () => setGateOnly((before) => !before));
  useHotkeys("/", () => document.getElementById("say")?.focus(), { preventDefault: true });
  useHotkeys("shift+slash", () => setKeys(true), { useKey: false });
  useHotkeys("esc", () => {
    choose(null);
    setNewest((before) => before + 1);
    close();
  });

  const stopped = lines.filter((line) => standing(line) ?? undoneOf(line));
  return (
    <main className="desk">
      <h1 className="visually-hidden">{t("rooms.desk")}</h1>
      <section className="chat">
        <div className="chat-head">
          <span className="quiet">
            <span className="pace">{t("desk.pace", { count: pace })} · </span>
            {t("desk.stopped", { stopped: stopped.length, undone: stopped.filter(undoneOf).length })}
          </span>
          <span className="flex-grow-1" />
          <Form.Check
            type="switch"
            id="gate-only"
            label={t("desk.gateOnly")}
            checked={gateOnly}
            onChange={(event) => setGateOnly(event.target.checked)}
          />
          {may("card") && (
            <Button
              size="sm"
              variant="outline-secondary"
              aria-pressed={missed}
              onClick={() => {
                setMissed(!missed);
                setSheet(true);
              }}
            >
              {t("handOver.title")}
            </Button>
          )}
          <Button size="sm" variant="outline-secondary" className="keys-button" onClick={() => setKeys(true)}>
            {t("desk.keys")} <kbd>?</kbd>
          </Button>
          <Button
            size="sm"
            variant="outline-secondary"
            className="bench-button"
            onClick={() => setSheet(true)}
          >
            {t("desk.showBench")}
          </Button>
        </div>
        {start && lines.length === 0 && <Start steps={start} />}
        <Feed
          lines={shown}
          chosen={chosen}
          handlers={handlers}
          emptyWords={
            start ? "" : t(gateOnly ? "desk.emptyGate" : connected ? "desk.empty" : "desk.emptyNoPlatform")
          }
          newest={newest}
          onChoose={choose}
        />
        {may("say") && <SayBox />}
      </section>
      <aside className={`bench ${sheet ? "open" : ""}`} aria-label={t("desk.bench")}>
        <Button size="sm" variant="outline-secondary" className="sheet-close" onClick={close}>
          {t("desk.hideBench")}
        </Button>
        {keys && <KeysCard onClose={() => setKeys(false)} />}
        {opened && <WhyCard line={opened} may={may} acts={acts} Person={Person} onClose={close} />}
        <HandOver wanted={missed} onClose={() => setMissed(false)} may={may} />
        {start && lines.length > 0 && may("commands") && (
          <Panel name="start" title={t("start.title")}>
            <StartSteps steps={start} />
          </Panel>
        )}
        <Bench may={may} onOpen={open} />
      </aside>
    </main>
  );
}
