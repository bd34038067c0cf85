-- How sure an estimate is, at every place, and what places are like.
alter table depth_map add column sure_hash char(64) null, add column kin_hash char(64) null;
