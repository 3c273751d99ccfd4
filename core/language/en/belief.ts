const BELIEF =
  /\b(?:(?:many|most|some|a lot of) (?:people|of us) (?:still )?(?:think|believe|assume|expect|say|suppose)|people (?:often |still |always )?(?:say|think|believe|assume)|it is (?:often|widely|commonly) (?:said|believed|thought|assumed)|(?:common|usual|popular|widespread) (?:belief|mistake|misconception|assumption)|(?:a |the )(?:myth|misconception)\b|everybody (?:knows|says|thinks)|there is a theory|(?:you (?:may|will|might) have|we have all) (?:heard|been told)|i (?:used to think|once (?:thought|believed))|the usual (?:answer|advice)|(?:once )?told (?:me|us) that)\b/i

/** Whether a sentence tells what people believe, which a text then goes on to put right. */
export const isBelief = (sentence: string): boolean => BELIEF.test(sentence)
