import { expose } from 'comlink'
import { tasks } from './tasks'

expose(tasks)
