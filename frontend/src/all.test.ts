/** Every test of the plain TypeScript parts; `make test` runs them with Node's own test runner. */
import "./features/commands/sentences.test";
import "./features/commands/types.test";
import "./features/desk/keys.test";
import "./features/desk/marks.test";
import "./features/rules/entries.test";
import "./features/rules/tuning.test";
import "./features/setup/kit.test";
import "./features/stage/counter.test";
import "./features/timers/rota.test";
import "./live/reducer.test";
import "./live/unsaved.test";
import "./ui/differences.test";
import "./ui/entries.test";
import "./ui/findings.test";
import "./ui/time.test";
