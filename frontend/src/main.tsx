import { createRoot } from "react-dom/client";
import { App } from "./app/App";
import { followTheme } from "./app/theme";
import "./styles/main.scss";
import "./words";

followTheme();
const root = document.getElementById("root");
if (root) createRoot(root).render(<App />);
