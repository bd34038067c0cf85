-- Names are one name when these are: letters with and without an accent are not. Filled in by the next migration.
alter table account
  add column folded_name varchar(255) character set utf8mb4 collate utf8mb4_bin null,
  drop key account_name;

create table try_count (
  who char(64) character set ascii collate ascii_bin not null primary key,
  what varchar(24) not null,
  tries int not null,
  first_at timestamp(6) not null default current_timestamp(6),
  key try_count_age (what, first_at)
);
