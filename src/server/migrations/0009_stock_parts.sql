-- Parts at hand for restoring. Pieces come and go as lines; what a part is is not changed.
create table stock_parts (
  id integer generated always as identity primary key,
  letter text not null check (letter in ('C', 'R')),
  value double precision not null check (value > 0),
  rating double precision not null check (rating > 0),
  kind text not null,
  celsius double precision,
  hours double precision,
  ripple double precision,
  diameter double precision,
  length double precision,
  mounting text,
  safety_class text check (safety_class in ('X', 'Y')),
  sections jsonb,
  price numeric(12, 2) check (price >= 0),
  place text,
  made_at timestamptz not null default now(),
  made_by text not null
);
create table stock_part_pieces (
  id integer generated always as identity primary key,
  part integer not null references stock_parts (id),
  at timestamptz not null default now(),
  who text not null,
  pieces integer not null check (pieces <> 0),
  why text
);
create index on stock_part_pieces (part);
-- Parts with a bad name in this shop, and what it was learnt from. A name is withdrawn by a line that says so.
create table bad_names (
  id integer generated always as identity primary key,
  letter text not null check (letter in ('C', 'R', 'L', 'V')),
  words text not null,
  from_year integer,
  to_year integer,
  does text not null,
  made_at timestamptz not null default now(),
  made_by text not null
);
create table bad_name_evidence (
  id integer generated always as identity primary key,
  name integer not null references bad_names (id),
  at timestamptz not null default now(),
  who text not null,
  job integer,
  line integer,
  text text not null,
  withdraws boolean not null default false
);
create index on bad_name_evidence (name);
