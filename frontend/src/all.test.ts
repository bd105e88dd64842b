/** Every test of the plain TypeScript parts; `make test` runs them with Node's own test runner. */
import "./features/commands/types.test";
import "./features/desk/marks.test";
import "./live/reducer.test";
import "./ui/time.test";
