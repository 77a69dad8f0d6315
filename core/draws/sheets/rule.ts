/**
 * The number of the rule by which sittings are drawn from sheets: a later rule does not change earlier sittings. Rule 1
 * is that of quizzes that are older than sheets; rule 2 was an edition of this one that no quiz was made by.
 */
export const drawingRule = 3;
