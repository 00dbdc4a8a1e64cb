-- Numbers of the bills of a shop that numbers them one after the other: each is taken in the transaction that stores its bill.
create table bill_numbers (
  number integer primary key check (number > 0),
  job_id integer not null references jobs (id)
);
