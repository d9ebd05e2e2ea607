import { useState } from "react";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";

/** Documents to try bringing in with (demo/example-documents.mjs). */
const examples = [
  { name: "a text document (DOCX)", file: "fleet-sands-crossing.docx" },
  { name: "an OpenDocument text (ODT)", file: "oyster-ground.odt" },
];

/** Offers a document of ours to whoever wants to see what bringing in does. */
export function ExampleDocuments({ onChoose }: { onChoose: (file: File) => void }) {
  const [problem, setProblem] = useState<string | null>(null);
  const choose = async (name: string): Promise<void> => {
    setProblem(null);
    try {
      const answer = await fetch(`/examples/${name}`);
      if (!answer.ok) throw new Error(`The server answered ${answer.status}.`);
      onChoose(new File([await answer.blob()], name));
    } catch (error) {
      setProblem(`The document could not be had: ${(error as Error).message}`);
    }
  };
  return (
    <div className="text-sm">
      <p className="flex flex-wrap items-baseline gap-x-3 text-faint">
        To see what it does, try it with one of ours:
        {examples.map(({ name, file }) => (
          <Button key={file} kind="quiet" type="button" onClick={() => void choose(file)}>
            {name}
          </Button>
        ))}
      </p>
      {problem && <Problem>{problem}</Problem>}
    </div>
  );
}
