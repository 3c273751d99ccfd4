import type { Database } from './database'

/** How the deliveries of a network stand. */
export interface Figures {
  network: string
  waiting: number
  due: number
  held: number
  sent: number
  failed: number
  late: number
  broken: number
}

/** How the deliveries of each network stand at a moment; what is over is counted from a moment before on. */
export async function figures(database: Database, now: number, since: number): Promise<Figures[]> {
  const rows = await database.query<Record<keyof Figures, string | number>>(
    `select a.network,
       count(*) filter (where d.state in ('waiting', 'sending') and a.state = 'linked') as waiting,
       count(*) filter (where d.state in ('waiting', 'sending') and a.state = 'linked' and d.due_at <= $1) as due,
       count(*) filter (where d.state in ('waiting', 'sending') and a.state <> 'linked') as held,
       count(*) filter (where d.state = 'published' and d.finished_at >= $2) as sent,
       count(*) filter (where d.state in ('failed', 'unsure') and d.finished_at >= $2) as failed,
       count(*) filter (where d.state = 'late' and d.finished_at >= $2) as late,
       count(distinct a.account) filter (where a.state <> 'linked') as broken
     from accounts a left join deliveries d on d.account = a.account group by a.network order by a.network`,
    [now, since],
  )
  return rows.map(({ network, ...counts }) => ({
    network: String(network),
    ...(Object.fromEntries(Object.entries(counts).map(([k, v]) => [k, Number(v)])) as Omit<
      Figures,
      'network'
    >),
  }))
}
