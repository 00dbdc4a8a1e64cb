-- The amp of a job on the simulated bench: its own parts by a seed, and its true faults. Only a demo shop has such rows.
create table bench_amps (
  job_id integer primary key references jobs (id) on delete cascade,
  seed integer not null,
  faults jsonb not null
);
