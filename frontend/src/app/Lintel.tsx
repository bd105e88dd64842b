import { useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { Button, Dropdown } from "react-bootstrap";
import { useHotkeys } from "react-hotkeys-hook";
import { useTranslation } from "react-i18next";
import { Link, NavLink } from "react-router";
import { api } from "../api/client";
import type { PlatformState } from "../live/types";
import { placeWords } from "../ui/entries";
import { inWords } from "../ui/time";
import { useLive, useNow } from "../ui/useLive";
import { useMe } from "../ui/useMe";
import { ROOMS } from "./rooms";
import { TonightChips } from "./TonightChips";
import { chooseSize, chooseTheme, chosenSize, chosenTheme, LARGEST, SMALLEST, type Theme } from "./theme";

const Search = lazy(() => import("./Search").then((module) => ({ default: module.Search })));
const TryOut = lazy(() => import("./TryOut").then((module) => ({ default: module.TryOut })));

export function Lintel() {
  const { t } = useTranslation();
  const channel = useLive((state) => state.parts.channel);
  const lost = useLive((state) => !state.connected && state.lines.length > 0);
  const [trying, setTrying] = useState(false);
  const [searching, setSearching] = useState(false);
  useHotkeys("mod+k", () => setSearching(true), { preventDefault: true, enableOnFormTags: true });
  return (
    <header className="lintel">
      <Suspense>{trying && <TryOut shown onHide={() => setTrying(false)} />}</Suspense>
      <Suspense>
        {searching && <Search onHide={() => setSearching(false)} onTryOut={() => setTrying(true)} />}
      </Suspense>
      <div className="lintel-top">
        <span className="channel">{channel?.name || t("product")}</span>
        <StreamClock />
        <Lamps />
        {channel && (
          <Link
            className="chip moss"
            to="/rules"
            title={t("lintel.mood", { mood: t(`moods.${channel.mood}`) })}
          >
            {t(`moods.${channel.mood}`)}
          </Link>
        )}
        <TonightChips />
        <span className="flex-grow-1" />
        <Present />
        <Button
          size="sm"
          variant="outline-secondary"
          className="search-button"
          onClick={() => setSearching(true)}
        >
          {t("search.open")} <kbd>Ctrl K</kbd>
        </Button>
        <Button size="sm" variant="outline-secondary" onClick={() => setTrying(true)}>
          {t("tryOut.open")}
        </Button>
        <AccountMenu />
      </div>
      <nav className="rooms" aria-label={t("rooms.label")}>
        {ROOMS.map(([path, name]) => (
          <NavLink key={path} to={path} end={path === "/"}>
            {t(`rooms.${name}`)}
          </NavLink>
        ))}
      </nav>
      {lost && (
        <p className="lost" role="status">
          {t("lintel.lost")}
        </p>
      )}
    </header>
  );
}

function StreamClock() {
  const { t } = useTranslation();
  const stream = useLive((state) => state.parts.stream);
  const now = useNow(1000);
  if (!stream) return null;
  const minutes = Math.floor((now - stream.began / 1000) / 60000) * 60;
  const time = minutes > 0 ? minutes : Math.round((now - stream.began / 1000) / 1000);
  return (
    <span className="quiet stream-clock">
      {stream.live ? t("lintel.live", { time: inWords(t, time) }) : t("lintel.offline")}
    </span>
  );
}

function lampOf(platform: PlatformState): { word: string; tone: string } {
  if (platform.lamp === "broken") return { word: "broken", tone: "clay" };
  if (platform.lamp === "no rights") return { word: "noRights", tone: "clay" };
  if (platform.lamp === "connecting") return { word: "connecting", tone: "straw" };
  return platform.live ? { word: "live", tone: "moss" } : { word: "offline", tone: "quiet" };
}

function Lamps() {
  const { t } = useTranslation();
  const platforms = useLive((state) => state.parts.stream?.platforms);
  return (
    <span className="lamps">
      {platforms?.map((platform) => {
        const { word, tone } = lampOf(platform);
        const name = t(`platforms.${platform.name}`, { defaultValue: platform.name });
        return (
          <span key={platform.name} className={`lamp ${tone}`} title={platform.note || name}>
            <b className="tile" aria-hidden="true">
              {name.slice(0, 1)}
            </b>
            <span className="visually-hidden">{name} </span>
            <i aria-hidden="true" />
            {t(`lamps.${word}`)}
          </span>
        );
      })}
    </span>
  );
}

function Present() {
  const { t } = useTranslation();
  const { data: me } = useMe();
  const names = useLive((state) => state.parts.present)?.filter((name) => name !== me?.name);
  const editing = useLive((state) => state.parts.editing);
  if (!names?.length) return null;
  const placesOf = (name: string) => editing?.find((one) => one.name === name)?.places ?? [];
  const about = (name: string) =>
    placesOf(name).length
      ? t("editing.where", {
          name,
          places: placesOf(name)
            .map((place) => placeWords(t, place))
            .join(", "),
        })
      : name;
  const label = t("lintel.here", { names: names.map(about).join(", ") });
  return (
    <span className="present" role="img" aria-label={label} title={label}>
      {names.map((name) => (
        <span key={name} aria-hidden="true" className={placesOf(name).length ? "editing" : ""}>
          {name.slice(0, 2)}
        </span>
      ))}
    </span>
  );
}

function AccountMenu() {
  const { t } = useTranslation();
  const { data: me } = useMe();
  const queries = useQueryClient();
  const [theme, setTheme] = useState<Theme>(chosenTheme);
  const [size, setSize] = useState(chosenSize);
  if (!me) return null;
  const logOut = async () => {
    await api.DELETE("/api/session");
    queries.removeQueries({ predicate: (query) => query.queryKey[0] !== "me" });
    queries.setQueryData(["me"], null);
  };
  return (
    <Dropdown align="end">
      <Dropdown.Toggle variant="outline-secondary" size="sm" id="account">
        {me.name}
      </Dropdown.Toggle>
      <Dropdown.Menu>
        <Dropdown.Header>
          {t("lintel.account", { name: me.name, level: t(`levels.${me.level}`) })}
        </Dropdown.Header>
        <Dropdown.Header>{t("lintel.theme")}</Dropdown.Header>
        {(["system", "day", "night"] as const).map((one) => (
          <Dropdown.Item
            key={one}
            as="button"
            active={theme === one}
            onClick={() => {
              chooseTheme(one);
              setTheme(one);
            }}
          >
            {t(`lintel.${one}`)}
          </Dropdown.Item>
        ))}
        <Dropdown.Header id="text-size">{t("lintel.textSize", { size })}</Dropdown.Header>
        <div className="text-size">
          {([-1, 1] as const).map((step) => (
            <Button
              key={step}
              size="sm"
              variant="outline-secondary"
              aria-label={t(step < 0 ? "lintel.smaller" : "lintel.larger")}
              disabled={step < 0 ? size <= SMALLEST : size >= LARGEST}
              onClick={() => {
                chooseSize(size + step);
                setSize(size + step);
              }}
            >
              {step < 0 ? "A−" : "A+"}
            </Button>
          ))}
        </div>
        <Dropdown.Divider />
        <Dropdown.Item as="button" onClick={() => void logOut()}>
          {t("lintel.logOut")}
        </Dropdown.Item>
      </Dropdown.Menu>
    </Dropdown>
  );
}
