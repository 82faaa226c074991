import type { CompiledPack } from './compile.ts';

/** Index of the stage at which a node or point can be touched; 0 outside the cover. */
export function stageOfPlace(place: string, layoutId: string, compiled: Pick<CompiledPack, 'layouts' | 'stageIds'>): number {
  const { access = {}, points = {} } = compiled.layouts.get(layoutId) ?? {};
  return Math.max(0, compiled.stageIds.indexOf(access[place] ?? access[points[place]?.on ?? ''] ?? ''));
}
