import { test } from '@playwright/test'
import { faults } from './faults'
import { screens } from './screens'

// One file, so that one worker runs them one after the other on one server.
test.describe('faults', faults)
test.describe('screens', screens)
