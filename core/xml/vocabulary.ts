const html =
	'a abbr address article aside audio b bdo big blockquote br caption center cite code col colgroup dd del details dfn div dl dt em figcaption figure font footer h1 h2 h3 h4 h5 h6 header hr i img input ins kbd label li main map mark nav object ol option p param pre q rb rp rt ruby s samp section select small source span strike strong sub summary sup table tbody td textarea tfoot th thead time tr track tt u ul var video wbr';
const mathMl =
	'math semantics annotation maction menclose merror mfenced mfrac mi mmultiscripts mn mo mover mpadded mphantom mroot mrow ms mspace msqrt mstyle msub msubsup msup mtable mtd mtext mtr munder munderover';
const qti12 =
	'and altmaterial conditionvar decvar displayfeedback durequal durgte durgt durlt durlte fieldentry fieldlabel flow flow_label flow_mat hint hintmaterial item itemcontrol itemfeedback itemmetadata itemrubric itemproc_extension interpretvar matapplet matapplication mataudio matbreak matemtext material material_ref matimage matref mattext matvideo mat_extension not objectives or other outcomes presentation qticomment qtimetadata qtimetadatafield qmd_itemtype qmd_maximumscore qmd_computerscored render_choice render_extension render_fib render_hotspot render_slider respcondition response_extension response_grp response_label response_lid response_na response_num response_str response_xy resprocessing rubric setvar solution solutionmaterial unanswered varequal vargt vargte varinside varlt varlte varsubset varsubstring var_extension';
const qti2 =
	'anyN areaMapEntry areaMapping assessmentItem assessmentStimulusRef associableHotspot associateInteraction baseValue choiceInteraction contains containerSize correct correctResponse customInteraction customOperator default defaultValue delete divide drawingInteraction durationGTE durationLT endAttemptInteraction equal equalRounded exitResponse exitTemplate extendedTextInteraction feedbackBlock feedbackInline fieldValue gap gapImg gapMatchInteraction gapText gcd graphicAssociateInteraction graphicGapMatchInteraction graphicOrderInteraction gt gte hotspotChoice hotspotInteraction hottext hottextInteraction include index infoControl inlineChoice inlineChoiceInteraction inside integerDivide integerModulus integerToFloat interpolationTable interpolationTableEntry isNull itemBody lcm lookupOutcomeValue lt lte mapEntry mapResponse mapResponsePoint mapping match matchInteraction matchTable matchTableEntry mathConstant mathOperator max mediaInteraction member min modalFeedback multiple null numberCorrect numberIncorrect orderInteraction ordered outcomeDeclaration patternMatch portableCustomInteraction positionObjectInteraction positionObjectStage power printedVariable product prompt random randomFloat randomInteger repeat responseCondition responseDeclaration responseElse responseElseIf responseIf responseProcessing responseProcessingFragment round roundTo rubricBlock selectPointInteraction setCorrectResponse setDefaultValue setOutcomeValue setTemplateValue simpleAssociableChoice simpleChoice simpleMatchSet sliderInteraction statsOperator stringMatch stylesheet substring subtract sum templateBlock templateCondition templateConstraint templateDeclaration templateDefault templateElse templateElseIf templateIf templateInline templateProcessing templateVariable textEntryInteraction truncate uploadInteraction value variable';

const camel = (named: string) => named.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);

/**
 * Names of elements that questions are written with: HTML (living standard, 3.1), MathML 3, QTI 1.2 (ASI binding), QTI 2.x,
 * and QTI 3.0, whose names are those of 2.x with a prefix.
 */
export const knownNames: ReadonlySet<string> = new Set(
	[html, mathMl, qti12, qti2]
		.flatMap((list) => list.split(' '))
		.concat(qti2.split(' ').map((one) => `qti-${camel(one)}`))
);
