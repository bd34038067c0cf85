alter table shot
  add column clip boolean not null default false,
  add column sheet_hash char(64) null,
  add column frames int null,
  add column micros bigint null,
  add column strip_hash char(64) null,
  add column strip_count int null;

-- Stretches of frames that were rendered, named by all that they depend on.
create table stretch (
  name char(64) character set ascii collate ascii_bin not null primary key,
  content_hash char(64) not null,
  created timestamp(6) not null default current_timestamp(6)
);

alter table delivery
  add column playing boolean not null default false,
  add column first_frame int null,
  add column end_frame int null,
  add column depth_hash char(64) null,
  modify column format varchar(24) not null;
