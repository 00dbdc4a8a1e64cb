-- The shop's tubes. Tests and moves are added and never changed.
create table stock_tubes (
  -- The number that is written on the tube.
  id integer generated always as identity primary key,
  type text not null,
  note text,
  made_at timestamptz not null default now(),
  made_by text not null
);
create table stock_tube_tests (
  id integer generated always as identity primary key,
  tube integer not null references stock_tubes (id),
  at timestamptz not null default now(),
  who text not null,
  milliamps double precision not null check (milliamps >= 0),
  gm double precision,
  plate_volts double precision not null,
  screen_volts double precision,
  grid_volts double precision not null,
  shorts text,
  note text
);
create index on stock_tube_tests (tube);
create table stock_tube_moves (
  id integer generated always as identity primary key,
  tube integer not null references stock_tubes (id),
  at timestamptz not null default now(),
  who text not null,
  place text not null
);
create index on stock_tube_moves (tube);
