import { expose } from 'comlink'
import { answering } from './answering'
import { tasks } from './tasks'

expose(answering(tasks))
