import { Editor } from '@tiptap/core';
import { TableKit } from '@tiptap/extension-table';
import StarterKit from '@tiptap/starter-kit';
import { BlankPlace, Formula, marks, Picture, Sound, VariablePlace } from './nodes';

/** What an editor of rich text is made with. */
interface Making {
	box: HTMLElement;
	content: string;
	label: string;
	changed: (editor: Editor) => void;
	/** Takes files that were dropped or pasted; false leaves them to the editor. */
	files: (files: File[]) => boolean;
	left: () => void;
	moved: (editor: Editor) => void;
}

/** Makes an editor of rich text in an element. What it does not know of pasted text it drops, and keeps the words. */
export function makeEditor({ box, content, label, changed, files, left, moved }: Making): Editor {
	const filesIn = (list: FileList | undefined) => [...(list ?? [])];
	return new Editor({
		element: box,
		content,
		injectCSS: false,
		extensions: [
			StarterKit.configure({
				underline: false,
				strike: false,
				codeBlock: {},
				link: { openOnClick: false, autolink: false, HTMLAttributes: { target: null, rel: null, class: null } },
				trailingNode: false
			}),
			TableKit.configure({ table: { resizable: false } }),
			Picture,
			BlankPlace,
			Sound,
			Formula,
			VariablePlace,
			...marks
		],
		editorProps: {
			attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': label },
			handleDrop: (_, event) => files(filesIn(event.dataTransfer?.files)),
			handlePaste: (_, event) => files(filesIn(event.clipboardData?.files))
		},
		onUpdate: ({ editor }) => changed(editor),
		onSelectionUpdate: ({ editor }) => moved(editor),
		onBlur: left
	});
}
