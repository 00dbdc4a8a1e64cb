-- Circuits that come with the program stand in the library as examples; they can be taken out.
alter table amp_models add column example boolean not null default false;
-- What is done once in the life of a shop: examples that were taken out do not come back.
create table done_once (
  what text primary key,
  at timestamptz not null default now()
);
