"use client";
/** The tasks of the job with their estimates, the time on them and what it all comes to: for every screen that plans or bills. */

import { useMemo } from "react";
import { formatMoney } from "@/core/money/amount";
import { spentOf, type Spent } from "@/core/money/spent";
import { tasksOf, type Task } from "@/core/repair/tasks";
import { runningTimer, type Spell } from "@/core/repair/time";
import { useJob, useNow } from "./job-context";

export interface Tasks {
  tasks: Task[];
  running?: Spell;
  spent: Spent;
  money(amount: number): string;
}

const MINUTE_MS = 60_000;

export function useTasks(): Tasks {
  const { view, settings, shopHistory, who } = useJob();
  // Anew once a minute: what runs is counted in minutes.
  const now = Math.floor(useNow() / MINUTE_MS) * MINUTE_MS;
  const { state } = view;
  return useMemo(() => {
    const tasks = tasksOf(state, now, shopHistory?.minutes);
    const running = runningTimer(state, now, who);
    return {
      tasks,
      ...(running ? { running } : {}),
      spent: spentOf(state, tasks, settings, now),
      money: (amount) => formatMoney(amount, settings),
    };
  }, [state, now, settings, shopHistory, who]);
}
