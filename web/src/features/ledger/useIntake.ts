import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { App } from "antd";
import { useState } from "react";
import { upload, type Schemas } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";
import { useWork } from "./useWork";
import { served } from "../../shared/served";
import { intakeReading, saveIntakeReading } from "./api";

type Reading = Schemas["ReadingRequest"];

/** A file that is looked at: what it says, what was decided about it, and the ways to decide and put right. */
export function useIntake(id: number) {
  const book = useBookId();
  const client = useQueryClient();
  const { message } = App.useApp();
  const looking = useWork();
  const [stamp, setStamp] = useState(0);
  const view = useQuery({
    queryKey: ["intake", book, id],
    queryFn: ({ signal }) =>
      looking.start<Schemas["IntakeView"]>("GET", served(`/api/books/${book}/intakes/${id}`), signal),
    retry: false,
    staleTime: Infinity,
  });
  const decided = {
    queryKey: ["intake-reading", book, id],
    queryFn: () => intakeReading(book, id),
  };
  const reading = useQuery(decided);
  const refresh = async () => {
    setStamp((s) => s + 1);
    await client.invalidateQueries({ queryKey: ["intake-reading", book, id] });
    await client.invalidateQueries({ queryKey: ["intake", book, id] });
  };
  const onError = (e: Error) => message.error(e.message);
  // One after the other, each upon what the one before it came to.
  const changing = useMutation({
    scope: { id: `intake ${id}` },
    mutationFn: async (change: (now: Reading) => Reading) =>
      saveIntakeReading(book, id, change(await client.query({ ...decided, staleTime: "static" }))),
    onSuccess: refresh,
    onError,
  });
  const loading = useMutation({
    mutationFn: (file: File) => upload(served(`/api/books/${book}/intakes/${id}/reading.json`), file),
    onSuccess: refresh,
    onError,
  });
  return { view, reading, stamp, looking, refresh, change: changing.mutate, load: loading.mutate };
}
