-- How much light of lamps the sensor cut off, as a small picture; null for shots from before.
alter table shot add column cut_light_hash char(64) null;
