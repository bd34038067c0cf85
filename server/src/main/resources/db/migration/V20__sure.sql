-- How sure an estimate is, at every place.
alter table depth_map add column sure_hash char(64) null;
