-- Files on their way out of a store that several nodes share: whoever stores the same just then waits, and looks whether it is still there.
create table going_file (
  hash char(64) character set ascii collate ascii_bin not null primary key,
  since timestamp(6) not null default current_timestamp(6)
);

-- What open pages are told, in the order in which the database was told. Rows go after some minutes.
create table happening (
  seq bigint not null auto_increment primary key,
  at timestamp(6) not null default current_timestamp(6),
  account_id uuid not null,
  kind varchar(12) character set ascii not null,
  -- Of a shot or a delivery its id, of a page its name.
  subject varchar(64) not null,
  number bigint not null,
  node varchar(40) null,
  key (at)
);

-- Whose work a job is and how urgent, so that workers can go round among accounts.
create table job_turn (
  job_id nchar(36) not null primary key,
  account_id uuid not null,
  urgency varchar(12) character set ascii not null,
  created timestamp(6) not null default current_timestamp(6)
);

-- How much each account has been served, in turns divided by its weight; the row of no account is where the round is.
create table account_turn (
  account_id uuid not null primary key,
  served double not null
);

-- The nodes that have been seen lately.
create table node (
  name varchar(40) not null primary key,
  role varchar(8) character set ascii not null,
  version varchar(40) not null,
  started timestamp(6) not null,
  seen timestamp(6) not null,
  state varchar(12) character set ascii not null,
  problem varchar(200) null
);

alter table account add column administrator boolean not null default false;
