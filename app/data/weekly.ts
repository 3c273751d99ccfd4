import { asFault, Fault, type Workspace } from '../../core/model'
import { exportBundle } from './bundle'
import { clockNow, nowIso } from './clock'
import { database } from './database'
import { all, commit, patch } from './store'

const WEEK = 7 * 86_400_000
const FOLDER = 'weekly-bundle'

/** What this browser can do with folders, beyond what its types know. */
type Folder = FileSystemDirectoryHandle & {
  queryPermission?: (options: { mode: 'readwrite' }) => Promise<PermissionState>
}
type Picker = { showDirectoryPicker?: (options: { mode: 'readwrite' }) => Promise<Folder> }

/** Whether bundles can be written into a folder here. */
export function canWriteFolders(): boolean {
  return typeof (globalThis as Picker).showDirectoryPicker === 'function'
}

/** Says whether a bundle is made each week and where it goes; asks for the folder where it is one. */
export async function chooseWeekly(id: string, weeklyBundle: Workspace['weeklyBundle']): Promise<void> {
  if (weeklyBundle === 'folder') {
    const pick = (globalThis as Picker).showDirectoryPicker
    if (!pick)
      throw new Fault('bad-request', 'This browser cannot write into folders. Choose the download instead.')
    const handle = await pick({ mode: 'readwrite' })
    await (await database()).put('handles', { id: FOLDER, handle })
  }
  await commit('machine', [patch('workspace', id, (w) => ({ ...w, weeklyBundle }))])
}

/** Whether it is time for the weekly bundle. */
export function weeklyIsDue(workspace: Workspace, now: number): boolean {
  const last = Date.parse(workspace.lastBundleAt ?? workspace.createdAt)
  return workspace.weeklyBundle !== 'off' && now - last >= WEEK
}

/** Makes the weekly bundle where it is due. Throws a sentence where the folder can no longer be written. */
export async function weeklyBundle(): Promise<void> {
  const [workspace] = await all('workspace')
  if (!workspace || !weeklyIsDue(workspace, clockNow())) return
  const folder =
    workspace.weeklyBundle === 'folder' ? (await (await database()).get('handles', FOLDER))?.handle : null
  if (folder !== null) await mayWrite(folder as Folder | undefined)
  const blob = await exportBundle()
  if (folder) await writeInto(folder, blob)
  else download(blob)
}

async function mayWrite(folder: Folder | undefined): Promise<void> {
  const state = (await folder?.queryPermission?.({ mode: 'readwrite' })) ?? (folder ? 'granted' : 'denied')
  if (state !== 'granted')
    throw new Fault(
      'bad-request',
      'The weekly bundle could not be made: the browser no longer lets Dripline write into its folder. Choose the folder again under Workspace and bundle.',
    )
}

async function writeInto(folder: FileSystemDirectoryHandle, blob: Blob): Promise<void> {
  try {
    const file = await folder.getFileHandle(bundleName(), { create: true })
    const stream = await file.createWritable()
    await stream.write(blob)
    await stream.close()
  } catch (error) {
    throw new Fault('bad-request', `The weekly bundle could not be written: ${asFault(error).message}`)
  }
}

/** Gives a file to the browser to keep among its downloads; a bundle unless it is named otherwise. */
export function download(blob: Blob, name = bundleName()): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}

function bundleName(): string {
  return `dripline-${nowIso().slice(0, 10)}.zip`
}
