import i18next from "i18next";
import { initReactI18next } from "react-i18next";
import en from "./en.json";

void i18next.use(initReactI18next).init({
  lng: "en",
  fallbackLng: "en",
  resources: { en: { translation: en } },
  interpolation: { escapeValue: false },
});

/** For words that are templates themselves: their braces stay as they are written. */
export const AS_WRITTEN = { interpolation: { prefix: "[[", suffix: "]]" } };

export default i18next;
