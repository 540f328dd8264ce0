import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { useBookId } from "../../shared/useBook";
import type { WorkProgress } from "../../shared/api/work";
import { addUploaded, beginUpload, uploadPiece, type Added, type EnclosureUse } from "./api";
import { batches, packed } from "./parcelling";

/** Gives files in, and tells how far it has come. After a cut the same files are gone on with where it broke off. */
export function useGiveIn(use: EnclosureUse, customer = "") {
  const book = useBookId();
  const client = useQueryClient();
  const [progress, setProgress] = useState<WorkProgress>();
  const stopped = useRef(new AbortController());
  const giving = useMutation({
    mutationFn: async (files: File[]): Promise<Added> => {
      stopped.current = new AbortController();
      const { signal } = stopped.current;
      const all: Added = { added: 0, known: 0, refused: [] };
      for (const batch of batches(files)) {
        const content = await packed(batch);
        const upload = await beginUpload(book, { name: batch.name, size: content.size, mark: batch.mark });
        let { received } = upload;
        while (received < content.size) {
          signal.throwIfAborted();
          setProgress({
            stage: "uploading",
            done: mega(received),
            of: mega(content.size),
            unit: "MB",
            perSecond: 0,
            secondsLeft: null,
          });
          const piece = content.slice(received, received + upload.pieceSize);
          ({ received } = await uploadPiece(book, upload.id, received, piece, signal));
        }
        const added = await addUploaded(book, upload.id, use, customer, signal, setProgress);
        all.added += added.added;
        all.known += added.known;
        all.refused.push(...added.refused);
      }
      return all;
    },
    onSettled: () => {
      setProgress(undefined);
      void client.invalidateQueries({ queryKey: ["enclosures", book] });
      void client.invalidateQueries({ queryKey: ["copies", book] });
    },
  });
  return { ...giving, progress, stop: () => stopped.current.abort() };
}

const mega = (bytes: number) => Math.round(bytes / 100_000) / 10;
