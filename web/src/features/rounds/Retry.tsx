import { useMutation, useQueryClient } from "@tanstack/react-query";
import { App, Button } from "antd";

import { useBookId } from "../../shared/useBook";
import { retryParcel } from "./api";

/** Lets a parcel go again whose message could not be made. */
export function Retry({ round, parcel }: { round: number; parcel: number }) {
  const book = useBookId();
  const client = useQueryClient();
  const { message } = App.useApp();
  const retrying = useMutation({
    mutationFn: () => retryParcel(book, parcel),
    onSuccess: () => client.invalidateQueries({ queryKey: ["round", book, round] }),
    onError: (e) => void message.error(e.message),
  });
  return (
    <Button size="small" loading={retrying.isPending} onClick={() => retrying.mutate()}>
      Retry
    </Button>
  );
}
