import { useTranslation } from "react-i18next";
import { useLive } from "./useLive";
import { useMe } from "./useMe";

/** Says quietly who else is changing this place of the settings and has not saved yet. */
export function AlsoEditing({ place }: { place: string }) {
  const { t } = useTranslation();
  const { data: me } = useMe();
  const editing = useLive((state) => state.parts.editing);
  const here = (one: string) => one === place || one.startsWith(`${place}.`);
  const others = editing?.filter((one) => one.name !== me?.name && one.places.some(here)) ?? [];
  if (!others.length) return null;
  const names = others.map((one) => one.name).join(", ");
  return (
    <span className="chip slate" role="status">
      {t("editing.also", { names })}
    </span>
  );
}
