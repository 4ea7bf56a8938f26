/** The tabs of the tools under a plan. */
interface Props<Tool extends string> {
  tools: { tool: Tool; word: string }[];
  chosen: Tool;
  onChoose(tool: Tool): void;
}

export function ToolTabs<Tool extends string>({ tools, chosen, onChoose }: Props<Tool>) {
  return (
    <div className="tool-tabs">
      <div role="tablist" aria-label="Tools">
        {tools.map(({ tool, word }) => (
          <button
            key={tool}
            type="button"
            role="tab"
            aria-selected={chosen === tool}
            data-testid={`tool-${tool}`}
            onClick={() => onChoose(tool)}
          >
            {word}
          </button>
        ))}
      </div>
    </div>
  );
}
