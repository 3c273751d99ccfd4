import { expose } from 'comlink'
import { answering } from './answering'
import { resultsTasks } from './resultsTasks'

expose(answering(resultsTasks))
