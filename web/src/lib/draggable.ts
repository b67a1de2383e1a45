import { drag } from 'd3-drag';
import { select } from 'd3-selection';
import type { Attachment } from 'svelte/attachments';

/** A place in pixels of the drawing that an element lies in. */
export interface Pixels {
  x: number;
  y: number;
}

interface Dragged {
  /** Whether it may be dragged now. */
  when?: (event: MouseEvent) => boolean;
  begin?: (at: Pixels) => void;
  move: (at: Pixels) => void;
  end?: (at: Pixels) => void;
}

/** Lets an element of an SVG drawing, or all of it, be dragged by mouse, pen or finger. */
export function draggable({ when, begin, move, end }: Dragged): Attachment<SVGElement> {
  return (element) => {
    const svg = (element.ownerSVGElement ?? element) as SVGSVGElement;
    const behaviour = drag<SVGElement, unknown>()
      .container(() => svg)
      .filter((event: MouseEvent) => !event.ctrlKey && !event.button && (when?.(event) ?? true))
      .on('start', (event: Pixels) => begin?.({ x: event.x, y: event.y }))
      .on('drag', (event: Pixels) => move({ x: event.x, y: event.y }))
      .on('end', (event: Pixels) => end?.({ x: event.x, y: event.y }));
    const selected = select(element as SVGElement).call(behaviour);
    return () => void selected.on('.drag', null);
  };
}
