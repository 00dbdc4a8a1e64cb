"use client";
/** The socket of a test point; nothing where the point is no pin of a tube, or its base is not known. */

import { useMemo } from "react";
import { pinOfPoint, socketOf } from "@/core/anatomy/sockets";
import type { TestPoint } from "@/core/circuit/circuit";
import { socketWords } from "@/core/walk/socket-words";
import { useJob } from "../job/job-context";
import { SocketView } from "./socket-view";

export function PointSocket({ point, className }: { point: TestPoint; className?: string }) {
  const { view } = useJob();
  const { circuit, rows } = view;
  const found = useMemo(() => {
    const at = circuit && pinOfPoint(circuit, point);
    const socket = at && socketOf(circuit!, at.socket);
    return socket && { socket, pin: at.pin, words: socketWords(socket, rows) };
  }, [circuit, point, rows]);
  return found ? <SocketView {...found} className={className} /> : null;
}
