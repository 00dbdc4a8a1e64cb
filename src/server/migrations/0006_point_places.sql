-- Where a test point lies on a photo of the chassis: marked once, for every amp of the model.
create table point_places (
  id integer generated always as identity primary key,
  maker text not null,
  model text not null,
  point text not null,
  hash text not null references attachments (hash),
  -- Parts of the width and the height, from the upper left corner of the picture as it is shown.
  x double precision not null check (x between 0 and 1),
  y double precision not null check (y between 0 and 1),
  marked_at timestamptz not null default now(),
  marked_by text not null,
  unique (maker, model, point)
);
