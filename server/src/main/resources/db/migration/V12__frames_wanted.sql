-- The frame of a clip that somebody looks at and that has no depth yet: the estimate that is under way takes it first.
alter table shot add column wanted_frame int null;
