import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { keys } from "../api/keys";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import { NotRead } from "../parts/not-read";

/** A document to try bringing in with; demo/example-documents.mjs writes them. */
interface Example {
  name: string;
  file: string;
}

async function had(path: string): Promise<Response> {
  const answer = await fetch(`/examples/${path}`);
  if (!answer.ok) throw new Error(`The server answered ${answer.status}.`);
  return answer;
}

/** Offers a document of ours to whoever wants to see what bringing in does. */
export function ExampleDocuments({ onChoose }: { onChoose: (file: File) => void }) {
  const [problem, setProblem] = useState<string | null>(null);
  const examples = useQuery({
    queryKey: keys.exampleDocuments,
    queryFn: async () => (await (await had("list.json")).json()) as Example[],
    staleTime: Infinity,
  });
  const choose = async (name: string): Promise<void> => {
    setProblem(null);
    try {
      onChoose(new File([await (await had(name)).blob()], name));
    } catch (error) {
      setProblem(`The document could not be had: ${(error as Error).message}`);
    }
  };
  if (!examples.data)
    return (
      <NotRead
        of={examples}
        says={({ message }) => `The documents to try it with could not be had: ${message}`}
      />
    );
  return (
    <div className="text-sm">
      <p className="flex flex-wrap items-baseline gap-x-3 text-faint">
        To see what it does, try it with one of ours:
        {examples.data.map(({ name, file }) => (
          <Button key={file} kind="quiet" type="button" onClick={() => void choose(file)}>
            {name}
          </Button>
        ))}
      </p>
      {problem && <Problem>{problem}</Problem>}
    </div>
  );
}
