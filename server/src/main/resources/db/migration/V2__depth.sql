alter table depth_map
  add column matte_hash char(64) null,
  add column confidence double null,
  add column quality varchar(8) null,
  add column near_metres double null,
  add column far_metres double null;

alter table shot
  add column depth_run uuid null,
  add column notice varchar(500) null;

alter table account
  add column depth_engine varchar(60) null;
