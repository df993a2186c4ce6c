import { type DragEvent, useState } from "react";

/** Lets a file be dropped on a part of the page; `over` is true while one is dragged above it. */
export function useFileDrop(take: (file: File | undefined) => void) {
  const [over, setOver] = useState(false);
  return {
    over,
    target: {
      onDragOver: (event: DragEvent) => {
        event.preventDefault();
        setOver(true);
      },
      onDragLeave: () => setOver(false),
      onDrop: (event: DragEvent) => {
        event.preventDefault();
        setOver(false);
        take(event.dataTransfer.files[0]);
      },
    },
  };
}
