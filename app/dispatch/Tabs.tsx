import { StationTabs } from '../ui'

/** The two halves of Dispatch. */
export function Tabs() {
  return (
    <StationTabs
      label="Dispatch"
      tabs={[
        ['/dispatch', 'Deliveries'],
        ['/dispatch/accounts', 'Accounts'],
      ]}
    />
  )
}
