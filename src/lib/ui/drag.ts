import { combine } from '@atlaskit/pragmatic-drag-and-drop/combine';
import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter';

/** What is dragged: things of one sort, by their keys. */
export interface Dragged {
	sort: string;
	keys: readonly (string | number)[];
}

/** What an element does in drags; what it leaves out it does not do. Each drag has a way by keyboard beside it. */
export interface DragPart {
	/** What is taken up with it, or null where it cannot be dragged now. */
	lift?: () => Dragged | null;
	/** Whether something can be let go on it. */
	accepts?: (dragged: Dragged) => boolean;
	drop?: (dragged: Dragged) => void;
	/** What of it is taken hold of, as a selector; all of it where that is left out. */
	handle?: string;
}

/** The part of an element by which it is dragged, where there is such a part. */
function held(element: HTMLElement, handle: string | undefined): { dragHandle?: Element } {
	const part = handle === undefined ? null : element.querySelector(handle);
	return part ? { dragHandle: part } : {};
}

const draggedIn = (source: Record<string | symbol, unknown>) => source as unknown as Dragged;

/**
 * Lets an element be dragged, or something be let go on it, as an attachment. While something that it accepts is over it,
 * it has the attribute `data-over`; while it is dragged itself, `data-dragged`.
 */
export function dragPart({ lift, accepts, drop, handle }: DragPart): (element: HTMLElement) => () => void {
	return (element) =>
		combine(
			lift
				? draggable({
						element,
						...held(element, handle),
						canDrag: () => lift() !== null,
						getInitialData: () => ({ ...lift() }),
						onDragStart: () => element.setAttribute('data-dragged', ''),
						onDrop: () => element.removeAttribute('data-dragged')
					})
				: () => undefined,
			accepts && drop
				? dropTargetForElements({
						element,
						canDrop: ({ source }) => source.element !== element && accepts(draggedIn(source.data)),
						onDragEnter: () => element.setAttribute('data-over', ''),
						onDragLeave: () => element.removeAttribute('data-over'),
						onDrop: ({ source }) => {
							element.removeAttribute('data-over');
							drop(draggedIn(source.data));
						}
					})
				: () => undefined
		);
}
