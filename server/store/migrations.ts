/** Every change of the schema there has been, oldest first; a database runs those it lacks. */
export const MIGRATIONS: readonly string[] = [
  `
create table if not exists settings (key text primary key, value text not null);
create table if not exists links (
  account text primary key, network text not null, remote_id text not null, handle text not null,
  name text not null, zone text not null, profile_url text not null, token text not null,
  state text not null, message text not null, since bigint not null, expires_at bigint
);
create table if not exists media (hash text primary key, type text not null, bytes bytea not null);
create table if not exists deliveries (
  post text not null, generation int not null, revision int not null, workspace text not null, account text not null,
  due_at bigint not null, gap_minutes int not null, payload text not null, state text not null,
  tries int not null default 0, next_try_at bigint not null, lease_until bigint not null default 0,
  lease_owner text not null default '', attempts text not null default '[]',
  published_at bigint, remote_id text, public_url text,
  finished_at bigint, reason text not null default '', visibility text,
  primary key (post, generation)
);
create index if not exists deliveries_work on deliveries (account, state, next_try_at);
create table if not exists receipts (cursor bigserial primary key, post text not null, body text not null);
`,
  `
create table if not exists writer_use (day text primary key, words bigint not null, questions int not null);
create table if not exists link_pages (brand text primary key, name text not null, links text not null);
`,
  `
create table if not exists calendars (
  brand text primary key, secret text not null unique, name text not null, entries text not null
);
`,
  `
create table if not exists messages (
  key text primary key, text text not null, at bigint not null, tries int not null default 0,
  next_try_at bigint not null, done_at bigint, reason text not null default ''
);
create index if not exists messages_waiting on messages (next_try_at) where done_at is null;
create table if not exists documents (
  id text primary key, secret text not null unique, kind text not null, title text not null,
  home text not null, items int not null, publications text not null
);
create table if not exists watched (
  source text primary key, url text not null, every_minutes int not null, etag text, last_modified text,
  hash text not null, next_at bigint not null, failures int not null
);
create table if not exists snapshots (id bigserial primary key, source text not null, at bigint not null, text text not null);
create index if not exists snapshots_source on snapshots (source, id);
create table if not exists trials (
  id text primary key, account text not null, payload text not null, begun_at bigint not null, remote_id text
);
`,
  `
alter table links rename to accounts;
alter table accounts rename column token to secret;
alter table accounts add column connector text not null default 'stand-in';
alter table accounts add column settings text not null default '{}';
alter table accounts add column targets text not null default '[]';
alter table accounts add column target text;
alter table accounts add column checked_at bigint not null default 0;
alter table accounts add column warned_at bigint not null default 0;
alter table deliveries add column doubt boolean not null default false;
create table if not exists authorisations (
  state text primary key, connector text not null, network text not null, brand text not null, back text not null,
  kept text not null, until bigint not null
);
create table if not exists uploads (
  account text not null, hash text not null, remote_id text not null, at bigint not null, primary key (account, hash)
);
`,
  `
create index if not exists deliveries_open on deliveries (account, due_at, post) where state in ('waiting', 'sending');
create index if not exists deliveries_next on deliveries (next_try_at) where state in ('waiting', 'sending');
create index if not exists deliveries_published on deliveries (account, published_at) where published_at is not null;
drop index if exists deliveries_work;
create table if not exists sessions (hash text primary key, until bigint not null);
create table if not exists rates (key text primary key, tokens double precision not null, at bigint not null);
`,
  `
alter table deliveries add column reading_at bigint;
alter table deliveries add column reading_until bigint;
alter table deliveries add column reading_age text;
alter table deliveries add column reading_lease bigint not null default 0;
update deliveries set reading_at = published_at + 3600000, reading_until = published_at + 12600000, reading_age = '1 h'
  where state = 'published' and published_at is not null and remote_id is not null;
create index if not exists deliveries_readings on deliveries (reading_at) where reading_at is not null;
create table if not exists readings (cursor bigserial primary key, body text not null);
`,
  `
create table if not exists maker_use (day text primary key, pictures int not null);
`,
  `
alter table media add column kept_at bigint not null default 0;
`,
  `
create table if not exists followings (cursor bigserial primary key, body text not null);
alter table deliveries add column short_link text;
`,
]
