import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { useRef } from "react";
import { Button, Dropdown } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../api/client";
import { useLive } from "../../ui/useLive";
import { NoticeRow } from "./NoticeRow";
import type { Notice } from "./rota";

type Props = {
  notices: Notice[];
  order: "in turn" | "shuffled";
  rota: string;
  all: Schemas["Rotas"];
  may: boolean;
  mayMove: boolean;
  problem: { where: string | null; detail: string } | null;
  onChange: (notices: Notice[]) => void;
};

/** The notices in their order: written in place, dragged by their handles, or added from the commands. */
export function Notices({ notices, order, rota, all, may, mayMove, problem, onChange }: Props) {
  const { t } = useTranslation();
  const prefix = useLive((state) => state.parts.channel?.prefix ?? "!");
  const sensors = useSensors(
    useSensor(PointerSensor),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  // Each row keeps a mark of its own while it is moved about; two notices may say the same.
  const marks = useRef<number[]>([]);
  const next = useRef(1);
  while (marks.current.length < notices.length) marks.current.push(next.current++);
  marks.current.length = notices.length;
  const set = (place: number, notice: Notice) =>
    onChange(notices.map((one, other) => (other === place ? notice : one)));
  const drop = (place: number) => {
    marks.current = marks.current.filter((_, other) => other !== place);
    onChange(notices.filter((_, other) => other !== place));
  };
  const moved = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const [from, to] = [active.id, over.id].map((id) => marks.current.indexOf(Number(id)));
    marks.current = arrayMove(marks.current, from ?? 0, to ?? 0);
    onChange(arrayMove(notices, from ?? 0, to ?? 0));
  };
  const wrongPlace = Number(problem?.where?.match(/notices\.(\d+)/)?.[1] ?? -1);
  return (
    <section className="notices-list">
      <h3>{t(order === "shuffled" ? "timers.noticesShuffled" : "timers.notices")}</h3>
      {notices.length === 0 && <p className="straw">{t("timers.noNotices")}</p>}
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={moved}>
        <SortableContext items={marks.current} strategy={verticalListSortingStrategy}>
          {notices.map((notice, place) => (
            <NoticeRow
              key={marks.current[place]}
              mark={marks.current[place] ?? 0}
              place={place}
              notice={notice}
              rota={rota}
              platforms={all.platforms}
              commands={all.commands}
              may={may}
              mayMove={mayMove}
              problem={place === wrongPlace ? (problem?.detail ?? null) : null}
              onChange={(changed) => set(place, changed)}
              onDrop={() => drop(place)}
            />
          ))}
        </SortableContext>
      </DndContext>
      {may && (
        <div className="d-flex gap-2 align-items-center flex-wrap">
          <Button size="sm" variant="outline-secondary" onClick={() => onChange([...notices, { text: "" }])}>
            {t("timers.addText")}
          </Button>
          <Dropdown>
            <Dropdown.Toggle size="sm" variant="outline-secondary" disabled={!all.commands.length}>
              {t("timers.addCommand")}
            </Dropdown.Toggle>
            <Dropdown.Menu className="command-menu">
              {all.commands.map((name) => (
                <Dropdown.Item key={name} onClick={() => onChange([...notices, { command: name }])}>
                  {prefix}
                  {name}
                </Dropdown.Item>
              ))}
            </Dropdown.Menu>
          </Dropdown>
          {all.unposted.length > 0 && (
            <span className="unposted">
              <span className="quiet">{t("timers.unposted")}</span>
              {all.unposted.slice(0, 4).map((one) => (
                <button
                  key={one.name}
                  type="button"
                  title={one.reply}
                  onClick={() => onChange([...notices, { command: one.name }])}
                >
                  {prefix}
                  {one.name}
                </button>
              ))}
            </span>
          )}
        </div>
      )}
    </section>
  );
}
