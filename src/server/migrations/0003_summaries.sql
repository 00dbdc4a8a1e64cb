-- Rows that an older program wrote are made anew from their tapes at the next start.
alter table job_summaries add column made_by integer not null default 0;
alter table job_summaries add column next_step text not null default '';
alter table job_summaries add column next_station text not null default '';
alter table job_summaries add column waiting_since text not null default '';
-- Positions of parts that were replaced, upper case: a list, so that other jobs can ask what fails in this model.
alter table job_summaries add column replaced jsonb not null default '[]';
