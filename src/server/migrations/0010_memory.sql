-- What each job leaves to the shop's memory, written with its summary and made anew from its tape at will.
alter table job_summaries add column digest jsonb not null default '{}';
-- Who has the job: its last technician by hand-over, else who opened it.
alter table job_summaries add column technician text not null default '';
-- Pieces of a stock part that the shop wants to have at least; every setting of it is a line.
create table stock_part_minimums (
  id integer generated always as identity primary key,
  part integer not null references stock_parts (id),
  at timestamptz not null default now(),
  who text not null,
  minimum integer not null check (minimum >= 0)
);
create index on stock_part_minimums (part);
-- Two people may have one name: they differ by where they are reached.
alter table owners drop constraint owners_name_key;
create index on owners (name);
