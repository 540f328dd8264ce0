import { Button } from "antd";
import { useRef, type ReactNode } from "react";

/** A button that takes a file. The same file can be taken twice in a row. */
export function FileButton({
  label,
  accept,
  children,
  onTake,
}: {
  label: string;
  accept: string;
  children: ReactNode;
  onTake: (file: File) => Promise<void>;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button size="small" onClick={() => input.current?.click()}>
        {children}
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        accept={accept}
        aria-label={label}
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) {
            void onTake(file);
          }
        }}
      />
    </>
  );
}
