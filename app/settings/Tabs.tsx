import { StationTabs } from '../ui'

/** What can be set beside the work itself. */
export function Tabs() {
  return (
    <StationTabs
      label="Settings"
      tabs={[
        ['/settings', 'Brands'],
        ['/settings/services', 'Services'],
        ['/settings/notices', 'Notices'],
        ['/settings/bundle', 'Workspace and bundle'],
        ['/settings/look', 'Look'],
      ]}
    />
  )
}
