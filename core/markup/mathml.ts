/** The elements of MathML that are kept: presentation (MathML 3, chapter 3) and what a formula is noted with (5.1). */
export const mathElements: ReadonlySet<string> = new Set(
	'math mrow mi mn mo mtext mspace ms mfrac msqrt mroot mstyle merror mpadded mphantom mfenced menclose msub msup msubsup munder mover munderover mmultiscripts mprescripts none mtable mtr mtd maligngroup malignmark semantics annotation'.split(
		' '
	)
);
