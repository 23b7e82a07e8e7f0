import { create } from 'zustand';
import type { Tool } from '@yellow-pin/core/tools/schema';

/** Tools as they are being changed, by id, until they are stored or given up: looking at another loses nothing. */
interface Drafts {
  tools: Readonly<Record<string, Tool>>;
  set(tool: Tool): void;
  drop(id: string): void;
}

export const useDrafts = create<Drafts>()((set) => ({
  tools: {},
  set: (tool) => set((s) => ({ tools: { ...s.tools, [tool.id]: tool } })),
  drop: (id) =>
    set(({ tools: { [id]: _, ...rest } }) => ({
      tools: rest,
    })),
}));
