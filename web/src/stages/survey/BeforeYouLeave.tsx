/** What is still missing or doubtful, always at the foot of the survey, each a tap away. */
import { Button, Drawer } from "antd";
import { useState } from "react";
import type { Todo } from "../../core/types";
import type { SurveyState } from "../../core/useSurvey";
import { type Step, stepAddress } from "../../ui/address";

const SHOWN = 3;

export function BeforeYouLeave({ id, state }: { id: string; state: SurveyState }) {
  const [open, setOpen] = useState(false);
  const left = state.survey?.before_you_leave;
  const words =
    left === undefined
      ? "Before you leave: working …"
      : left.length === 0
        ? "Nothing left to ask"
        : `Before you leave: ${left.length} left`;
  return (
    <footer className={`leave${left?.length === 0 ? " leave-done" : ""}`}>
      <p className="leave-words" role="status" data-testid="before-you-leave">
        {words}
      </p>
      {left && left.length > 0 && (
        <div className="leave-chips">
          {left.slice(0, SHOWN).map((todo, place) => (
            <TodoLink key={place} id={id} todo={todo} />
          ))}
          {left.length > SHOWN && (
            <Button ghost onClick={() => setOpen(true)}>
              All {left.length}
            </Button>
          )}
        </div>
      )}
      <Drawer open={open} onClose={() => setOpen(false)} placement="bottom" title="Before you leave" size="large">
        <ol className="leave-list">
          {left?.map((todo, place) => (
            <li key={place} onClick={() => setOpen(false)}>
              <TodoLink id={id} todo={todo} />
            </li>
          ))}
        </ol>
      </Drawer>
    </footer>
  );
}

/** Goes where it is done, and puts the cursor into the field. */
function TodoLink({ id, todo }: { id: string; todo: Todo }) {
  const step: Step = todo.step;
  const focus = (): void => {
    window.setTimeout(
      () =>
        document.querySelector<HTMLElement>(`[data-field="${todo.field ?? ""}"] :is(input, textarea, button)`)?.focus(),
      300,
    );
  };
  return (
    <a className="chip" href={stepAddress(id, step, todo.id)} onClick={todo.field ? focus : undefined}>
      {todo.says}
    </a>
  );
}
