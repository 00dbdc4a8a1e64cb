-- Lines that do not pass the checks of today: found when an older program's shop is opened. They stay on their tapes and count for nothing.
create table unreadable_lines (
  job_id integer not null,
  seq integer not null,
  why text not null,
  primary key (job_id, seq),
  foreign key (job_id, seq) references events (job_id, seq)
);
