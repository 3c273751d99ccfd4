export { chancesOf, findPassages, passageAt, weighPassages, type Chances } from './find'
export { layOut, logOdds, type TreeNode, type Trees } from './trees'
export {
  phraseOdds,
  PHRASE_SHARE,
  QUESTIONS,
  type Judge,
  type Model,
  type Question,
  type SentenceOdds,
} from './model'
export { runsOf, traitsOf, type Run } from './candidates'
export { chance, choosePassages } from './choose'
