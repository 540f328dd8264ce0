import { useMutation, useQueryClient } from "@tanstack/react-query";
import { App, Button } from "antd";
import { api, must } from "../../shared/api/client";
import { useBookId } from "../../shared/useBook";

/** Lets a parcel go again whose message could not be made. */
export function Retry({ round, parcel }: { round: number; parcel: number }) {
  const book = useBookId();
  const client = useQueryClient();
  const { message } = App.useApp();
  const retrying = useMutation({
    mutationFn: () =>
      must(api.POST("/api/books/{book}/parcels/{parcel}/retry", { params: { path: { book, parcel } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["round", book, round] }),
    onError: (e) => void message.error(e.message),
  });
  return (
    <Button size="small" loading={retrying.isPending} onClick={() => retrying.mutate()}>
      Retry
    </Button>
  );
}
