/** What stays usable while a sheet lies over the page: what is told, with its way back. For `persistentElements` of a dialog. */
export const overSheets = [(): Element | null => document.querySelector('[data-told]')];
